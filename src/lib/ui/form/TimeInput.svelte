<script lang="ts">
  /** A time of day in a form, with the studio's twelve or twenty-four hours; sent as "16:30", or empty. */
  import { localeNow } from '$ui/text';
  import { parseTime, type Time } from '@internationalized/date';
  import { TimeField } from 'bits-ui';

  interface Props {
    name: string;
    label: string;
    value: string;
  }
  let { name, label, value }: Props = $props();

  let chosen = $derived<Time | undefined>(value ? parseTime(value) : undefined);
  const locale = localeNow();
  const sent = $derived(chosen ? chosen.toString().slice(0, 5) : '');
</script>

<TimeField.Root
  bind:value={chosen}
  locale={locale.language}
  hourCycle={locale.hours === 12 ? 12 : 24}
  granularity="minute"
>
  <TimeField.Label class="sr-only">{label}</TimeField.Label>
  <TimeField.Input class="field flex items-center text-base text-ink" aria-label={label}>
    {#snippet children({ segments })}
      {#each segments as { part, value: text }, i (i)}
        {#if part === 'literal'}<span class="text-quiet">{text}</span>
        {:else}
          <TimeField.Segment {part} class="rounded-sm px-0.5 focus:bg-accent-soft focus:outline-none"
            >{text}</TimeField.Segment
          >
        {/if}
      {/each}
    {/snippet}
  </TimeField.Input>
</TimeField.Root>
<input type="hidden" {name} value={sent} />
