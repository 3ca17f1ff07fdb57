<script lang="ts">
  /** The help over the page that it is asked on: its own shortcuts first. */
  import { page } from '$app/state';
  import { Dialog } from 'bits-ui';
  import Help from './Help.svelte';
  import { help } from './help.svelte';
  import { screensAt } from './screens';
</script>

<Dialog.Root bind:open={help.open}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed top-12 left-1/2 z-40 flex max-h-[calc(100dvh-5rem)] w-[36rem] max-w-[calc(100vw-1.5rem)] -translate-x-1/2 flex-col gap-3 rounded-lg border border-hairline bg-paper p-6 max-desk:p-4"
    >
      <div class="flex items-baseline gap-4">
        <Dialog.Title class="text-lg font-bold">Help</Dialog.Title>
        <a class="link ml-auto text-sm" href="/help" onclick={() => (help.open = false)}>All help</a>
      </div>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls) -->
      <div class="-mx-1 min-h-0 overflow-y-auto px-1" tabindex="0" role="group" aria-label="Help">
        <Help screens={screensAt(page.url.pathname)} level={3} />
      </div>
      <Dialog.Close class="link self-start">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
