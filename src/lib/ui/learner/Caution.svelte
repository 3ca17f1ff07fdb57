<script lang="ts">
  /** The caution about hands, where practice is spoken of. */
  let { class: more = '' }: { class?: string } = $props();
</script>

<p class="text-sm text-quiet {more}">
  Pause every five to ten minutes and shake out hands, wrists and shoulders. Stop when it hurts; pain that
  stays belongs with a doctor.
</p>
