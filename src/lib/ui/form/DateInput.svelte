<script lang="ts">
  /** A day in a form, written and picked as the studio writes days; sent as "2026-11-23", or empty. */
  import { localeNow } from '$ui/text';
  import { parseDate, type DateValue } from '@internationalized/date';
  import CalendarDays from '@lucide/svelte/icons/calendar-days';
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import { DatePicker } from 'bits-ui';

  interface Props {
    name: string;
    label: string;
    value: string;
  }
  let { name, label, value }: Props = $props();

  /** As it was chosen here; the form's own value until then. */
  let chosen = $derived<DateValue | undefined>(value ? parseDate(value) : undefined);
  const locale = localeNow();
  /** Bits counts weekdays from Sunday, 0. */
  const weekStartsOn = (locale.firstDay % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6;
</script>

<DatePicker.Root bind:value={chosen} locale={locale.language} {weekStartsOn} fixedWeeks>
  <DatePicker.Label class="sr-only">{label}</DatePicker.Label>
  <DatePicker.Input {name} class="field flex items-center text-base text-ink" aria-label={label}>
    {#snippet children({ segments })}
      {#each segments as { part, value: text }, i (i)}
        {#if part === 'literal'}<span class="text-quiet">{text}</span>
        {:else}
          <DatePicker.Segment {part} class="rounded-sm px-0.5 focus:bg-accent-soft focus:outline-none"
            >{text}</DatePicker.Segment
          >
        {/if}
      {/each}
      <DatePicker.Trigger
        class="ml-auto flex h-6 w-7 items-center justify-center text-quiet"
        aria-label="Choose a day"><CalendarDays size={16} aria-hidden="true" /></DatePicker.Trigger
      >
    {/snippet}
  </DatePicker.Input>
  <DatePicker.Content
    class="z-40 rounded-md border border-hairline bg-paper p-3 shadow-md"
    sideOffset={6}
    preventOverflowTextSelection={false}
  >
    <DatePicker.Calendar>
      {#snippet children({ months, weekdays })}
        <DatePicker.Header class="flex items-center justify-between">
          <DatePicker.PrevButton class="flex h-9 w-9 items-center justify-center" aria-label="Previous month"
            ><ChevronLeft size={18} aria-hidden="true" /></DatePicker.PrevButton
          >
          <DatePicker.Heading class="font-semibold" />
          <DatePicker.NextButton class="flex h-9 w-9 items-center justify-center" aria-label="Next month"
            ><ChevronRight size={18} aria-hidden="true" /></DatePicker.NextButton
          >
        </DatePicker.Header>
        {#each months as month (month.value.toString())}
          <DatePicker.Grid>
            <DatePicker.GridHead>
              <DatePicker.GridRow class="grid grid-cols-7 text-center text-sm text-quiet">
                {#each weekdays as day, i (i)}<DatePicker.HeadCell>{day.slice(0, 2)}</DatePicker.HeadCell
                  >{/each}
              </DatePicker.GridRow>
            </DatePicker.GridHead>
            <DatePicker.GridBody>
              {#each month.weeks as week, i (i)}
                <DatePicker.GridRow class="grid grid-cols-7">
                  {#each week as date (date.toString())}
                    <DatePicker.Cell {date} month={month.value}>
                      <DatePicker.Day
                        class="flex h-9 w-9 items-center justify-center rounded-full data-outside-month:opacity-40 data-selected:bg-accent data-selected:text-on-accent data-today:font-bold hover:bg-accent-soft"
                      />
                    </DatePicker.Cell>
                  {/each}
                </DatePicker.GridRow>
              {/each}
            </DatePicker.GridBody>
          </DatePicker.Grid>
        {/each}
      {/snippet}
    </DatePicker.Calendar>
  </DatePicker.Content>
</DatePicker.Root>
