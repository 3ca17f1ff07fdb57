<script lang="ts">
  /** What the server is at for a page that waits: said after a moment, with how far it is and a way to stop it. */
  import { onMount } from 'svelte';
  import { z } from 'zod';
  import { wordsFor } from './steps';

  interface Props {
    /** Path of the page that the work is for. */
    path: string;
    /** What is waited for, as in “Large.musicxml”. */
    about?: string;
    /** What is said before the server is at it. */
    before?: string;
    /** When nothing is at work for the path any more. */
    onend?: () => void;
  }
  let { path, about = '', before = '', onend }: Props = $props();

  /** Milliseconds: what is quicker is not worth a word. */
  const PATIENCE = 700;
  const EVERY = 300;

  const doing = z
    .object({ what: z.string(), share: z.number().min(0).max(1).optional(), seconds: z.number() })
    .nullable();
  let seen = $state.raw<z.infer<typeof doing>>(null);
  const url = $derived(`/working?for=${encodeURIComponent(path)}`);

  onMount(() => {
    let timer: ReturnType<typeof setTimeout>;
    let isGone = false;
    const look = async (): Promise<void> => {
      const answer = await fetch(url).catch(() => undefined);
      const found = answer?.ok ? doing.safeParse(await answer.json()) : undefined;
      if (isGone) return;
      // The server away is said elsewhere: what was seen last stays.
      if (found?.success) {
        seen = found.data;
        if (!seen) onend?.();
      }
      timer = setTimeout(() => void look(), EVERY);
    };
    timer = setTimeout(() => void look(), PATIENCE);
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
  });
</script>

<div role="status" class="flex items-center gap-3 text-quiet">
  {#if seen}
    <span>{wordsFor(seen.what)}{about ? `: ${about}` : ''}</span>
    <progress aria-label={wordsFor(seen.what)} max="1" value={seen.share}></progress>
    <span class="tabular-nums">{Math.round(seen.seconds)} s</span>
    <button type="button" class="link" onclick={() => void fetch(url, { method: 'DELETE' })}>Stop</button>
  {:else if before}
    <span>{before}</span>
  {/if}
</div>
