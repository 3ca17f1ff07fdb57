<script lang="ts">
  /** The pedal in a measure: each mark with its reason, what blurs, and another style. */
  import { beatLength, endOf, placeInMeasure } from '$core/score/metre';
  import type { Version } from '$core/version/realise';
  import DecisionPanel from './DecisionPanel.svelte';

  let { version, measure }: { version: Version; measure: number } = $props();

  const at = $derived(version.score.measures[measure]!);
  const inside = (tick: number): boolean => tick >= at.start && tick < endOf(at);
  const marks = $derived(version.pedals.filter((p) => inside(p.onset)));
  const blurs = $derived(version.blurs.filter((b) => inside(b.onset)));
  const beat = (tick: number): string =>
    String(Math.round((1 + placeInMeasure(at, tick) / beatLength(at.time)) * 100) / 100);
</script>

<DecisionPanel kind="pedal">
  {#if marks.length > 0}
    <ul class="text-quiet">
      {#each marks as mark, i (i)}<li>
          <span class="font-mono">{beat(mark.onset)}</span>
          {mark.because}
        </li>{/each}
    </ul>
  {:else}
    <p class="eyebrow">{version.pedals.length === 0 ? 'none in this version' : 'as before'}</p>
  {/if}
  {#each blurs as blur (blur.onset + blur.kind)}
    <p class="text-alarm">{blur.text}.</p>
  {/each}
</DecisionPanel>
