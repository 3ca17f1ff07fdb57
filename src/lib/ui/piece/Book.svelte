<script lang="ts">
  /** A tune book: which of its tunes are brought. One is looked at first; several are kept as they are proposed. */
  import { labelOf, RIGHTS_LABELS } from '$ui/labels';
  import { invalidateAll } from '$app/navigation';
  import type { BookTune } from '$core/io/abc/book';
  import { formToken } from '$ui/form/token';
  import { plural } from '$ui/text';
  import { Dialog } from 'bits-ui';
  import { SvelteSet } from 'svelte/reactivity';
  import { bringTune } from './bring';

  interface Props {
    name: string;
    tunes: readonly BookTune[];
    rights: readonly string[];
    /** One tune is to be looked at. */
    onone: (tune: BookTune) => void;
    onclose: () => void;
  }
  let { name, tunes, rights, onone, onclose }: Props = $props();

  /** From how many tunes on a title is looked for by typing. */
  const MANY = 12;

  let sought = $state('');
  let right = $state('not known');
  const chosen = new SvelteSet<BookTune>();
  const seen = $derived(tunes.filter((t) => t.title.toLowerCase().includes(sought.trim().toLowerCase())));

  /** While several are brought, and afterwards. */
  let at = $state<number>();
  let stopped = false;
  let kept = $state(0);
  let problems = $state<string[]>([]);
  let isDone = $state(false);
  const wanted = $derived(tunes.filter((t) => chosen.has(t)));

  async function bring(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (wanted.length === 1) return onone(wanted[0]!);
    for (const [i, tune] of wanted.entries()) {
      if (stopped) break;
      at = i;
      try {
        await bringTune(tune, right, formToken());
        kept += 1;
      } catch (error) {
        problems.push(`${tune.title}: ${error instanceof Error ? error.message : String(error)}`);
      }
    }
    at = undefined;
    isDone = true;
    await invalidateAll();
  }

  function close(): void {
    stopped = true;
    onclose();
  }
</script>

<Dialog.Root open onOpenChange={(open) => !open && close()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed inset-x-0 top-6 z-40 mx-auto flex max-h-[calc(100dvh-3rem)] w-[36rem] max-w-[calc(100vw-2rem)] flex-col rounded-lg border border-hairline bg-paper"
    >
      <form onsubmit={bring} class="flex min-h-0 flex-col">
        <div class="px-7 pt-6 pb-3">
          <Dialog.Title class="text-lg font-bold">Which pieces of “{name}”?</Dialog.Title>
          <Dialog.Description class="text-quiet">
            {#if isDone}
              {plural(kept, 'tune')}
              {kept === 1 ? 'is' : 'are'} saved in your pieces.
            {:else}
              It holds {plural(tunes.length, 'tune')}. One opens in a preview; several are added directly.
            {/if}
          </Dialog.Description>
        </div>
        {#if isDone}
          {#if problems.length > 0}
            <ul class="mx-7 mb-4 min-h-0 overflow-y-auto border-l-[3px] border-alarm pl-3" role="alert">
              {#each problems as problem (problem)}<li>{problem} It wasn’t saved.</li>{/each}
            </ul>
          {/if}
        {:else}
          <div class="flex flex-wrap items-center gap-5 px-7 pb-2">
            <button type="button" class="link" onclick={() => seen.forEach((t) => chosen.add(t))}>
              {sought ? 'Select these' : 'Select all'}
            </button>
            <button type="button" class="link" onclick={() => chosen.clear()}>Select none</button>
            {#if tunes.length > MANY}
              <label class="ml-auto flex items-center gap-2 text-sm text-quiet">
                Find <input class="field text-base text-ink" bind:value={sought} />
              </label>
            {/if}
          </div>
          <ul class="min-h-0 flex-1 overflow-y-auto border-y border-hairline px-7 py-2" aria-label="Tunes">
            {#each seen as tune, i (i)}
              <li>
                <label class="flex items-baseline gap-3 py-1">
                  <input
                    type="checkbox"
                    class="tick"
                    disabled={at !== undefined}
                    checked={chosen.has(tune)}
                    onchange={(event) =>
                      event.currentTarget.checked ? chosen.add(tune) : chosen.delete(tune)}
                  />
                  <span>{tune.title}</span>
                  <span class="ml-auto font-mono text-sm text-quiet">{tune.number}</span>
                </label>
              </li>
            {:else}
              <li class="py-1 text-quiet">No title has “{sought}”.</li>
            {/each}
          </ul>
        {/if}
        <div class="flex items-center gap-5 px-7 py-4">
          {#if isDone}
            <button type="button" class="action" onclick={close}>Done</button>
          {:else if at !== undefined}
            <p role="status">{at + 1} of {wanted.length}: {wanted[at]?.title}</p>
            <button type="button" class="link ml-auto" onclick={() => (stopped = true)}>Stop</button>
          {:else}
            <button class="action" disabled={wanted.length === 0}>
              {wanted.length === 1
                ? 'Preview'
                : wanted.length === 0
                  ? 'Add them'
                  : `Bring ${plural(wanted.length, 'tune')}`}
            </button>
            <Dialog.Close class="link" type="button">Cancel</Dialog.Close>
            <label class="ml-auto flex items-center gap-2 text-sm text-quiet">
              Rights
              <select class="field text-base text-ink" bind:value={right}>
                {#each rights as id (id)}<option value={id}>{labelOf(RIGHTS_LABELS, id)}</option>{/each}
              </select>
            </label>
          {/if}
        </div>
      </form>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
