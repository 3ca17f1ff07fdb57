<script lang="ts">
  /** A piece before it is kept: how it begins, what was found in it and left out, its name, its parts, its rights. */
  import { labelOf, RIGHTS_LABELS } from '$ui/labels';
  import { formToken } from '$ui/form/token';
  import { goto } from '$app/navigation';
  import type { PartChoices } from '$core/players/parts';
  import Sheet from '$ui/score/Sheet.svelte';
  import { metreText, plural, tempoText } from '$ui/text';
  import { Dialog } from 'bits-ui';
  import { untrack } from 'svelte';
  import { keep, look, type Looked } from './bring';
  import Parts from './PartChoices.svelte';
  import TunePhrases from './TunePhrases.svelte';

  interface Props {
    file: File;
    preview: Looked;
    rights: readonly string[];
    onclose: () => void;
  }
  let { file, preview: first, rights, onclose }: Props = $props();

  let preview = $state.raw(untrack(() => first));
  /** As the teacher has them now: the picture follows, and what is saved does not wait for it. */
  let choices = $state.raw(untrack(() => first.choices));
  let title = $state(untrack(() => first.title));
  let composer = $state(untrack(() => first.composer));
  let right = $state('not known');
  let busy = $state(false);
  let problem = $state('');

  async function choose(parts: PartChoices): Promise<void> {
    problem = '';
    choices = parts;
    try {
      const looked = await look(file, parts);
      // Choices made meanwhile have a look of their own under way.
      if (choices === parts) preview = looked;
    } catch (error) {
      if (choices === parts) choices = preview.choices;
      problem = error instanceof Error ? error.message : String(error);
    }
  }

  async function keepIt(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    problem = '';
    try {
      await goto(await keep(file, { title, composer, rights: right, parts: choices }, once), {
        invalidateAll: true,
      });
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
      busy = false;
    }
  }
  /** Keeping the same look twice keeps one piece. */
  const once = formToken();
</script>

<Dialog.Root open onOpenChange={(open) => !open && onclose()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed inset-x-0 top-6 z-40 mx-auto flex max-h-[calc(100dvh-3rem)] w-[46rem] max-w-[calc(100vw-2rem)] flex-col rounded-lg border border-hairline bg-paper"
    >
      <form onsubmit={keepIt} class="flex min-h-0 flex-col">
        <div class="min-h-0 overflow-y-auto px-7 pt-6 pb-4">
          <Dialog.Title class="text-lg font-bold">Is this the piece?</Dialog.Title>
          <Dialog.Description class="text-quiet">
            {preview.key}, {metreText(preview.time)}{preview.tempo > 0
              ? `, ${tempoText(preview.time, preview.tempo)}`
              : ''}. {plural(preview.measures, 'measure')}{preview.pickup ? ' after a pickup' : ''}, {preview.notes >
            0
              ? plural(preview.notes, 'note')
              : 'no melody'}{preview.chords > 0 ? `, ${plural(preview.chords, 'chord name')}` : ''}.
          </Dialog.Description>
          {#if preview.already}
            <p class="mt-2 border-l-[3px] border-accent pl-3" role="status">
              You have this already: <a class="link" href="/pieces/{preview.already.id}"
                >{preview.already.title}</a
              >.
            </p>
          {/if}
          <div class="mt-3 border-y border-hairline py-1">
            <Sheet sheet={preview.sheet} label="The beginning of {title}" />
          </div>
          {#if preview.warnings.length > 0}
            <ul class="mt-3 border-l-[3px] border-hairline pl-3">
              {#each preview.warnings as warning (warning)}<li>{warning}</li>{/each}
            </ul>
          {/if}
          <div class="mt-4 grid grid-cols-[minmax(0,2fr)_minmax(0,2fr)_auto] gap-4">
            <label class="grid text-sm text-quiet">
              Title <input class="field text-base text-ink" bind:value={title} required maxlength="200" />
            </label>
            <label class="grid text-sm text-quiet">
              Composer <input class="field text-base text-ink" bind:value={composer} maxlength="200" />
            </label>
            <label class="grid text-sm text-quiet">
              Rights
              <select class="field text-base text-ink" bind:value={right}>
                {#each rights as id (id)}<option value={id}>{labelOf(RIGHTS_LABELS, id)}</option>{/each}
              </select>
            </label>
          </div>
          {#if preview.parts.length > 1}
            <section class="mt-4" aria-labelledby="parts">
              <h3 id="parts" class="font-bold">Who plays what</h3>
              <Parts parts={preview.parts} {choices} onchange={choose} />
            </section>
          {/if}
          {#if preview.tune.length > 0}
            <section class="mt-4" aria-labelledby="tune">
              <h3 id="tune" class="font-bold">Melody by phrase</h3>
              <TunePhrases
                tune={preview.tune}
                parts={preview.parts}
                chosen={choices.tune}
                onchange={(tune) => void choose({ ...choices, tune })}
              />
            </section>
          {/if}
          {#if problem}<p class="mt-3 text-alarm" role="alert">{problem}</p>{/if}
        </div>
        <div class="flex items-center gap-5 border-t border-hairline px-7 py-4">
          <button class="action" disabled={busy}>{busy ? 'Saving…' : 'Save this piece'}</button>
          <Dialog.Close class="link" type="button">Cancel</Dialog.Close>
          <span class="ml-auto text-sm text-quiet">Nothing is saved yet. Your file won’t change.</span>
        </div>
      </form>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
