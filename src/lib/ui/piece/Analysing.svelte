<script lang="ts">
  /** How far the analysis of a long piece is. */
  import { STAGES, type Stage } from '$core/report/report';
  import { plural } from '$ui/text';

  interface Props {
    measures: number;
    stage: Stage;
    trouble: string;
  }
  let { measures, stage, trouble }: Props = $props();
  const WORDS: Readonly<Record<Stage, string>> = {
    keys: 'Looking for keys',
    chords: 'Listening for chords',
    form: 'Finding repeats',
    difficulty: 'Measuring difficulty',
  };
  const done = $derived(STAGES.find(([name]) => name === stage)?.[1] ?? 0);
</script>

<section class="mt-6" aria-live="polite">
  {#if trouble}
    <p class="text-alarm" role="alert">Key Path couldn’t analyze this piece: {trouble}</p>
  {:else}
    <p>{WORDS[stage]} in {plural(measures, 'measure')} …</p>
    <progress class="mt-2 h-2 w-80 accent-accent" max="1" value={Math.max(0.03, done)} aria-label="Analysis"
    ></progress>
  {/if}
</section>
