<script lang="ts">
  /** Puts a thing in the trash, which keeps it for thirty days; what was done can be undone at once. */
  import { enhance } from '$app/forms';
  import { invalidateAll } from '$app/navigation';
  import { toast } from 'svelte-sonner';

  interface Props {
    kind: 'piece' | 'version' | 'learner' | 'lesson';
    id: string;
    /** What it is, as it is read out. */
    label: string;
    text?: string;
  }
  let { kind, id, label, text = 'Delete' }: Props = $props();

  async function restore(thing: { kind: string; id: string }): Promise<void> {
    const response = await fetch('/settings/studio?/takeBack', {
      method: 'POST',
      body: new URLSearchParams(thing),
      headers: { 'x-sveltekit-action': 'true' },
    });
    if (!response.ok) {
      toast.error('It couldn’t be restored. Look in the trash.');
      return;
    }
    await invalidateAll();
    toast.success('Restored.');
  }
</script>

<form
  method="post"
  action="/settings/studio?/discard"
  use:enhance={() => {
    const [thing, name] = [{ kind, id }, label];
    return async ({ result, update }) => {
      // Before the page is left that this stands on.
      if (result.type === 'success' || result.type === 'redirect')
        toast(`Moved to the trash: ${name}.`, {
          duration: 15_000,
          action: { label: 'Undo', onClick: () => void restore(thing) },
        });
      await update();
    };
  }}
  class="inline"
>
  <input type="hidden" name="kind" value={kind} />
  <input type="hidden" name="id" value={id} />
  <button
    class="min-h-6 text-sm text-quiet underline underline-offset-4 hover:text-alarm"
    aria-label="{text}: {label}">{text}</button
  >
</form>
