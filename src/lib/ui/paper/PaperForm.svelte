<script lang="ts">
  /** What goes on paper: sheets in order, with copies, and how they look. Every change is kept and shown at once. */
  import { enhance } from '$app/forms';
  import { SHEET_IDS, SHEETS, type Choices, type SheetId } from '$lib/paper/choices';
  import { stays } from '$ui/form/kept';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';

  interface Props {
    choices: Choices;
    /** What was wrong with the last choice. */
    problem?: string | undefined;
  }
  let { choices, problem }: Props = $props();

  let element = $state<HTMLFormElement>();
  let moving = $state<readonly SheetId[]>();
  const chosen = $derived(new Map(choices.sheets.map(({ sheet, copies }) => [sheet, copies])));
  /** Chosen sheets in their order, then the others. */
  const order = $derived(moving ?? [...new Set([...choices.sheets.map((s) => s.sheet), ...SHEET_IDS])]);
  const change = (): void => element?.requestSubmit();
  function earlier(sheet: SheetId): void {
    const list = [...order];
    const at = list.indexOf(sheet);
    [list[at - 1], list[at]] = [list[at]!, list[at - 1]!];
    moving = list;
    // The places are in the form before it is sent.
    requestAnimationFrame(change);
  }
  const KEYS = ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'Db', 'Ab', 'Eb', 'Bb', 'F'] as const;
  const KEY_NAMES: Readonly<Record<string, string>> = { 'F#': 'F♯', Db: 'D♭', Ab: 'A♭', Eb: 'E♭', Bb: 'B♭' };
</script>

{#snippet pick(name: string, says: string, value: string, options: readonly (readonly [string, string])[])}
  <label class="grid min-w-0 text-sm text-quiet">
    {says}
    <select {name} class="field w-full min-w-0 text-base text-ink" {value} onchange={change}>
      {#each options as [id, text] (id)}<option value={id} selected={id === value}>{text}</option>{/each}
    </select>
  </label>
{/snippet}
{#snippet tick(name: string, says: string, isOn: boolean)}
  <label class="flex min-h-7 items-center gap-2">
    <input type="checkbox" class="tick" {name} checked={isOn} onchange={change} />{says}
  </label>
{/snippet}

<form
  method="post"
  action="?/choose"
  bind:this={element}
  use:enhance={(sent) => {
    const after = stays(sent);
    return async (answer) => {
      await (
        await after
      )?.(answer);
      moving = undefined;
    };
  }}
  class="grid gap-5"
>
  {#if problem}<p class="text-alarm" role="alert">{problem}</p>{/if}
  <fieldset>
    <legend class="font-semibold">Sheets</legend>
    <ol>
      {#each order as sheet, place (sheet)}
        {@const { name, says } = SHEETS[sheet]}
        <li class="flex items-center gap-2 border-t border-hairline py-1 first:border-0">
          <input type="hidden" name="place-{sheet}" value={place} />
          <label class="flex min-h-7 min-w-0 flex-1 items-center gap-2" title={says}>
            <input
              type="checkbox"
              class="tick"
              name="sheet-{sheet}"
              checked={chosen.has(sheet)}
              onchange={change}
            />
            {name}
          </label>
          {#if chosen.has(sheet)}
            {#if place > 0}
              <button
                type="button"
                class="grid h-7 w-7 place-items-center text-quiet hover:text-ink"
                aria-label="{name} earlier"
                onclick={() => earlier(sheet)}><ArrowUp size={16} aria-hidden="true" /></button
              >
            {/if}
            <input
              type="number"
              name="copies-{sheet}"
              class="field w-14"
              min="1"
              max="40"
              value={chosen.get(sheet)}
              aria-label="Copies of {name}"
              onchange={change}
            />
          {/if}
        </li>
      {/each}
    </ol>
  </fieldset>
  <div class="grid grid-cols-2 gap-3">
    {@render pick('paper', 'Paper', choices.paper, [
      ['a4', 'A4'],
      ['letter', 'Letter'],
    ])}
    {@render pick('size', 'Notes', choices.size, [
      ['normal', 'normal'],
      ['large', 'large'],
      ['very large', 'very large'],
    ])}
    {@render pick('fingers', 'Fingers', choices.fingers, [
      ['once', 'at changes'],
      ['all', 'all'],
      ['positions', 'at positions'],
      ['none', 'none'],
    ])}
    {@render pick('names', 'Note names', choices.names, [
      ['none', 'none'],
      ['below', 'below the notes'],
      ['heads', 'inside the noteheads'],
      ['degrees', 'scale degrees'],
      ['tones', 'chord tones'],
    ])}
    {@render pick('words', 'Words', String(choices.words), [
      ['all', 'all verses'],
      ['1', 'verse 1'],
      ['2', 'verse 2'],
      ['3', 'verse 3'],
      ['none', 'none'],
    ])}
    {@render pick('repeats', 'Repeated music', choices.repeats, [
      ['short', 'save pages'],
      ['as written', 'as written'],
      ['folded', 'abbreviated'],
      ['written out', 'written out'],
    ])}
  </div>
  <fieldset class="grid grid-cols-2">
    <legend class="font-semibold">On the score</legend>
    {@render tick('counts', 'Counts', choices.counts)}
    {@render tick('chords', 'Chord names', choices.chords)}
    {@render tick('pedal', 'Pedal', choices.pedal)}
    {@render tick('map', 'Map', choices.map)}
    {@render tick('decided', 'Only your fingers', choices.decided)}
  </fieldset>
  <details open={choices.keys === 'all' || choices.keys.length > 0}>
    <summary class="cursor-pointer font-semibold">Keys of the chord sheet</summary>
    <p class="text-sm text-quiet">None selected: the version’s key.</p>
    <div class="mt-1 grid grid-cols-4">
      <label class="col-span-4 flex min-h-7 items-center gap-2">
        <input
          type="checkbox"
          class="tick"
          name="keys"
          value="all"
          checked={choices.keys === 'all'}
          onchange={change}
        />all twelve, with contents
      </label>
      {#each KEYS as key (key)}
        <label class="flex min-h-7 items-center gap-2">
          <input
            type="checkbox"
            class="tick"
            name="keys"
            value={key}
            checked={choices.keys !== 'all' && choices.keys.includes(key)}
            disabled={choices.keys === 'all'}
            onchange={change}
          />{KEY_NAMES[key] ?? key}
        </label>
      {/each}
    </div>
  </details>
  <noscript><button class="action">Show</button></noscript>
</form>
