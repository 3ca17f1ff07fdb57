<script lang="ts">
  /** Puts a thing in the trash, which gives it back for thirty days. */
  import { enhance } from '$app/forms';

  interface Props {
    kind: 'piece' | 'version' | 'learner' | 'lesson';
    id: string;
    /** What it is, as it is read out. */
    label: string;
    text?: string;
  }
  let { kind, id, label, text = 'Put in the trash' }: Props = $props();
</script>

<form method="post" action="/settings/studio?/discard" use:enhance class="inline">
  <input type="hidden" name="kind" value={kind} />
  <input type="hidden" name="id" value={id} />
  <button
    class="min-h-6 text-sm text-quiet underline underline-offset-4 hover:text-alarm"
    aria-label="Put in the trash: {label}">{text}</button
  >
</form>
