<script lang="ts" generics="Value extends string">
  /** One of several, chosen from a list that opens on demand. */
  import { Select } from 'bits-ui';
  import Check from '@lucide/svelte/icons/check';

  interface Option {
    value: Value;
    label: string;
    note?: string;
  }
  interface Props {
    label: string;
    value: Value;
    options: readonly Option[];
    onchange: (value: Value) => void;
    /** What stands before the choice, where it does not speak for itself. */
    shown?: string;
  }
  let { label, value, options, onchange, shown }: Props = $props();
  const chosen = $derived(options.find((o) => o.value === value));
</script>

<Select.Root type="single" {value} onValueChange={(v) => onchange(v as Value)} items={[...options]}>
  <Select.Trigger class="opens" aria-label="{label}: {chosen?.label ?? ''}">
    {#if shown}<span class="text-quiet">{shown}</span>{/if}
    {chosen?.label ?? label}
  </Select.Trigger>
  <Select.Portal>
    <!-- A change of the body's own style would be asked of every stroke of the music. -->
    <Select.Content
      preventOverflowTextSelection={false}
      class="z-20 max-h-80 min-w-56 overflow-y-auto rounded-md border border-hairline bg-paper py-1 shadow-md"
      sideOffset={6}
    >
      <Select.Viewport>
        {#each options as option (option.value)}
          <Select.Item
            value={option.value}
            label={option.label}
            class="flex cursor-pointer items-center gap-3 px-3 py-1.5 data-highlighted:bg-accent-soft"
          >
            {#snippet children({ selected })}
              <span class="w-4"
                >{#if selected}<Check size={15} aria-hidden="true" />{/if}</span
              >
              <span>{option.label}</span>
              {#if option.note}<span class="ml-auto pl-4 text-sm text-quiet">{option.note}</span>{/if}
            {/snippet}
          </Select.Item>
        {/each}
      </Select.Viewport>
    </Select.Content>
  </Select.Portal>
</Select.Root>
