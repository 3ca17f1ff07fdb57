<script lang="ts">
  /** A chart, and what it says in words: whoever does not see it reads the same. */
  import type { EChartsCoreOption, EChartsType } from 'echarts/core';

  interface Props {
    title: string;
    /** In a sentence or two. */
    words: string;
    option: EChartsCoreOption;
  }
  let { title, words, option }: Props = $props();

  let element = $state<HTMLElement>();
  let chart: EChartsType | undefined;

  // The chart library is large: it is fetched when a chart comes into sight.
  $effect(() => {
    if (!element) return;
    const place = element;
    let gone = false;
    const sizes = new ResizeObserver(() => chart?.resize());
    const sight = new IntersectionObserver(
      ([entry]) => {
        if (!entry?.isIntersecting) return;
        sight.disconnect();
        void import('./chart').then(({ startChart }) => {
          if (gone) return;
          chart = startChart(place);
          chart.setOption(option);
          sizes.observe(place);
        });
      },
      { rootMargin: '100px' },
    );
    sight.observe(place);
    return () => {
      gone = true;
      sight.disconnect();
      sizes.disconnect();
      chart?.dispose();
      chart = undefined;
    };
  });
  $effect(() => chart?.setOption(option));
</script>

<figure class="min-w-0">
  <figcaption>
    <h3 class="font-bold">{title}</h3>
    <p class="text-sm text-quiet">{words}</p>
  </figcaption>
  <div bind:this={element} class="chart mt-1 h-40 w-full" role="img" aria-label="{title}. {words}"></div>
</figure>
