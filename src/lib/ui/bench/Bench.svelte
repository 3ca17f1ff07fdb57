<script lang="ts">
  /** The workplace: path on top, the engraved page, the measure in hand at the side, the hand's shape at the foot. */
  import { KEYBOARDS } from '$core/hands/register';
  import { measureAt } from '$core/score/query';
  import type { KindId } from '$core/decisions/registry';
  import type { Version } from '$core/version/realise';
  import { untrack } from 'svelte';
  import Keys from '$ui/keys/Keys.svelte';
  import Path from '$ui/path/Path.svelte';
  import Picture from '$ui/score/Picture.svelte';
  import { measuresText } from '$ui/text';
  import { wordsFor } from '$ui/waiting/steps';
  import Account from './Account.svelte';
  import BesideNote from './BesideNote.svelte';
  import { announced } from '$core/version/announce';
  import { perform } from './commands';
  import DecideDialog from './DecideDialog.svelte';
  import PatternDialog from './PatternDialog.svelte';
  import { meaningOf } from './keys';
  import { FINGERTIP, MOUSE, nearestNote, noteOf, type Pointed } from '$ui/score/pointed';
  import MeasurePanel from './MeasurePanel.svelte';
  import NoteBar from './NoteBar.svelte';
  import { shapeAt } from '$ui/keys/shape';
  import OtherHands from './OtherHands.svelte';
  import Transport from './Transport.svelte';
  import type { Opening } from './opening';
  import { getBench } from './state/bench.svelte';

  interface Props {
    title: string;
    id: string;
    /** What came with the page: shown until the version is made here. */
    opening: Opening;
    /** A small screen: the path is a line alone, and what was left out is folded. */
    isSmall: boolean;
  }
  let { title, id: versionId, opening, isSmall }: Props = $props();

  const bench = getBench();
  const { selection, sound, view } = bench;
  const version = $derived(view.version);
  const form = $derived(version?.form ?? opening.form);
  const numbersOf = ({ score }: Version): string[] => score.measures.map((m) => m.number);
  const numbers = $derived(version ? numbersOf(version) : opening.numbers);
  const NONE: ReadonlySet<number> = new Set();
  /** What the path shows. */
  const path = $derived.by(() => {
    const { onPath } = view;
    return onPath
      ? {
          form: onPath.form,
          numbers: numbersOf(onPath),
          difficulty: onPath.difficulty.map((d) => d.score),
          marked: new Set(onPath.difficulty.flatMap((d) => (d.isMarked ? [d.measure] : []))),
          // A decision is shown there with the version that is made with it.
          decided: untrack(() => decidedIn(onPath)),
        }
      : { ...opening, decided: NONE, marked: NONE };
  });
  /** Measures with something decided in them. */
  function decidedIn({ score, fingers }: Version): ReadonlySet<number> {
    const { measures, parts } = score;
    const byId = new Map(measures.map((m) => [m.id, m.index]));
    const decided = new Set(bench.document.decisions.flatMap(({ at }) => ('note' in at ? [at.note] : [])));
    return new Set([
      ...bench.document.decisions.flatMap(({ at }) => ('measure' in at ? (byId.get(at.measure) ?? []) : [])),
      ...parts[0]!.notes.flatMap(({ id, onset }) =>
        decided.has(id) || fingers[id]?.decided ? measureAt(measures, onset).index : [],
      ),
    ]);
  }

  const shape = $derived(
    version && (sound.isPlaying || selection.note)
      ? shapeAt(
          version,
          selection.note?.onset ?? 0,
          sound.isPlaying ? { ids: sound.sounding, fingers: sound.fingers } : undefined,
        )
      : undefined,
  );
  const keyboard = $derived(KEYBOARDS[bench.document.recipe.keyboard]);
  const announcement = $derived(
    version && selection.note
      ? announced(
          version,
          selection.note,
          view.answer?.note === selection.id ? view.answer?.why?.text : undefined,
        )
      : '',
  );
  const chosen = $derived(new Set(selection.notes.length > 1 ? selection.notes.map((n) => n.id) : []));

  /** What is under the pointer, or near it: a note, or else a measure. */
  function under(target: EventTarget | null, at?: Pointed): { note?: string; measure?: number } {
    if (!(target instanceof Element)) return {};
    const id = noteOf(target) ?? (at && nearestNote(target, at));
    const area = target.closest<SVGElement>('.measure-area');
    return id ? { note: id } : area ? { measure: Number(area.dataset.measure) } : {};
  }
  function reach(to: { note?: string; measure?: number }, extends_: boolean): void {
    if (to.note)
      perform(bench, extends_ ? { do: 'extend to', note: to.note } : { do: 'select note', note: to.note });
    else if (to.measure !== undefined)
      perform(
        bench,
        extends_
          ? { do: 'extend to measure', measure: to.measure }
          : { do: 'select measure', measure: to.measure },
      );
  }
  function onclick(event: MouseEvent): void {
    if (wasDragged) wasDragged = false;
    else {
      const to = under(event.target, {
        x: event.clientX,
        y: event.clientY,
        within: isTouch ? FINGERTIP : MOUSE,
      });
      isBeside = isTouch && to.note !== undefined;
      reach(to, event.shiftKey || (bench.choosesOn && selection.note !== undefined));
    }
    bench.choosesOn = false;
  }
  // A stretch is chosen by drawing over it with the mouse; a finger that draws moves the page.
  let drag: { note?: string; measure?: number } | undefined;
  let wasDragged = false;
  let isTouch = false;
  /** A note was tapped: its fingers stand beside it. */
  let isBeside = $state(false);
  function onpointerdown(event: PointerEvent): void {
    wasDragged = false;
    isTouch = event.pointerType !== 'mouse';
    if (event.pointerType === 'mouse' && event.button === 0 && !event.shiftKey) drag = under(event.target);
  }
  function onpointermove(event: PointerEvent): void {
    if (!drag || event.buttons === 0) return;
    const to = under(document.elementFromPoint(event.clientX, event.clientY));
    if ((to.note ?? to.measure) === undefined || (to.note === drag.note && to.measure === drag.measure))
      return;
    if (!wasDragged) reach(drag, false);
    wasDragged = true;
    reach(to, true);
  }

  let choosing = $state(false);
  let isPatternOpen = $state(false);
  let choosingKind = $state<KindId>();
  let music = $state<HTMLElement>();
  function choose(kind?: KindId): void {
    if (!bench.situation) return;
    choosingKind = kind;
    choosing = true;
  }

  function onkeydown(event: KeyboardEvent): void {
    const target = event.target as Element | null;
    if (target?.closest('input, textarea, select, [role="listbox"], [role="dialog"], [role="menu"]')) return;
    // Controls that are themselves walked with the arrows keep them.
    if (
      event.key.startsWith('Arrow') &&
      target?.closest('[role="radiogroup"], [role="group"], [role="combobox"], [role="slider"]')
    )
      return;
    // The space bar and Enter press what has the focus.
    if ((event.key === ' ' || event.key === 'Enter') && target?.closest('button, a, summary, [role="radio"]'))
      return;
    if (event.key === 'Escape') isBeside = false;
    const intent = meaningOf(event);
    if (!intent) return;
    event.preventDefault();
    if (intent.do === 'write') document.getElementById(`write-${intent.kind}`)?.focus();
    else if (intent.do === 'choose') choose(intent.kind);
    else perform(bench, intent);
  }

  /** On a narrow screen the panel is a sheet that opens from below. */
  let isOpen = $state(false);

  /** The path gives way to the music once that is scrolled. */
  let isSlim = $state(false);
  function onscroll(event: Event & { currentTarget: HTMLElement }): void {
    const { scrollTop } = event.currentTarget;
    // Far enough apart that what the path gives up does not undo itself.
    if (scrollTop > 120) isSlim = true;
    else if (scrollTop < 20) isSlim = false;
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
  const adviceOf = (from: number, to: number) =>
    (version?.advice ?? []).filter((a) => a.from >= from && a.from <= to);
</script>

<svelte:window {onkeydown} onpointerup={() => (drag = undefined)} />

{#if view.problem}
  <p class="p-8 text-alarm" role="alert">This version could not be made: {view.problem}</p>
{:else}
  <div class="flex border-b border-hairline px-5 pt-1.5 max-desk:px-2 max-desk:pt-0.5">
    {#if !isSlim}
      <p class="w-28 shrink-0 pt-0.5 text-sm leading-tight max-desk:sr-only">
        <strong>{path.form.newMeasures} of {path.form.measureCount}</strong><br />
        <span class="text-quiet" role="status">{view.doing ? `${wordsFor(view.doing)}…` : 'to learn'}</span>
      </p>
    {/if}
    <Path
      form={path.form}
      numbers={path.numbers}
      difficulty={path.difficulty}
      decided={path.decided}
      marked={path.marked}
      current={sound.measure ?? selection.measure}
      onselect={(measure) => perform(bench, { do: 'select measure', measure })}
      label="Measures of {title}"
      slim={isSlim || isSmall}
      firstWidth={1120}
    />
  </div>

  <div
    class="flex min-h-0 flex-1 flex-col desk:grid desk:grid-cols-[minmax(0,1fr)_272px] xl:grid-cols-[minmax(0,1fr)_296px]"
  >
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
    <div
      class="music relative overflow-y-auto bg-paper px-5 py-1 max-desk:min-h-0 max-desk:flex-1 max-desk:px-2"
      role="application"
      aria-label="Music of {title}: arrow keys move, 1–5 set the finger, Enter shows what you can change"
      aria-busy={!version}
      tabindex="0"
      data-keys-home
      bind:this={music}
      {onclick}
      {onpointerdown}
      {onpointermove}
      {onscroll}
    >
      {#if isBeside}<BesideNote {music} />{/if}
      <OtherHands />
      <Account {version} {opening} {versionId} isFolded={isSmall} />
      {#each form.phrases as phrase, i (phrase.from)}
        {@const section = form.sections[phrase.section]!}
        <!-- Of its own: a picture of another phrase changes nothing here. -->
        {@const svg = view.pictures[i]}
        <div
          bind:this={phraseElements[i]}
          class="relative -mt-1 max-w-[1040px] scroll-my-2 {section.from === phrase.from ? 'pt-2.5' : ''}"
        >
          {#if section.from === phrase.from}
            <h2 class="absolute top-0 left-0 max-w-[7.5rem] truncate text-sm" title={section.label}>
              {section.label}
            </h2>
          {/if}
          <Picture
            {svg}
            selected={selection.id}
            {chosen}
            current={selection.byMeasure ? selection.range : selection.measure}
            sounding={heard === i ? sound.sounding : undefined}
            label="Measures {numbers[phrase.from]} to {numbers[phrase.to]}"
          />
          {#each adviceOf(phrase.from, phrase.to) as { from, to, text } (from + text)}
            <p class="pb-1 text-sm text-quiet">
              <span class="first-letter:uppercase">{measuresText(numbers, from, to)}</span>: {text}
            </p>
          {/each}
        </div>
      {/each}
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="border-hairline max-desk:border-t desk:overflow-y-auto desk:border-l desk:px-4 desk:py-3"
      role="region"
      aria-label="Selected measure"
      tabindex="0"
    >
      {#if version}
        <NoteBar {version} bind:isOpen {isBeside} />
        <div
          class={isOpen
            ? 'max-desk:max-h-[48dvh] max-desk:overflow-y-auto max-desk:px-4 max-desk:pb-3'
            : 'max-desk:hidden'}
        >
          <MeasurePanel {version} onchoose={choose} onpattern={() => (isPatternOpen = true)} />
        </div>
      {:else}<p class="text-quiet max-desk:px-4 max-desk:py-2" role="status">
          Loading the selected measure…
        </p>{/if}
    </div>
  </div>

  <footer
    class="flex shrink-0 items-center gap-5 border-t border-hairline px-5 py-1 max-desk:px-3 desk:min-h-[112px]"
  >
    <Transport />
    <p class="sr-only" aria-live="polite">{sound.isPlaying ? '' : announcement}</p>
    <div class="flex h-full min-w-0 flex-1 items-center max-desk:hidden">
      <Keys
        low={keyboard.low}
        high={keyboard.high}
        marks={shape?.down ?? []}
        next={shape?.next ?? []}
        label="The hand's shape: {announcement}"
      />
    </div>
    <p class="hidden w-24 shrink-0 text-sm leading-snug text-quiet xl:block">{shape?.text ?? ''}</p>
  </footer>
  {#if version}
    <DecideDialog
      bind:open={choosing}
      only={choosingKind}
      onclose={() => music?.focus()}
      onpattern={() => (isPatternOpen = true)}
    />
    <PatternDialog bind:open={isPatternOpen} onclose={() => music?.focus()} />
  {/if}
{/if}
