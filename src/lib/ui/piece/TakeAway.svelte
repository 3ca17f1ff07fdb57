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
    /** Pages that stand in the same menu, above the files. */
    places?: readonly { href: string; name: string }[];
    /** What the page does itself, above them. */
    acts?: readonly { name: string; act: () => void }[];
  }
  let { at, formats, label, made = [], places = [], acts = [] }: Props = $props();
</script>

<DropdownMenu.Root>
  <DropdownMenu.Trigger class="opens">
    {label}
    <ChevronDown size={15} aria-hidden="true" />
  </DropdownMenu.Trigger>
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      preventScroll={false}
      preventOverflowTextSelection={false}
      class="z-20 min-w-56 rounded-md border border-hairline bg-paper py-1 shadow-md"
      sideOffset={6}
      align="start"
    >
      {#each acts as { name, act } (name)}
        <DropdownMenu.Item onSelect={act} class="cursor-pointer px-4 py-1.5 data-highlighted:bg-accent-soft"
          >{name}</DropdownMenu.Item
        >
      {/each}
      {#each places as { href, name } (href)}
        <DropdownMenu.Item>
          {#snippet child({ props })}
            <a {...props} {href} class="block px-4 py-1.5 data-highlighted:bg-accent-soft">{name}</a>
          {/snippet}
        </DropdownMenu.Item>
      {/each}
      {#if places.length > 0}<DropdownMenu.Separator class="my-1 border-t border-hairline" />
        <DropdownMenu.Group
          ><DropdownMenu.GroupHeading class="px-4 pt-1 text-sm text-quiet"
            >Download as</DropdownMenu.GroupHeading
          ></DropdownMenu.Group
        >{/if}
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
