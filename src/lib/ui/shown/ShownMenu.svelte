<script lang="ts">
  /** What stands on the page, how large, and in which light: one control. */
  import { labelOf, THEME_LABELS } from '$ui/labels';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Opening from '$ui/form/Opening.svelte';
  import { loadDark } from './dark';
  import { keepShown, THEMES, ZOOMS, type Shown } from './shown';

  interface Props {
    shown: Shown;
    /** Verses that the piece has. */
    verses: readonly number[];
    onchange: (shown: Shown) => void;
  }
  let { shown, verses, onchange }: Props = $props();

  const marks = [
    ['fingers', 'Fingers'],
    ['counts', 'Counts'],
    ['chords', 'Chord names'],
    ['degrees', 'Chord numbers'],
    ['pedal', 'Pedal'],
    ['names', 'Note names'],
  ] as const;

  function set(part: Partial<Shown>): void {
    const next = { ...shown, ...part };
    keepShown(next);
    if (next.theme !== 'light') loadDark();
    document.documentElement.dataset.theme = next.theme;
    onchange(next);
  }
</script>

<Opening label="View" align="end">
  {#snippet word()}View <ChevronDown size={15} aria-hidden="true" />{/snippet}

  <div class="grid gap-1">
    {#each marks as [mark, name] (mark)}
      <label class="flex min-h-7 items-center gap-2">
        <input
          type="checkbox"
          class="tick"
          checked={shown[mark]}
          onchange={(event) => set({ [mark]: event.currentTarget.checked })}
        />
        {name}
      </label>
    {/each}
  </div>
  {#if verses.length > 0}
    <label class="flex items-center gap-2 border-t border-hairline pt-3">
      Lyrics
      <select
        class="field ml-auto"
        value={String(shown.words)}
        onchange={({ currentTarget: { value } }) =>
          set({ words: value === 'all' || value === 'none' ? value : Number(value) })}
      >
        {#if verses.length > 1}<option value="all">all {verses.length} verses</option>{:else}<option
            value="all">shown</option
          >{/if}
        {#if verses.length > 1}
          {#each verses as verse (verse)}<option value={String(verse)}>verse {verse}</option>{/each}
        {/if}
        <option value="none">none</option>
      </select>
    </label>
  {/if}
  <div class="flex items-center gap-2 border-t border-hairline pt-3">
    <span id="zoom-label">Size</span>
    <button
      type="button"
      class="ml-auto h-8 w-8 border border-hairline disabled:opacity-40"
      aria-label="Smaller music"
      disabled={shown.zoom === ZOOMS[0]}
      onclick={() => set({ zoom: ZOOMS[ZOOMS.indexOf(shown.zoom) - 1]! })}>−</button
    >
    <span class="w-12 text-center" role="status">{shown.zoom}%</span>
    <button
      type="button"
      class="h-8 w-8 border border-hairline disabled:opacity-40"
      aria-label="Larger music"
      disabled={shown.zoom === ZOOMS.at(-1)}
      onclick={() => set({ zoom: ZOOMS[ZOOMS.indexOf(shown.zoom) + 1]! })}>+</button
    >
  </div>
  <label class="flex items-center gap-2 border-t border-hairline pt-3">
    Theme
    <select
      class="field ml-auto"
      value={shown.theme}
      onchange={(event) => set({ theme: event.currentTarget.value as Shown['theme'] })}
    >
      {#each THEMES as theme (theme)}<option value={theme}>{labelOf(THEME_LABELS, theme)}</option>{/each}
    </select>
  </label>
</Opening>
