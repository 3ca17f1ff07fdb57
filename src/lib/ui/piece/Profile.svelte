<script lang="ts">
  /** Difficulty along the piece, for each hand and for both, against the levels: what the path has no room for. */
  import { capital } from '$core/capital';
  import type { MeasureDifficulty } from '$core/difficulty/difficulty';
  import { LEVEL_FROM } from '$core/difficulty/level';
  import type { EChartsType } from 'echarts/core';
  import { measureLink } from './links';

  interface Props {
    difficulty: readonly MeasureDifficulty[];
    numbers: readonly string[];
    label: string;
  }
  let { difficulty, numbers, label }: Props = $props();

  let element = $state<HTMLElement>();
  /** Measured by the chart itself, which does not know the page's style. */
  const FONT = 'Atkinson Hyperlegible Next Variable, sans-serif';
  const COLOURS = { both: '#1a2238', right: '#7a2362', left: '#3f5a23', line: '#d9d6cd', quiet: '#565d73' };

  const option = $derived.by(() => {
    const scores = difficulty.flatMap((d) => [d.score, d.right?.score ?? 0, d.left?.score ?? 0]);
    const top = Math.min(100, Math.max(30, 10 * Math.ceil((Math.max(0, ...scores) + 4) / 10)));
    const line = (
      name: string,
      colour: string,
      values: (number | null)[],
      width: number,
      type = 'solid',
    ) => ({
      name,
      type: 'line' as const,
      step: 'middle' as const,
      symbol: 'none',
      data: values,
      lineStyle: { color: colour, width, type: type as 'solid' | 'dashed' },
      itemStyle: { color: colour },
    });
    return {
      animation: false,
      aria: { enabled: true, label: { description: label } },
      textStyle: { fontFamily: FONT, color: COLOURS.quiet },
      grid: { left: 34, right: 64, top: 30, bottom: 24 },
      legend: {
        top: 0,
        left: 28,
        itemWidth: 18,
        itemHeight: 8,
        itemGap: 22,
        textStyle: { color: COLOURS.quiet, fontSize: 13, padding: [0, 0, 0, 4] },
      },
      tooltip: {
        trigger: 'axis' as const,
        confine: true,
        // Outside the picture, where the page's own colours hold.
        backgroundColor: 'var(--color-paper)',
        borderColor: 'var(--color-hairline)',
        textStyle: { color: 'var(--color-ink)', fontSize: 13 },
        formatter: (items: unknown) => tip((items as { dataIndex: number }[])[0]?.dataIndex ?? 0),
      },
      xAxis: {
        type: 'category' as const,
        data: [...numbers],
        axisTick: { show: false },
        axisLine: { lineStyle: { color: COLOURS.line } },
        axisLabel: { color: COLOURS.quiet, fontSize: 12 },
      },
      yAxis: {
        type: 'value' as const,
        min: 0,
        max: top,
        splitLine: { show: false },
        axisLabel: { color: COLOURS.quiet, fontSize: 12 },
      },
      series: [
        {
          ...line(
            'both hands',
            COLOURS.both,
            difficulty.map((d) => d.score),
            2.4,
          ),
          markLine: {
            silent: true,
            symbol: 'none',
            lineStyle: { color: COLOURS.line, type: 'solid' as const },
            label: { color: COLOURS.quiet, fontSize: 12, formatter: '{b}' },
            data: LEVEL_FROM.filter((from) => from < top).map((from, i) => ({
              name: `level ${i + 2}`,
              yAxis: from,
            })),
          },
        },
        line(
          'right hand',
          COLOURS.right,
          difficulty.map((d) => d.right?.score ?? null),
          1.4,
        ),
        line(
          'left hand',
          COLOURS.left,
          difficulty.map((d) => d.left?.score ?? null),
          1.4,
          'dashed',
        ),
      ],
    };
  });

  function tip(index: number): string {
    const d = difficulty[index];
    if (!d) return '';
    const escaped = (text: string): string => text.replace(/[&<>]/g, (c) => `&#${c.charCodeAt(0)};`);
    return `<strong>Measure ${escaped(numbers[index] ?? '')}: ${d.score} of 100</strong><br>${d.reasons.map((r) => escaped(capital(r))).join('<br>') || 'nothing stands out'}`;
  }

  // The chart library is large: it is fetched when a profile is shown.
  $effect(() => {
    if (!element) return;
    const place = element;
    let chart: EChartsType | undefined;
    let gone = false;
    const observer = new ResizeObserver(() => chart?.resize());
    void import('$ui/chart/chart').then(({ startChart }) => {
      if (gone) return;
      chart = startChart(place);
      chart.setOption(option);
      chart.getZr().on('click', ({ offsetX, offsetY }) => {
        const [x] = chart!.convertFromPixel('grid', [offsetX, offsetY]) as unknown as [number];
        const measure = Math.round(x);
        if (measure >= 0 && measure < difficulty.length) location.hash = measureLink(measure);
      });
      observer.observe(place);
    });
    return () => {
      gone = true;
      observer.disconnect();
      chart?.dispose();
    };
  });
</script>

<div bind:this={element} class="chart mt-2 h-44 w-full cursor-pointer" role="img" aria-label={label}></div>
