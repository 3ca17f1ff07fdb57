<script lang="ts">
  /** A word that opens a small sheet of settings below it. */
  import { Popover } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    /** What the sheet is called. */
    label: string;
    /** What the word is called, where that is more than it says. */
    says?: string;
    align?: 'start' | 'end';
    /** The word. */
    word: Snippet;
    children: Snippet;
  }
  let { label, says, align = 'start', word, children }: Props = $props();
</script>

<Popover.Root>
  <Popover.Trigger class="opens whitespace-nowrap" aria-label={says}>{@render word()}</Popover.Trigger>
  <Popover.Portal>
    <!-- A change of the body's own style would be asked of every stroke of the music. -->
    <Popover.Content
      preventOverflowTextSelection={false}
      class="z-20 grid w-80 gap-3 rounded-md border border-hairline bg-paper p-4 shadow-md"
      sideOffset={6}
      {align}
      role="dialog"
      aria-label={label}
    >
      {@render children()}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
