<script lang="ts">
  /** How the whole version is counted, pedalled and repeated: what is seldom changed. */
  import Opening from '$ui/form/Opening.svelte';
  import MarkControls from './MarkControls.svelte';
</script>

<Opening label="More settings" says="More settings: counting, pedal">
  {#snippet word()}More settings{/snippet}

  <MarkControls />
</Opening>
