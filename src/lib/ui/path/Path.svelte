<script lang="ts">
  /**
   * A piece as one folded line: a stone per measure, what comes again drawn once. With `onselect` the stones are
   * buttons; without it the path is a picture that says how far a learner is.
   */
  import { foldedPath, type Form } from '$core/analysis/form';
  import type { MeasureState } from '$core/lessons/plan';
  import { measureText } from '$ui/text';
  import { layPath } from './layout';
  import Stone from './Stone.svelte';

  interface Props {
    form: Form;
    numbers: readonly string[];
    difficulty: readonly number[];
    states?: readonly MeasureState[];
    decided?: ReadonlySet<number>;
    current?: number;
    onselect?: (measure: number) => void;
    label: string;
    small?: boolean;
    /** Used until the page knows the real one. */
    firstWidth?: number;
  }
  let {
    form,
    numbers,
    difficulty,
    states,
    decided,
    current,
    onselect,
    label,
    small = false,
    firstWidth = 860,
  }: Props = $props();

  let measured = $state(0);
  const width = $derived(measured || firstWidth);
  const shape = $derived(
    layPath(foldedPath(form), difficulty, {
      width,
      rise: small ? 22 : 34,
      // Stones that are buttons need their room; a picture fits where it stands, on paper as well.
      narrowest: onselect ? 26 : 0,
    }),
  );
  // The chosen measure stays in sight where the path is longer than its place.
  let strip = $state<HTMLElement>();
  /** How far it is scrolled, as it was told: asking the element would lay out the page in between. */
  let scrolled = 0;
  $effect(() => {
    const stone = shape.stones.find(({ item }) =>
      item.kind === 'measure'
        ? item.measure === current
        : current !== undefined && item.from <= current && current <= item.to,
    );
    if (!strip || !stone || shape.width <= width) return;
    const [from, to] = [scrolled + 40, scrolled + width - 40];
    if (stone.x >= from && stone.x <= to) return;
    const wanted = Math.max(0, Math.min(stone.x - width / 2, shape.width - width));
    if (Math.abs(wanted - scrolled) >= 1) strip.scrollLeft = wanted;
  });
  /** A role that is only proposed is asked, not said. */
  const proposedRole = (index: number): string => {
    const { role, label: name } = form.sections[index]!;
    return role?.from === 'music' && name.length <= 4 ? `, ${role.role}?` : '';
  };
  /** As much of a section's name as has room before the next one's. */
  const fitting = (name: string, room: number): string => {
    const most = Math.max(2, Math.floor(room / 6.8));
    return name.length <= most ? name : `${name.slice(0, most - 1)}…`;
  };
  const line = $derived(shape.stones.map((s) => `${s.x},${s.y}`).join(' '));
  const radius = $derived(Math.min(shape.unit * 0.46, small ? 4.5 : 7));
</script>

<div
  class="w-full min-w-0 overflow-x-auto"
  bind:this={strip}
  bind:clientWidth={measured}
  onscroll={(event) => (scrolled = event.currentTarget.scrollLeft)}
>
  <div class="relative" style:width="{shape.width}px" style:height="{shape.height + (small ? 6 : 34)}px">
    <svg
      class="absolute inset-0"
      width={shape.width}
      height={shape.height + (small ? 6 : 34)}
      role={onselect ? 'presentation' : 'img'}
      aria-label={onselect ? undefined : label}
    >
      <polyline points={line} fill="none" stroke="#8b91a3" stroke-width="1.3" />
      {#each shape.stones as { item, x, y } (`${item.kind}${item.kind === 'measure' ? item.measure : item.from}`)}
        {#if item.kind === 'measure'}
          <Stone
            {x}
            {y}
            r={radius}
            state={states?.[item.measure]}
            filled={decided?.has(item.measure) ?? false}
            current={current === item.measure}
          />
          {#if !small && (shape.unit >= 18 || item.measure % 4 === 0)}
            <text {x} y={shape.height + 4} class="fill-quiet font-mono text-[11px]" text-anchor="middle">
              {numbers[item.measure] === '0' ? '' : numbers[item.measure]}
            </text>
          {/if}
        {:else}
          {@const again = `${numbers[item.as]}–${numbers[item.as + item.to - item.from]} again`}
          {@const half = small ? 9 : again.length * 2.9 + 6}
          <g class="text-quiet">
            <rect
              x={x - half}
              y={y - radius}
              width={2 * half}
              height={2 * radius}
              rx={radius}
              fill="var(--color-ground)"
              stroke="currentColor"
              stroke-dasharray="3 3"
            />
            {#if !small}
              <text {x} {y} dy="4" class="fill-quiet text-[11px]" text-anchor="middle">{again}</text>
            {/if}
          </g>
        {/if}
      {/each}
      {#if !small}
        {#each shape.sections as section, i (section.index)}
          {@const name = `${form.sections[section.index]!.label}${proposedRole(section.index)}`}
          <line
            x1={section.from}
            x2={section.to}
            y1={shape.height + 10}
            y2={shape.height + 10}
            stroke="#c5c2b8"
            stroke-width="1.3"
          />
          <text x={section.from} y={shape.height + 27} class="fill-quiet text-[13px]">
            <title>{name}</title>
            {fitting(name, (shape.sections[i + 1]?.from ?? shape.width) - section.from - 6)}
          </text>
        {/each}
      {/if}
    </svg>
    {#if onselect}
      <ol class="absolute inset-0 m-0 list-none p-0" aria-label={label}>
        {#each shape.stones as { item, x, y } (`${item.kind}${item.kind === 'measure' ? item.measure : item.from}`)}
          {@const measure = item.kind === 'measure' ? item.measure : item.from}
          <li class="contents">
            <button
              type="button"
              class="absolute rounded-full"
              style:left="{x - (item.kind === 'measure' ? 13 : 32)}px"
              style:top="{y - 13}px"
              style:width={item.kind === 'measure' ? '26px' : '64px'}
              style:height="26px"
              aria-current={current !== undefined &&
              current >= measure &&
              (item.kind === 'measure' ? current === measure : current <= item.to)
                ? 'true'
                : undefined}
              aria-label={item.kind === 'measure'
                ? `${measureText(numbers[measure] ?? '')}, difficulty ${difficulty[measure] ?? 0} of 100${decided?.has(measure) ? ', decided' : ''}`
                : `Measures ${numbers[item.from]} to ${numbers[item.to]}, as ${numbers[item.as]} to ${numbers[item.as + item.to - item.from]}`}
              title={measureText(numbers[measure] ?? '')}
              onclick={() => onselect(measure)}
            ></button>
          </li>
        {/each}
      </ol>
    {/if}
  </div>
</div>
