<script lang="ts">
  /** A dialog of the bench: it opens near the top, scrolls within itself, and gives the keyboard back when it has closed. */
  import { Dialog } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    open: boolean;
    title: string;
    description: string;
    /** Wide enough for music. */
    isWide?: boolean;
    /** Where the keyboard goes back to. */
    onclose: () => void;
    children: Snippet;
  }
  let { open = $bindable(), title, description, isWide = false, onclose, children }: Props = $props();
</script>

<Dialog.Root
  bind:open
  onOpenChangeComplete={(isOpen) => {
    if (!isOpen) onclose();
  }}
>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed left-1/2 z-40 flex max-w-[calc(100vw-1.5rem)] -translate-x-1/2 flex-col gap-3 rounded-lg border border-hairline bg-paper p-5
        {isWide
        ? 'top-8 max-h-[calc(100dvh-4rem)] w-[52rem] overflow-y-auto'
        : 'top-16 max-h-[calc(100dvh-6rem)] w-[34rem]'}"
    >
      <Dialog.Title class="text-lg font-bold">{title}</Dialog.Title>
      <Dialog.Description class="text-quiet">{description}</Dialog.Description>
      {@render children()}
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
