<script lang="ts">
  /** Gives a copy back: it is looked at first, and what is there is kept. */
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
  let done = $state<string>();
  let busy = $state(false);

  async function send(query: string): Promise<Answer | undefined> {
    busy = true;
    problem = '';
    try {
      const response = await fetch(`/settings/studio/restore${query}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/vnd.sqlite3' },
        body: file!,
      });
      const answer = answerSchema.parse(await response.json());
      if (response.ok) return answer;
      problem = answer.message ?? 'The copy could not be given back.';
    } catch {
      problem = 'The server cannot be reached; nothing was changed.';
    } finally {
      busy = false;
    }
    return undefined;
  }

  async function look(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    file = event.currentTarget.files?.[0];
    [found, done] = [undefined, undefined];
    if (file) found = (await send('?look'))?.facts;
  }

  async function giveBack(): Promise<void> {
    const answer = await send('');
    if (answer) [done, found] = [answer.kept ?? '', undefined];
  }
</script>

<div class="mt-4">
  <label class="grid">
    Give a copy back
    <input type="file" accept=".db" onchange={look} disabled={busy} class="text-quiet" />
  </label>
  {#if busy}<progress class="mt-2 h-2 w-60 accent-accent" aria-label="The copy is looked at"></progress>{/if}
  {#if problem}<p class="mt-2 text-alarm" role="alert">{problem}</p>{/if}
  {#if found}
    <p class="mt-2" role="status">
      In this copy: {plural(found.learners, 'learner')}, {plural(found.pieces, 'piece')}, {plural(
        found.versions,
        'version',
      )}. It takes the place of everything that is here now, which is kept beside it.
    </p>
    <p class="mt-2"><button type="button" class="action" onclick={giveBack}>Put it in place</button></p>
  {/if}
  {#if done !== undefined}
    <p class="mt-2" role="status">
      The copy is in place.{#if done}
        What was here before is kept in <span class="font-mono text-sm break-all">{done}</span>.{/if}
      <a class="link" href="/" data-sveltekit-reload>Go on</a>
    </p>
  {/if}
</div>
