<script lang="ts">
  /** A sheet that is drawn here, by the page's worker. Keeps the old picture while a new one is drawn, so that nothing jumps. */
  import type { Sheet } from '$lib/engrave/sheet';
  import { service } from '$ui/worker/service';
  import Picture from './Picture.svelte';

  interface Props {
    sheet: Sheet;
    current?: number | undefined;
    selected?: string | undefined;
    chosen?: ReadonlySet<string>;
    label: string;
  }
  let { sheet, current, selected, chosen, label }: Props = $props();

  let svg = $state<string>();
  let problem = $state('');

  $effect(() => {
    const wanted = sheet;
    service()
      .draw($state.snapshot(wanted))
      .then(
        (picture) => {
          if (wanted === sheet) [svg, problem] = [picture, ''];
        },
        (error: unknown) => {
          if (wanted === sheet) problem = error instanceof Error ? error.message : String(error);
        },
      );
  });
</script>

{#if problem}
  <p class="text-alarm" role="alert">This phrase couldn’t be drawn: {problem}</p>
{:else}
  <Picture {svg} {current} {selected} {chosen} {label} />
{/if}
