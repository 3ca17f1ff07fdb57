<script lang="ts">
  /** What was found in a piece: doubts, form as a path, where it varies, where it is hard. Every statement leads into the music. */
  import type { PieceReport } from '$core/report/report';
  import type { SectionStart } from '$core/analysis/sections';
  import { distanceText, intervalOf } from '$core/theory/intervalWord';
  import { signedText } from '$core/analysis/key';
  import { keyName } from '$core/theory/key';
  import Path from '$ui/path/Path.svelte';
  import { capital, differenceText, measuresText, measureText, plural, reasonsText } from '$ui/text';
  import { lineText } from '$core/analysis/byHand';
  import FormEditor from './FormEditor.svelte';
  import { measureLink } from './links';
  import Profile from './Profile.svelte';

  interface Props {
    pieceId: string;
    title: string;
    report: PieceReport;
    numbers: readonly string[];
    decided: readonly SectionStart[] | null;
    current: number | undefined;
    onselect: (measure: number) => void;
    onchange: () => Promise<void>;
  }
  let { pieceId, title, report, numbers, decided, current, onselect, onchange }: Props = $props();

  const form = $derived(report.form);
  const hasNotes = $derived(report.difficulty.some((d) => d.score > 0));
  const again = $derived(form.measureCount - form.newMeasures);
  const MOST_DIFFERENCES = 4;
  /** Fewest measures along which a profile says more than the path. */
  const PROFILE_FROM = 12;

  /** Most places listed where hands differ from the staves. */
  const MOST_HANDS = 6;
  const handLines = $derived(
    [
      ...report.hands.map(({ measure, onset, text }) => ({ measure, onset, text })),
      ...report.wide.map(({ measure, onset, hand, span, reach, remedies }) => ({
        measure,
        onset,
        text: `the ${hand} hand has a chord of ${intervalOf(span)}, its reach is ${intervalOf(reach)}: ${remedies.map((w) => w.text).join('; or ')}`,
      })),
    ].sort((a, b) => a.onset - b.onset),
  );
  const doubts = $derived([
    ...(report.keys.signed
      ? [
          {
            measure: 0,
            text: signedText(report.keys.signed, report.keyName),
          },
        ]
      : []),
    ...report.keys.passages.map((p) => ({
      measure: p.from,
      text: `${capital(measuresText(numbers, p.from, p.to))} in ${keyName(p.key)}.`,
    })),
    ...report.disagreements.map((d) => ({
      measure: d.measure,
      text: `${capital(measureText(numbers[d.measure]!))}: the symbol says ${d.symbol}, but ${d.sounds.join(' ')} sound${d.heard ? `, which is ${d.heard}` : ''}.`,
    })),
  ]);
</script>

{#if doubts.length > 0}
  <ul class="mt-2">
    {#each doubts as { measure, text } (text)}
      <li>
        <a class="text-alarm underline decoration-1 underline-offset-4" href={measureLink(measure)}>{text}</a>
      </li>
    {/each}
  </ul>
{/if}

<section class="mt-6" aria-labelledby="form">
  <h2 id="form">
    {plural(form.newMeasures, 'measure')} to learn, {form.measureCount} in all
  </h2>
  <p class="text-quiet">
    {again > 0
      ? `${plural(again, 'measure repeats', 'measures repeat')} exactly.`
      : 'No measure repeats exactly.'}
    {hasNotes ? 'Higher means harder.' : 'Chords only: see each version’s difficulty.'}
  </p>
  <div class="mt-2">
    <Path
      {form}
      {numbers}
      difficulty={report.difficulty.map((d) => d.score)}
      {...current === undefined ? {} : { current }}
      {onselect}
      label="Form of {title}"
    />
  </div>
  {#each form.sections as section (section.from)}
    {#if section.variant}
      {@const { differences, transposed, of, hands } = section.variant}
      {@const original = form.sections[of]!}
      <p class="mt-2">
        <strong>{section.label}</strong>
        (<a class="link" href={measureLink(section.from)}>{measuresText(numbers, section.from, section.to)}</a
        >) is like {original.label}{original.label === section.label
          ? ` (${measuresText(numbers, original.from, original.to)})`
          : ''}{transposed === 0 ? '' : `, moved by ${distanceText(transposed)}`}{differences.length > 0
          ? `: ${hands.map((line) => lineText(line, numbers)).join('; ')}. Note by note:`
          : '.'}
        {#each differences.slice(0, MOST_DIFFERENCES) as d, i (d.measure)}{i > 0 ? '; ' : ''}<a
            class="link"
            href={measureLink(d.measure)}>{measureText(numbers[d.measure]!)}</a
          >: {differenceText(d.now.join(' '), d.before.join(' '))}{/each}{differences.length >
        MOST_DIFFERENCES
          ? ` and ${plural(differences.length - MOST_DIFFERENCES, 'measure')} more`
          : ''}
      </p>
    {/if}
  {/each}
  <FormEditor {pieceId} {form} {numbers} {decided} {onchange} />
</section>

{#if hasNotes}
  <section class="mt-6" aria-labelledby="hard">
    <h2 id="hard">Where it is hard</h2>
    {#if report.hardest.length > 0}
      <ul>
        {#each report.hardest as spot (spot.measure)}
          <li>
            <a class="link" href={measureLink(spot.measure)}>{capital(measureText(numbers[spot.measure]!))}</a
            >{#each spot.again as measure, i (measure)}{i === 0
                ? ', again in '
                : i === spot.again.length - 1
                  ? ' and '
                  : ', '}<a class="link" href={measureLink(measure)}>{numbers[measure]}</a>{/each}:
            {reasonsText(spot.reasons)}
          </li>
        {/each}
      </ul>
    {:else}
      <p class="text-quiet">No measure stands out.</p>
    {/if}
    {#if report.difficulty.length >= PROFILE_FROM}
      <Profile
        difficulty={report.difficulty}
        {numbers}
        label="Difficulty of {title} along its measures, by hand"
      />
    {/if}
  </section>
{/if}

{#if report.muddy.length > 0}
  <section class="mt-6" aria-labelledby="low">
    <h2 id="low">Close and low</h2>
    <ul>
      {#each report.muddy.slice(0, MOST_HANDS) as { measure, onset, hand, text } (`${onset} ${hand}`)}
        <li>
          <a class="link" href={measureLink(measure)}>{capital(measureText(numbers[measure]!))}</a>, {hand} hand:
          {text}.
        </li>
      {/each}
    </ul>
    {#if report.muddy.length > MOST_HANDS}
      <p class="text-quiet">and {plural(report.muddy.length - MOST_HANDS, 'place')} more</p>
    {/if}
  </section>
{/if}

{#if handLines.length > 0}
  <section class="mt-6" aria-labelledby="hands">
    <h2 id="hands">For hands of an octave</h2>
    <ul>
      {#each handLines.slice(0, MOST_HANDS) as { measure, text }, i (i)}
        <li>
          <a class="link" href={measureLink(measure)}>{capital(measureText(numbers[measure]!))}</a>: {text}
        </li>
      {/each}
    </ul>
    {#if handLines.length > MOST_HANDS}
      <p class="text-quiet">and {plural(handLines.length - MOST_HANDS, 'place')} more</p>
    {/if}
  </section>
{/if}
