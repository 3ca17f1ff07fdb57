<script lang="ts">
  /** The chunks of a plan with their steps to tick. */
  import type { ChunkState } from '$core/lessons/progress';
  import type { TimeSignature } from '$core/score/score';
  import { kept, stays } from '$ui/form/kept';
  import Once from '$ui/form/Once.svelte';
  import { placesText, plural, shortDate, tempoText, toBeats } from '$ui/text';

  interface Props {
    plans: readonly ChunkState[];
    numbers: readonly string[];
    time: TimeSignature;
  }
  let { plans, numbers, time }: Props = $props();
</script>

<div class="mt-3 grid gap-x-12 gap-y-6 md:grid-cols-2">
  {#each plans as { chunk, steps } (chunk.id)}
    {@const name = `${chunk.name ?? chunk.section}, ${placesText(numbers, chunk)}`}
    <section aria-label={name} class="border-t border-hairline pt-3">
      <h3 class="font-bold">{name}</h3>
      <ul class="mt-1">
        {#each steps as step (step.id)}
          <li>
            <form
              method="post"
              action={step.done ? '?/untick' : '?/tick'}
              use:kept={{ submit: stays }}
              data-draft="{chunk.id}{step.id}"
              class="flex min-h-9 items-center gap-3"
            >
              <input type="hidden" name="chunk" value={chunk.id} />
              <input type="hidden" name="step" value={step.id} />
              <Once />
              <!-- As large as a fingertip where that is what touches it; the circle stays the same. -->
              <button
                class="flex h-6 w-6 shrink-0 items-center justify-center"
                aria-label="{step.done ? 'Uncheck' : 'Check off'}: {step.says}, {name}"
                ><span
                  aria-hidden="true"
                  class="flex h-6 w-6 items-center justify-center rounded-full border-[1.6px] border-ink {step.done
                    ? 'bg-ink'
                    : 'bg-paper'} {!step.done && step.passed ? 'border-dashed' : ''}"
                  >{#if step.done}<span class="h-2 w-2 rounded-full bg-paper"></span>{/if}</span
                ></button
              >
              <span class={step.done || step.passed ? 'text-quiet' : ''}>{step.says}</span>
              <span class="ml-auto flex shrink-0 items-center gap-2">
                {#if step.done}
                  <span class="text-sm text-quiet">
                    {step.done.tempo ? `${tempoText(time, step.done.tempo)}, ` : ''}{shortDate(step.done.at)}
                  </span>
                {:else if step.ladder.length > 0}
                  {#if step.measures > 0 && step.measures <= chunk.to - chunk.from}<span
                      class="text-sm text-quiet"
                      >{step.measures} of {plural(chunk.to - chunk.from + 1, 'measure')}</span
                    >{:else if step.tempo}<span class="text-sm text-quiet"
                      >{toBeats(time, step.tempo)}, to</span
                    >{/if}
                  <input
                    name="tempo"
                    inputmode="numeric"
                    aria-label="Tempo reached: {step.says}, {name}"
                    class="field h-8 w-16 py-0 text-right font-mono text-sm"
                    value={toBeats(
                      time,
                      step.ladder.find((t) => t > (step.tempo ?? 0)) ?? step.ladder.at(-1)!,
                    )}
                  />
                {/if}
              </span>
            </form>
          </li>
        {/each}
      </ul>
    </section>
  {:else}
    <p class="text-quiet">No chunks yet. Change the plan to add some.</p>
  {/each}
</div>
