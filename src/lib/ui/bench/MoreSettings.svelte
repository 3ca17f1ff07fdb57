<script lang="ts">
  /** How the whole version is counted, pedalled and repeated: what is seldom changed. */
  import { Popover } from 'bits-ui';
  import MarkControls from './MarkControls.svelte';
</script>

<Popover.Root>
  <Popover.Trigger class="opens whitespace-nowrap" aria-label="Counting, pedal and more">
    and more
  </Popover.Trigger>
  <Popover.Portal>
    <Popover.Content
      preventOverflowTextSelection={false}
      class="z-20 w-80 rounded-md border border-hairline bg-paper p-4 shadow-md"
      sideOffset={6}
      role="dialog"
      aria-label="Counting, pedal and more"
    >
      <MarkControls />
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
