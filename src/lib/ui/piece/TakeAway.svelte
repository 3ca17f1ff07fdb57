<script lang="ts">
  /** The music as a file, in every format that is written. */
  import { DropdownMenu } from 'bits-ui';
  import { waiting } from '$ui/waiting/waiting.svelte';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';

  interface Props {
    /** Address to which the ending of the format is added. */
    at: string;
    formats: readonly { ending: string; name: string }[];
    label: string;
    /** What this page makes itself, beside the formats. */
    made?: readonly { ending: string; name: string; make: () => void }[];
  }
  let { at, formats, label, made = [] }: Props = $props();
</script>

<DropdownMenu.Root>
  <DropdownMenu.Trigger class="opens">
    {label}
    <ChevronDown size={15} aria-hidden="true" />
  </DropdownMenu.Trigger>
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      class="z-20 min-w-56 rounded-md border border-hairline bg-paper py-1 shadow-md"
      sideOffset={6}
      align="start"
    >
      {#each formats as { ending, name } (ending)}
        <DropdownMenu.Item>
          {#snippet child({ props })}
            <a
              {...props}
              href="{at}/{ending.slice(1)}"
              data-sveltekit-reload
              onclick={() => (waiting.file = { path: `${at}/${ending.slice(1)}`, name })}
              class="flex items-baseline px-4 py-1.5 data-highlighted:bg-accent-soft"
            >
              {name}<span class="ml-auto pl-6 font-mono text-sm text-quiet">{ending}</span>
            </a>
          {/snippet}
        </DropdownMenu.Item>
      {/each}
      {#each made as { ending, name, make } (ending)}
        <DropdownMenu.Item
          onSelect={make}
          class="flex cursor-pointer items-baseline px-4 py-1.5 data-highlighted:bg-accent-soft"
        >
          {name}<span class="ml-auto pl-6 font-mono text-sm text-quiet">{ending}</span>
        </DropdownMenu.Item>
      {/each}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
