<script lang="ts">
  /** Today's steps, each a button: what, where, how long, and whether it is done. */
  import { taskId, type RoomTask } from '$core/lessons/room';
  import { stepInSentence } from '$core/lessons/steps';
  import { capital, tempoText } from '$ui/text';
  import Check from '@lucide/svelte/icons/check';

  interface Props {
    tasks: readonly RoomTask[];
    done: readonly string[];
    onopen: (task: RoomTask) => void;
  }
  let { tasks, done, onopen }: Props = $props();
  /** Steps of one part of a piece stand together. */
  const parts = $derived(
    tasks.reduce<RoomTask[][]>((groups, task) => {
      const last = groups.at(-1);
      if (last?.[0]?.assignment === task.assignment && last[0].chunk === task.chunk) last.push(task);
      else groups.push([task]);
      return groups;
    }, []),
  );
</script>

{#each parts as part, i (taskId(part[0]!))}
  <section class="mt-5">
    {#if parts[i - 1]?.[0]?.assignment !== part[0]!.assignment}
      <h2 class="text-lg">{part[0]!.title}</h2>
    {/if}
    <p class="text-quiet">{capital(part[0]!.where)}{part[0]!.why === 'due' ? ', review' : ''}</p>
    <ol class="mt-1">
      {#each part as task (taskId(task))}
        {@const isDone = done.includes(taskId(task))}
        <li class="border-t border-hairline">
          <button
            type="button"
            class="flex min-h-14 w-full items-center gap-3 py-2 text-left hover:bg-accent-soft"
            onclick={() => onopen(task)}
          >
            <span
              class="flex h-8 w-8 shrink-0 items-center justify-center rounded-full border-2 {isDone
                ? 'border-ink bg-ink text-paper'
                : 'border-field'}"
              >{#if isDone}<Check size={18} aria-hidden="true" />{/if}</span
            >
            <span class="min-w-0 flex-1">
              {capital(stepInSentence(task.says))}{#if task.hand}<span class="text-quiet"
                  >, {tempoText(task.time, task.tempo)}</span
                >{/if}
              <span class="sr-only">{isDone ? ', done' : ''}</span>
            </span>
            <span class="shrink-0 font-mono text-sm">{task.minutes} min</span>
          </button>
        </li>
      {/each}
    </ol>
  </section>
{/each}
