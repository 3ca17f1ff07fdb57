<script lang="ts">
  /** The chords of a piece: each once on a keyboard, then section by section with degrees and with what stays between neighbours. */
  import type { PieceReport } from '$core/report/report';
  import { plural } from '$ui/text';
  import { onMount } from 'svelte';
  import { blackKeyShape } from '$core/theory/pitch';
  import ChordShape from './ChordShape.svelte';
  import { measureLink } from './links';

  interface Props {
    report: PieceReport;
    numbers: readonly string[];
  }
  let { report, numbers }: Props = $props();

  let asNumbers = $state(false);
  onMount(() => {
    asNumbers = localStorage.getItem('degrees') === 'numbers';
  });
  function choose(event: Event & { currentTarget: HTMLSelectElement }): void {
    asNumbers = event.currentTarget.value === 'numbers';
    localStorage.setItem('degrees', event.currentTarget.value);
  }
  const FROM = {
    symbol: 'As named in the source.',
    notes: 'Heard from the notes.',
    harmonised: 'The tune had no chords; these are suggestions, each with alternatives.',
  } as const;
  const INVERSIONS = ['', 'third in the bass', 'fifth in the bass', 'seventh in the bass'];
  const bassText = ({ inversion, bass }: { inversion: number; bass: string }): string =>
    inversion === 0
      ? ''
      : inversion < 0
        ? `${bass} below it`
        : (INVERSIONS[inversion] ?? `${bass} in the bass`);
  const moveText = ({ stay, move }: { stay: readonly string[]; move: readonly string[] }): string =>
    stay.length === 0
      ? 'all move'
      : `${stay.join(' ')} ${stay.length === 1 ? 'stays' : 'stay'}${move.length > 0 ? `, ${move.join(' ')} new` : ''}`;
</script>

<section class="mt-7" aria-labelledby="chords">
  <div class="flex flex-wrap items-baseline gap-x-6">
    <h2 id="chords">{report.vocabulary.length > 0 ? plural(report.vocabulary.length, 'chord') : 'Chords'}</h2>
    <p class="text-quiet">
      {#if report.vocabulary.length === 0}
        No chords found in this piece.
      {:else}
        {FROM[report.chordsFrom]}
        {report.startsOn
          ? `The piece starts on ${report.startsOn.symbol}, ${report.startsOn.isBorrowed ? 'outside the key' : 'not the tonic'}.`
          : ''}
      {/if}
    </p>
    {#if report.vocabulary.length > 0}
      <label class="ml-auto text-sm text-quiet">
        Chord numbers
        <select class="field ml-1" value={asNumbers ? 'numbers' : 'roman'} onchange={choose}>
          <option value="roman">I vi IV V</option>
          <option value="numbers">1 6 4 5</option>
        </select>
      </label>
    {/if}
  </div>
  <ul class="mt-3 flex flex-wrap gap-x-7 gap-y-4">
    {#each report.vocabulary as chord (chord.symbol)}
      <li class="text-sm">
        <p class="flex items-baseline gap-2">
          <span class="text-base font-semibold">{chord.symbol}</span>
          <span class="font-mono text-quiet">{asNumbers ? chord.number : chord.degree}</span>
          {#if chord.isBorrowed}<span class="text-quiet">outside the key</span>{/if}
        </p>
        <ChordShape keys={chord.keys} label="{chord.symbol}: {chord.tones.join(' ')}" />
        <p>{chord.tones.join(' ')}</p>
        {#if blackKeyShape(chord.keys)}<p class="text-quiet">{blackKeyShape(chord.keys)}</p>{/if}
        {#if bassText(chord)}<p class="text-quiet">{bassText(chord)}</p>{/if}
        <p class="text-quiet">
          <a class="hover:text-accent" href={measureLink(chord.measures[0]!)}>
            {chord.measures.length === 1
              ? `once, in ${numbers[chord.measures[0]!]}`
              : `${chord.measures.length} times, first in ${numbers[chord.measures[0]!]}`}
          </a>
        </p>
      </li>
    {/each}
  </ul>
  {#each report.chords as list, i (i)}
    {@const section = report.form.sections[i]!}
    <div class="mt-3 grid grid-cols-[6.5rem_minmax(0,1fr)] border-t border-hairline pt-2">
      <h3 class="font-semibold">
        <a class="hover:text-accent" href={measureLink(section.from)}>{section.label}</a>
      </h3>
      {#if section.repeats && report.form.sections.findIndex((s) => s.label === section.repeats) < i}
        <p class="text-quiet">as {section.repeats}</p>
      {:else}
        <ol class="flex flex-wrap gap-x-5 gap-y-2">
          {#each list as chord, k (k)}
            <li>
              <a class="group" href={measureLink(chord.measure)} title="measure {numbers[chord.measure]}">
                <span class="font-semibold group-hover:text-accent">{chord.symbol}</span>
                <span class="font-mono text-sm text-quiet">
                  {asNumbers ? chord.number : chord.degree}{chord.isBorrowed ? ', outside the key' : ''}
                </span>
                {#if chord.alternatives.length > 0}
                  <span class="block text-sm text-quiet">or {chord.alternatives.join(', ')}</span>
                {/if}
                {#if chord.stay.length + chord.move.length > 0}
                  <span class="block text-sm text-quiet">{moveText(chord)}</span>
                {/if}
              </a>
            </li>
          {:else}
            <li class="text-quiet">continues the previous chord</li>
          {/each}
        </ol>
      {/if}
    </div>
  {/each}
  {#if report.shapes.length > 0}
    <h3 class="mt-5 font-semibold">Same chord, several voicings</h3>
    <ul>
      {#each report.shapes as { symbol, shapes } (symbol)}
        <li class="mt-1">
          <strong>{symbol}</strong>
          {#each shapes as shape, s (shape.notes)}{s > 0 ? '; ' : ' '}{shape.notes} in
            {#each shape.measures.slice(0, 6) as measure, m (measure)}{m > 0 ? ', ' : ''}<a
                class="link"
                href={measureLink(measure)}>{numbers[measure]}</a
              >{/each}{shape.measures.length > 6 ? ' and later' : ''}{/each}
        </li>
      {/each}
    </ul>
  {/if}
</section>
