<script lang="ts">
  /** From an empty studio to a lesson in three steps: which are done, and where the next one begins. */
  import Check from '@lucide/svelte/icons/check';

  interface Props {
    steps: { piece: string | null; version: string | null; assigned: string | null };
  }
  let { steps }: Props = $props();

  const list = $derived([
    {
      done: steps.piece !== null,
      name: 'Add a piece',
      says: 'a file, typed music, or chords with lyrics',
      href: '/pieces',
    },
    {
      done: steps.version !== null,
      name: 'Make a version',
      says: 'the piece at one level, for one pair of hands, fingered and counted',
      href: steps.piece ? `/pieces/${steps.piece}` : undefined,
    },
    {
      done: steps.assigned !== null,
      name: 'Assign it to a student',
      says: 'the practice plan follows; then start the lesson or print',
      href: steps.version ? `/versions/${steps.version}?assign` : undefined,
    },
  ]);
  const next = $derived(list.findIndex((s) => !s.done));
</script>

<section class="mt-6 border-t border-hairline pt-4" aria-labelledby="first-steps">
  <h2 id="first-steps">Three steps to the first lesson</h2>
  <ol class="mt-2 grid gap-2">
    {#each list as { done, name, says, href }, i (name)}
      <li class="flex items-baseline gap-3">
        <span
          class="flex h-6 w-6 shrink-0 items-center justify-center self-center rounded-full border-2 border-ink text-sm {done
            ? 'bg-ink text-paper'
            : ''}"
          >{#if done}<Check size={14} aria-hidden="true" /><span class="sr-only">done</span>{:else}{i +
              1}{/if}</span
        >
        <span>
          {#if !done && href}<a class={i === next ? 'action' : 'link'} {href}>{name}</a>{:else}<strong
              >{name}</strong
            >{/if}
          <span class="ml-1 text-quiet">{says}</span>
        </span>
      </li>
    {/each}
    {#if next < 0}
      <li class="flex items-baseline gap-3">
        <span class="w-6 shrink-0"></span>
        <a class="action" href="/learners/{steps.assigned}">Start the first lesson</a>
      </li>
    {/if}
  </ol>
</section>
