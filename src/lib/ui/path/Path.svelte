<script lang="ts">
  /**
   * A piece as one folded line: a stone per measure, what comes again drawn once. With `onselect` it is walked: the stones are
   * buttons where they have room to be, else the line is one control, moved along by the arrows or chosen on by a click. Without it
   * the path is a picture that says how far a learner is.
   */
  import { foldedPath, timesOf, type Form } from '$core/analysis/form';
  import type { MeasureState } from '$core/lessons/progress';
  import { measureText } from '$ui/text';
  import { layPath, measureNear } from '$lib/engrave/pathLayout';
  import Stone from './Stone.svelte';

  interface Props {
    form: Form;
    numbers: readonly string[];
    difficulty: readonly number[];
    states?: readonly MeasureState[];
    decided?: ReadonlySet<number>;
    /** Measures that the teacher has marked as hard. */
    marked?: ReadonlySet<number>;
    current?: number;
    onselect?: (measure: number) => void;
    label: string;
    small?: boolean;
    /** No names and numbers: the line alone. */
    slim?: boolean;
    /** Used until the page knows the real one. */
    firstWidth?: number;
  }
  let {
    form,
    numbers,
    difficulty,
    states,
    decided,
    marked,
    current,
    onselect,
    label,
    small = false,
    slim = false,
    firstWidth = 860,
  }: Props = $props();

  /** Smallest side of what is to be hit. */
  const TARGET = 24;
  /** Room for names and numbers below the stones. */
  const BELOW = 30;

  let measured = $state(0);
  const width = $derived(measured || firstWidth);
  const isBare = $derived(small || slim);
  const shape = $derived(layPath(foldedPath(form), difficulty, { width, rise: isBare ? 14 : 18 }));
  const areButtons = $derived(onselect !== undefined && shape.unit >= TARGET);
  const height = $derived(shape.height + (isBare ? 4 : BELOW));
  /** A role that is only proposed is asked, not said. */
  const proposedRole = (index: number): string => {
    const { role, label: name } = form.sections[index]!;
    return role?.from === 'music' && name.length <= 4 ? `, ${role.role}?` : '';
  };
  /** As much of a section's name as has room before the next one's; nothing where that would be no name. */
  const fitting = (name: string, room: number): string => {
    const most = Math.floor(room / 6.8);
    if (name.length <= most) return name;
    return most >= 3
      ? `${name.slice(0, most - 1)}…`
      : most >= 1 && name.length <= 2
        ? name.slice(0, most)
        : '';
  };
  const line = $derived(shape.stones.map((s) => `${s.x},${s.y}`).join(' '));
  const radius = $derived(Math.max(1.4, Math.min(shape.unit * 0.42, small ? 4.5 : 6.5)));
  /** Every so many measures a number stands. */
  const numbered = $derived(shape.unit >= 18 ? 1 : shape.unit >= 7 ? 4 : 16);
  const isCurrent = (from: number, to: number): boolean =>
    current !== undefined && from <= current && current <= to;
  const count = $derived(numbers.length);
  const step: Readonly<Record<string, number>> = {
    ArrowLeft: -1,
    ArrowDown: -1,
    ArrowRight: 1,
    ArrowUp: 1,
    PageUp: -8,
    PageDown: 8,
  };
  function onkeydown(event: KeyboardEvent): void {
    const wanted =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? count - 1
          : step[event.key] && (current ?? 0) + step[event.key]!;
    if (wanted === undefined || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    event.stopPropagation();
    onselect?.(Math.max(0, Math.min(count - 1, wanted)));
  }
  /** Along the stones: one of them is reached by Tab, the others by arrows, which also choose. */
  function walk(event: KeyboardEvent & { currentTarget: HTMLElement }): void {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by === undefined || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    event.stopPropagation();
    const stones = [...event.currentTarget.closest('ol')!.querySelectorAll('button')];
    const next = stones[stones.indexOf(event.currentTarget as HTMLButtonElement) + by];
    next?.click();
    next?.focus();
  }
  function onclick(event: MouseEvent & { currentTarget: HTMLElement }): void {
    const measure = measureNear(shape, event.clientX - event.currentTarget.getBoundingClientRect().left);
    if (measure !== undefined) onselect?.(measure);
  }
  const saysOf = (measure: number): string =>
    `${measureText(numbers[measure] ?? '')}, difficulty ${difficulty[measure] ?? 0} of 100${marked?.has(measure) ? ', marked as a hard spot' : ''}${decided?.has(measure) ? ', your choice' : ''}`;
</script>

<div class="w-full min-w-0 overflow-hidden" bind:clientWidth={measured}>
  <div class="relative" style:width="{shape.width}px" style:height="{height}px">
    <svg
      class="absolute inset-0"
      width={shape.width}
      {height}
      role={onselect ? 'presentation' : 'img'}
      aria-label={onselect ? undefined : label}
    >
      <polyline points={line} fill="none" stroke="var(--color-line)" stroke-width="1.3" />
      {#each shape.stones as { item, x, y, room } (`${item.kind}${item.kind === 'measure' ? item.measure : item.from}`)}
        {#if item.kind === 'measure'}
          <Stone
            {x}
            {y}
            r={radius}
            state={states?.[item.measure]}
            filled={decided?.has(item.measure) ?? false}
            marked={marked?.has(item.measure) ?? false}
            current={current === item.measure}
          />
          {#if !isBare && item.measure % numbered === 0}
            <text {x} y={shape.height + 6} class="fill-quiet font-mono text-[11px]" text-anchor="middle">
              {numbers[item.measure] === '0' ? '' : numbers[item.measure]}
            </text>
          {/if}
        {:else}
          {@const times = timesOf(item)}
          {@const again = `${numbers[item.as]}–${numbers[item.as + item.length - 1]} ${times > 1 ? `×${times}` : 'repeat'}`}
          {@const wanted = again.length * 5.8 + 12}
          {@const isNamed = !isBare && wanted <= room}
          {@const half = Math.max(2, Math.min(isNamed ? wanted / 2 : 9, room / 2 - 1))}
          {@const high = isNamed ? 7.5 : radius}
          <g class="text-quiet">
            <title>{again}</title>
            <rect
              x={x - half}
              y={y - high}
              width={2 * half}
              height={2 * high}
              rx={high}
              fill="var(--color-ground)"
              stroke={isCurrent(item.from, item.to) ? 'var(--color-accent)' : 'currentColor'}
              stroke-width={isCurrent(item.from, item.to) ? 2.2 : 1}
              stroke-dasharray={isCurrent(item.from, item.to) ? undefined : '3 3'}
            />
            {#if isNamed}
              <text {x} {y} dy="4" class="fill-quiet text-[11px]" text-anchor="middle">{again}</text>
            {/if}
          </g>
        {/if}
      {/each}
      {#if !isBare}
        {#each shape.sections as section, i (section.index)}
          {@const name = `${form.sections[section.index]!.label}${proposedRole(section.index)}`}
          <line
            x1={section.from}
            x2={section.to}
            y1={shape.height + 10}
            y2={shape.height + 10}
            stroke="var(--color-line)"
            stroke-width="1.1"
          />
          <text x={section.from} y={shape.height + 24} class="fill-quiet text-[13px]">
            <title>{name}</title>
            {fitting(name, (shape.sections[i + 1]?.from ?? shape.width) - section.from - 6)}
          </text>
        {/each}
      {/if}
    </svg>
    {#if onselect && areButtons}
      <ol class="path-stones absolute inset-0 m-0 list-none p-0" aria-label={label}>
        {#each shape.stones as { item, x, y, room } (`${item.kind}${item.kind === 'measure' ? item.measure : item.from}`)}
          {@const measure = item.kind === 'measure' ? item.measure : item.from}
          {@const wide = item.kind === 'measure' ? TARGET : Math.min(room, 64)}
          <li class="contents">
            <button
              type="button"
              class="absolute rounded-full"
              style:left="{x - wide / 2}px"
              style:top="{Math.max(0, y - TARGET / 2)}px"
              style:width="{wide}px"
              style:height="{TARGET}px"
              tabindex={isCurrent(measure, item.kind === 'measure' ? measure : item.to) ||
              (current === undefined && measure === 0)
                ? 0
                : -1}
              onkeydown={walk}
              aria-current={isCurrent(measure, item.kind === 'measure' ? measure : item.to)
                ? 'true'
                : undefined}
              aria-label={item.kind === 'measure'
                ? saysOf(measure)
                : `Measures ${numbers[item.from]} to ${numbers[item.to]}, as ${numbers[item.as]} to ${numbers[item.as + item.to - item.from]}`}
              title={measureText(numbers[measure] ?? '')}
              onclick={() => onselect(measure)}
            ></button>
          </li>
        {/each}
      </ol>
    {:else if onselect}
      <div
        class="absolute inset-0 cursor-pointer"
        role="slider"
        tabindex="0"
        aria-label={label}
        aria-valuemin={0}
        aria-valuemax={count - 1}
        aria-valuenow={current ?? 0}
        aria-valuetext={saysOf(current ?? 0)}
        {onclick}
        {onkeydown}
      ></div>
    {/if}
  </div>
</div>
