<script lang="ts">
  /** Gives a copy back: it is looked at first, and what is there is kept. */
  import { reloadWith, restoring } from '$ui/shell/generation';
  import { plural } from '$ui/text';
  import { z } from 'zod';

  const answerSchema = z.object({
    message: z.string().optional(),
    facts: z.object({ learners: z.number(), pieces: z.number(), versions: z.number() }).optional(),
    kept: z.string().nullish(),
  });
  type Answer = z.infer<typeof answerSchema>;

  let file = $state<File>();
  let found = $state<Answer['facts']>();
  let problem = $state('');
  let busy = $state(false);

  async function send(query: string): Promise<Answer | undefined> {
    busy = true;
    problem = '';
    try {
      const response = await fetch(
        `/settings/studio/restore?name=${encodeURIComponent(file!.name)}${query}`,
        {
          method: 'PUT',
          headers: { 'content-type': 'application/vnd.sqlite3' },
          body: file!,
        },
      );
      const answer = answerSchema.parse(await response.json());
      if (response.ok) return answer;
      problem = answer.message ?? 'The backup wasn’t restored. Nothing was changed.';
    } catch {
      problem = 'You’re offline. Nothing was changed; try again when you’re back.';
    } finally {
      busy = false;
    }
    return undefined;
  }

  async function look(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    file = event.currentTarget.files?.[0];
    found = undefined;
    if (file) found = (await send('&look'))?.facts;
  }

  async function giveBack(): Promise<void> {
    restoring(true);
    const answer = await send('');
    if (!answer) return restoring(false);
    const kept = answer.kept ? ` What was here before is saved in ${answer.kept}.` : '';
    reloadWith(`The backup is restored.${kept}`, true);
  }
</script>

<div class="mt-4">
  <label class="grid">
    Restore a backup
    <input type="file" accept=".db" onchange={look} disabled={busy} class="text-quiet" />
  </label>
  {#if busy}<progress class="mt-2 h-2 w-60 accent-accent" aria-label="Checking the backup"></progress>{/if}
  {#if problem}<p class="mt-2 text-alarm" role="alert">{problem}</p>{/if}
  {#if found}
    <p class="mt-2" role="status">
      In this backup: {plural(found.learners, 'student')}, {plural(found.pieces, 'piece')}, {plural(
        found.versions,
        'version',
      )}. It replaces everything here; today’s data is saved first, and your passphrase stays.
    </p>
    <p class="mt-2">
      <button type="button" class="action" onclick={giveBack} disabled={busy}>Restore</button>
    </p>
  {/if}
</div>
