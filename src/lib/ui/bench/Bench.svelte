<script lang="ts">
  /** The workplace: path on top, the engraved page, the measure in hand at the side, the hand's shape at the foot. */
  import { KEYBOARDS } from '$core/arrange/register';
  import { pitchName, toMidi } from '$core/score/pitch';
  import { measureAt } from '$core/score/query';
  import type { Share } from '$core/arrange/account';
  import { levelText } from '$core/arrange/levels';
  import { keyName } from '$core/theory/key';
  import type { Version } from '$core/version/realise';
  import { untrack } from 'svelte';
  import Keys from '$ui/keys/Keys.svelte';
  import Path from '$ui/path/Path.svelte';
  import Picture from '$ui/score/Picture.svelte';
  import { measureText, plural } from '$ui/text';
  import { wordsFor } from '$ui/waiting/steps';
  import { perform } from './commands';
  import { meaningOf } from './keys';
  import MeasurePanel from './MeasurePanel.svelte';
  import Transport from './Transport.svelte';
  import type { Opening } from './opening';
  import { getBench } from './state/bench.svelte';

  interface Props {
    title: string;
    id: string;
    /** What came with the page: shown until the version is made here. */
    opening: Opening;
  }
  let { title, id: versionId, opening }: Props = $props();

  const bench = getBench();
  const { selection, sound, view } = bench;
  const version = $derived(view.version);
  const form = $derived(version?.form ?? opening.form);
  const numbersOf = ({ score }: Version): string[] => score.measures.map((m) => m.number);
  const numbers = $derived(version ? numbersOf(version) : opening.numbers);
  /** What the path shows. */
  const path = $derived.by(() => {
    const { onPath } = view;
    return onPath
      ? {
          form: onPath.form,
          numbers: numbersOf(onPath),
          difficulty: onPath.difficulty.map((d) => d.score),
          // A decision is shown there with the version that is made with it.
          decided: untrack(() => decidedIn(onPath)),
        }
      : { ...opening, decided: new Set<number>() };
  });
  /** Measures with something decided in them. */
  function decidedIn({ score, fingers }: Version): ReadonlySet<number> {
    const { measures, parts } = score;
    const byId = new Map(measures.map((m) => [m.id, m.index]));
    return new Set([
      ...bench.document.decisions.flatMap(({ at }) => ('measure' in at ? (byId.get(at.measure) ?? []) : [])),
      ...parts[0]!.notes.flatMap(({ id, onset }) =>
        fingers[id]?.decided ? measureAt(measures, onset).index : [],
      ),
    ]);
  }

  /** The keys that are down at the chosen note: struck there, or held from before. */
  const shape = $derived.by(() => {
    if (version && sound.isPlaying)
      return version.score.parts[0]!.notes.flatMap((n) => {
        const struck = sound.sounding.has(n.id) ? version.fingers[n.id] : undefined;
        const hand = n.staff === 1 ? ('right' as const) : ('left' as const);
        const tried = sound.fingers?.[n.id];
        return struck
          ? [{ midi: toMidi(n.pitch), ...struck, ...(tried ? { finger: tried, decided: false } : {}), hand }]
          : [];
      });
    const at = selection.note?.onset;
    if (!version || at === undefined) return [];
    return version.score.parts[0]!.notes.filter((n) => n.onset <= at && at < n.onset + n.duration).flatMap(
      (n) => {
        const struck = version.fingers[n.id] ?? version.fingers[n.id.replace(/\.\d+$/, '')];
        const hand = n.staff === 1 ? ('right' as const) : ('left' as const);
        return struck
          ? [{ midi: toMidi(n.pitch), finger: struck.finger, hand, decided: struck.decided }]
          : [];
      },
    );
  });
  const keyboard = $derived(KEYBOARDS[bench.document.recipe.keyboard]);
  const octaves = $derived({ low: Math.max(keyboard.low, 36), high: Math.min(keyboard.high, 96) });
  const announcement = $derived.by(() => {
    if (!version || !selection.note) return '';
    const finger = version.fingers[selection.note.id];
    const hand = selection.note.staff === 1 ? 'Right' : 'Left';
    return `${hand} hand, ${pitchName(selection.note.pitch)}, ${measureText(numbers[selection.measure ?? 0] ?? '')}, finger ${finger?.finger}, ${finger?.decided ? 'decided' : 'proposed'}.`;
  });

  /** How true the version is to its source. */
  const keptText = $derived.by(() => {
    if (!version || version.isSingAlong) return '';
    const { beatNotes, basses, contour } = version.account.fidelity;
    const share = ({ kept, of }: Share): string => (kept === of ? `all ${of}` : `${kept} of ${of}`);
    return `Kept: ${share(beatNotes)} notes on the beat, ${share(basses)} basses, ${share(contour)} steps of the line.`;
  });

  function onclick(event: MouseEvent): void {
    if (!(event.target instanceof Element)) return;
    const badge = event.target.closest<SVGElement>('[data-finger-of]');
    const note = event.target.closest<SVGElement>('.note[data-id]');
    const area = event.target.closest<SVGElement>('.measure-area');
    const id = badge?.dataset.fingerOf ?? note?.dataset.id?.replace(/\.\d+$/, '');
    if (id) perform(bench, { do: 'select note', note: id });
    else if (area) perform(bench, { do: 'select measure', measure: Number(area.dataset.measure) });
  }

  function onkeydown(event: KeyboardEvent): void {
    const target = event.target as Element | null;
    if (target?.closest('input, textarea, select, [role="listbox"], [role="dialog"]')) return;
    // Controls that are themselves walked with the arrows keep them.
    if (
      event.key.startsWith('Arrow') &&
      target?.closest('[role="radiogroup"], [role="group"], [role="combobox"]')
    )
      return;
    // The space bar presses a button that has the focus.
    if (event.key === ' ' && target?.closest('button, a, summary, [role="radio"]')) return;
    const intent = meaningOf(event);
    if (!intent) return;
    event.preventDefault();
    if (intent.do === 'write') document.getElementById(`write-${intent.kind}`)?.focus();
    else perform(bench, intent);
  }

  // The chosen phrase stays in sight; a new version of the same phrase moves nothing.
  let phraseElements = $state<Record<number, HTMLElement>>({});
  const inHand = $derived(selection.measure === undefined ? undefined : bench.phrase);
  /** The phrase that sounds. */
  const heard = $derived(
    sound.measure === undefined
      ? undefined
      : form.phrases.findIndex((p) => p.from <= sound.measure! && sound.measure! <= p.to),
  );
  $effect(() => {
    if (heard !== undefined) phraseElements[heard]?.scrollIntoView({ block: 'nearest' });
  });
  $effect(() => {
    if (inHand !== undefined) phraseElements[inHand]?.scrollIntoView({ block: 'nearest' });
  });
</script>

<svelte:window {onkeydown} />

{#if view.problem}
  <p class="p-8 text-alarm" role="alert">This version could not be made: {view.problem}</p>
{:else}
  <div class="flex border-b border-hairline px-7 py-2">
    <p class="w-32 shrink-0 pt-2 leading-tight">
      <strong>{path.form.newMeasures} of {path.form.measureCount}</strong><br />
      <span class="text-sm text-quiet" role="status"
        >{view.doing ? `${wordsFor(view.doing)}…` : 'measures are new'}</span
      >
    </p>
    <Path
      form={path.form}
      numbers={path.numbers}
      difficulty={path.difficulty}
      decided={path.decided}
      current={sound.measure ?? selection.measure}
      onselect={(measure) => perform(bench, { do: 'select measure', measure })}
      label="Measures of {title}"
    />
  </div>

  <div class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_300px]">
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
    <div
      class="overflow-y-auto bg-paper px-6 py-3"
      role="region"
      aria-label="Music of {title}: arrows walk, 1 to 5 set the finger"
      aria-busy={!version}
      tabindex="0"
      {onclick}
    >
      <p class="text-sm text-quiet">
        Level {levelText(version?.contract.level ?? opening.level)}, {(
          version?.contract.name ?? opening.levelName
        ).toLowerCase()}, in {keyName(version?.key ?? opening.key)}.
        <span class="inline-block first-letter:uppercase">{version?.accountText ?? opening.accountText}</span>
        {keptText}
        {#if version && version.blurs.length > 0}
          {plural(version.blurs.length, 'place blurs', 'places blur')} under the pedal.
        {/if}
        {#if version && version.parked.length > 0}
          <a class="link" href="/versions/{versionId}/history"
            >{plural(version.parked.length, 'decision waits', 'decisions wait')}</a
          >
          for {version.parked.length === 1 ? 'its place' : 'their places'} to come back.
        {/if}
        <span class="whitespace-nowrap">
          <a class="link" href="/versions/{versionId}/levels">Compare levels</a>
          <a class="link ml-2" href="/versions/{versionId}/keys">Compare keys</a>
        </span>
      </p>
      {#each form.phrases as phrase, i (phrase.from)}
        {@const section = form.sections[phrase.section]!}
        <!-- Of its own: a picture of another phrase changes nothing here. -->
        {@const svg = view.pictures[i]}
        <div bind:this={phraseElements[i]} class="max-w-[1040px] py-1">
          {#if section.from === phrase.from}
            <h2 class="mt-2">{section.label}</h2>
          {/if}
          <Picture
            {svg}
            selected={selection.id}
            current={selection.measure}
            sounding={heard === i ? sound.sounding : undefined}
            label="Measures {numbers[phrase.from]} to {numbers[phrase.to]}"
          />
        </div>
      {/each}
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="overflow-y-auto border-l border-hairline px-5 py-4"
      role="region"
      aria-label="The measure in hand"
      tabindex="0"
    >
      {#if version}<MeasurePanel {version} />{:else}<p class="text-quiet" role="status">
          The measure in hand stands here in a moment.
        </p>{/if}
    </div>
  </div>

  <footer class="flex h-[118px] shrink-0 items-center gap-6 border-t border-hairline px-7 py-2">
    <Transport />
    <p class="sr-only" aria-live="polite">{sound.isPlaying ? '' : announcement}</p>
    <Keys low={octaves.low} high={octaves.high} marks={shape} label="The hand's shape: {announcement}" />
  </footer>
{/if}
