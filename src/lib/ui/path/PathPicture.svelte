<script lang="ts">
  /** The measures of a piece to be learned as a line of dots: higher where harder, filled by how far the learner is. For lists. */
  import type { PathPicture } from '$core/lessons/picture';

  let { picture, label }: { picture: PathPicture; label: string } = $props();

  const WIDTH = 250;
  const HEIGHT = 34;
  const GAP = 1.2;
  /** Colours by the first letter of a state, with the width of the dot's line. */
  const STATES = [
    ['o', 'var(--color-line)', 3],
    ['r', 'var(--color-plum)', 6],
    ['l', 'var(--color-moss)', 6],
    ['b', 'var(--color-ink)', 6.5],
    ['g', 'var(--color-ink)', 8.5],
  ] as const;

  const shape = $derived.by(() => {
    const dots: Record<string, string> = {};
    let line = '';
    const { heights, states } = picture;
    const count = [...heights].reduce((sum, c) => sum + (c === '|' ? GAP : 1), 0) || 1;
    const unit = (WIDTH - 10) / Math.max(12, count);
    let x = 5 + unit / 2;
    let joins = false;
    for (let i = 0; i < heights.length; i++) {
      if (heights[i] === '|') {
        x += GAP * unit;
        joins = false;
        continue;
      }
      const y = Math.round(HEIGHT - 6 - Math.min(1, parseInt(heights[i]!, 36) / 18) * (HEIGHT - 12));
      const at = `${Math.round(x)} ${y}`;
      line += `${joins ? 'L' : 'M'}${at}`;
      dots[states[i]!] = `${dots[states[i]!] ?? ''}M${at}h0`;
      joins = true;
      x += unit;
    }
    return { line, dots };
  });
</script>

<svg viewBox="0 0 {WIDTH} {HEIGHT}" class="w-full max-w-[250px]" role="img" aria-label={label}
  ><path
    d={shape.line}
    fill="none"
    stroke="var(--color-line)"
  />{#each STATES as [state, colour, width] (state)}{#if shape.dots[state]}<path
        d={shape.dots[state]}
        stroke={colour}
        stroke-width={width}
        stroke-linecap="round"
      />{/if}{/each}</svg
>
