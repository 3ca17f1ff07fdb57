<script lang="ts">
  /** How the whole version is counted, pedalled and repeated: what is seldom changed. */
  import Opening from '$ui/form/Opening.svelte';
  import MarkControls from './MarkControls.svelte';
</script>

<Opening label="Counting, pedal and more" says="Counting, pedal and more">
  {#snippet word()}and more{/snippet}

  <MarkControls />
</Opening>
