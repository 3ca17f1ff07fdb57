<script lang="ts">
  /** The keys of the bench. Opens with "?", and is searched by typing. */
  import { Dialog } from 'bits-ui';
  import { keyText } from '$ui/form/press';
  import { KEYS } from './keys';

  let open = $state(false);
  let sought = $state('');
  const found = $derived(
    KEYS.filter(({ press, does }) =>
      `${does} ${keyText(press)}`.toLowerCase().includes(sought.trim().toLowerCase()),
    ),
  );
  function onkeydown(event: KeyboardEvent): void {
    if (event.key === '?' && !(event.target as Element | null)?.closest('input, textarea')) open = true;
  }
</script>

<svelte:window {onkeydown} />

<Dialog.Root bind:open onOpenChange={() => (sought = '')}>
  <Dialog.Trigger class="h-8 w-8 rounded-full text-quiet hover:text-ink" aria-label="Keyboard shortcuts"
    >?</Dialog.Trigger
  >
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed top-16 left-1/2 z-40 flex max-h-[calc(100dvh-6rem)] w-[32rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 flex-col gap-3 rounded-lg border border-hairline bg-paper p-6"
    >
      <Dialog.Title class="text-lg font-bold">Shortcuts</Dialog.Title>
      <input
        class="field"
        type="search"
        aria-label="Search shortcuts"
        placeholder="Search"
        bind:value={sought}
      />
      <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls) -->
      <dl class="grid min-h-0 grid-cols-[8rem_1fr] gap-y-1 overflow-y-auto" tabindex="0">
        {#each found as { press, does } (press)}
          <dt class="font-mono">{keyText(press)}</dt>
          <dd class="text-quiet">{does}</dd>
        {:else}
          <p class="col-span-2 text-quiet">No matching shortcuts.</p>
        {/each}
      </dl>
      <Dialog.Close class="link self-start">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
