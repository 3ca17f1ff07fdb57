<script lang="ts">
  /** A link as a square code that phones read, drawn in the browser. */
  let { link, label }: { link: string; label: string } = $props();
  let svg = $state('');

  $effect(() => {
    let isCurrent = true;
    const draw = async (): Promise<void> => {
      const { toString } = await import('qrcode');
      const made = await toString(link, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' });
      if (isCurrent) svg = made;
    };
    void draw();
    return () => (isCurrent = false);
  });
</script>

<div class="h-36 w-36 border border-hairline bg-white" role="img" aria-label={label} data-test="qr">
  <!-- Made here from our own link. -->
  <!-- eslint-disable-next-line svelte/no-at-html-tags -->
  {@html svg}
</div>
