<script lang="ts">
  /** The keys of the bench. Opens with "?". */
  import { Dialog } from 'bits-ui';
  import { KEYS, keyText } from './keys';

  let open = $state(false);
  function onkeydown(event: KeyboardEvent): void {
    if (event.key === '?' && !(event.target as Element | null)?.closest('input, textarea')) open = true;
  }
</script>

<svelte:window {onkeydown} />

<Dialog.Root bind:open>
  <Dialog.Trigger class="h-8 w-8 rounded-full text-quiet hover:text-ink" aria-label="Keyboard help"
    >?</Dialog.Trigger
  >
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-ink/25" />
    <Dialog.Content
      class="fixed top-16 left-1/2 z-40 max-h-[calc(100dvh-6rem)] w-[28rem] -translate-x-1/2 overflow-y-auto rounded-lg border border-hairline bg-paper p-6"
    >
      <Dialog.Title class="mb-3 text-lg font-bold">Keys</Dialog.Title>
      <dl class="grid grid-cols-[8rem_1fr] gap-y-1">
        {#each KEYS as { press, does } (press)}
          <dt class="font-mono">{keyText(press)}</dt>
          <dd class="text-quiet">{does}</dd>
        {/each}
      </dl>
      <Dialog.Close class="mt-4 link">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
