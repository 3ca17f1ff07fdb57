<script lang="ts">
  /** Opens the help, as "?" does. */
  import { help } from './help.svelte';
</script>

<button
  type="button"
  class="h-8 w-8 rounded-full text-quiet hover:text-ink"
  aria-label="Help"
  title="Help (?)"
  aria-haspopup="dialog"
  onclick={() => (help.open = true)}>?</button
>
