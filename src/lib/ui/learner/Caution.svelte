<script lang="ts">
  /** The caution about hands, where practice is spoken of. */
  import { CAUTION } from '$core/lessons/caution';

  let { class: more = '' }: { class?: string } = $props();
</script>

<p class="text-sm text-quiet {more}">
  {CAUTION}
</p>
