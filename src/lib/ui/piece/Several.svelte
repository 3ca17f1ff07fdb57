<script lang="ts">
  /** Several files at once: each is read and added, and the list says what it became. */
  import { tooLarge } from '$core/io/limits';
  import { formToken } from '$ui/form/token';
  import { Dialog } from 'bits-ui';
  import { onMount } from 'svelte';
  import { invalidateAll } from '$app/navigation';
  import { keep, look } from './bring';

  interface Props {
    files: readonly File[];
    onclose: () => void;
  }
  let { files, onclose }: Props = $props();

  interface Line {
    readonly name: string;
    readonly is: 'waiting' | 'reading' | 'added' | 'known' | 'failed';
    readonly title?: string;
    readonly href?: string;
    readonly says?: string;
  }
  let lines = $state<Line[]>([]);
  let stopped = false;
  const isDone = $derived(lines.length > 0 && lines.every((l) => l.is !== 'waiting' && l.is !== 'reading'));
  const SAYS = {
    waiting: 'waiting',
    reading: 'reading…',
    added: 'added',
    known: 'you have this already',
    failed: 'not added',
  };

  async function bring(file: File): Promise<Line> {
    const { name } = file;
    const large = tooLarge(name, file.size);
    if (large) return { name, is: 'failed', says: large };
    try {
      const seen = await look(file);
      if (seen.already)
        return { name, is: 'known', title: seen.already.title, href: `/pieces/${seen.already.id}` };
      const { title, composer, choices } = seen;
      const href = await keep(file, { title, composer, rights: 'not known', parts: choices }, formToken());
      return { name, is: 'added', title, href };
    } catch (error) {
      return { name, is: 'failed', says: error instanceof Error ? error.message : String(error) };
    }
  }

  onMount(() => {
    lines = files.map(({ name }) => ({ name, is: 'waiting' }));
    void (async () => {
      for (const [i, file] of files.entries()) {
        if (stopped) return;
        lines[i] = { name: file.name, is: 'reading' };
        lines[i] = await bring(file);
      }
      await invalidateAll();
    })();
    return () => (stopped = true);
  });
</script>

<Dialog.Root open onOpenChange={(open) => !open && onclose()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed inset-x-0 top-12 z-40 mx-auto flex max-h-[calc(100dvh-5rem)] w-[36rem] max-w-[calc(100vw-1.5rem)] flex-col rounded-lg border border-hairline bg-paper p-6"
    >
      <Dialog.Title class="text-lg font-bold">Adding {files.length} files</Dialog.Title>
      <Dialog.Description class="text-quiet"
        >Each becomes a piece as suggested; you can change it on its page.</Dialog.Description
      >
      <ul class="mt-3 min-h-0 overflow-y-auto" aria-live="polite">
        {#each lines as { name, is, title, href, says }, i (i)}
          <li class="border-t border-hairline py-2">
            <span class="flex flex-wrap items-baseline gap-x-3">
              {#if href}<a class="link font-semibold" {href}>{title}</a>{:else}<strong>{name}</strong>{/if}
              <span class="ml-auto {is === 'failed' ? 'text-alarm' : 'text-quiet'}">{SAYS[is]}</span>
            </span>
            {#if says}<span class="block text-sm text-alarm">{says}</span>{/if}
          </li>
        {/each}
      </ul>
      <Dialog.Close class="mt-4 self-start {isDone ? 'action' : 'link'}"
        >{isDone ? 'Done' : 'Stop'}</Dialog.Close
      >
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
