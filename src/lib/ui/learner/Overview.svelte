<script lang="ts">
  /** Every learner in a row: who moves, who is stuck and at what, what is due and promised. Sorted, filtered, taken away. */
  import { stepInSentence } from '$core/lessons/steps';
  import { levelText } from '$core/arrange/levels';
  import { keepFile } from '$ui/sound/keepFile';
  import { GOAL_TEXTS, shortDate, shortWeekday, timeText } from '$ui/text';
  import {
    columnFilteringFeature,
    createFilteredRowModel,
    createSortedRowModel,
    createTable,
    filterFn_includesString,
    globalFilteringFeature,
    rowSortingFeature,
    tableFeatures,
  } from '@tanstack/svelte-table';
  import { csvOf } from './csv';

  interface Piece {
    readonly id: string;
    readonly title: string;
    readonly bothHands?: number;
    readonly newMeasures?: number;
  }
  interface Row {
    readonly id: string;
    readonly name: string;
    readonly level: number;
    readonly weekday: number | null;
    readonly time: string | null;
    readonly pieces: readonly Piece[];
    readonly known: number;
    readonly due: number;
    readonly lastDate: string | null;
    readonly gained: number;
    readonly stuck: {
      readonly title: string;
      readonly where: string;
      readonly says: string;
    } | null;
    readonly needsPiece: boolean;
    readonly promised: {
      readonly title: string;
      readonly date: string;
      readonly estimate: { readonly goal: 'met' | 'perhaps' | 'missed' | null } | null;
    } | null;
  }
  let { learners, today }: { learners: readonly Row[]; today: string } = $props();

  type State = 'stuck' | 'needs a piece' | 'moves' | 'new';
  const stateOf = (row: Row): State =>
    row.stuck ? 'stuck' : row.needsPiece ? 'needs a piece' : row.gained > 0 ? 'moves' : 'new';
  const stuckText = ({ stuck }: Row): string =>
    stuck ? `${stuck.title}, ${stuck.where}, ${stepInSentence(stuck.says)}` : '';

  const features = tableFeatures({
    rowSortingFeature,
    sortedRowModel: createSortedRowModel(),
    columnFilteringFeature,
    globalFilteringFeature,
    filteredRowModel: createFilteredRowModel(),
    filterFns: { includesString: filterFn_includesString },
  });
  const columns = [
    { id: 'name', header: 'Student', accessorFn: (r: Row) => r.name },
    {
      id: 'day',
      header: 'Lesson',
      accessorFn: (r: Row) => (r.weekday ?? 9) * 10_000 + Number((r.time ?? '').replace(':', '')),
    },
    { id: 'level', header: 'Level', accessorFn: (r: Row) => r.level },
    { id: 'piece', header: 'Current piece', accessorFn: (r: Row) => r.pieces[0]?.title ?? '' },
    {
      id: 'share',
      header: 'Hands together',
      accessorFn: (r: Row) => (r.pieces[0]?.bothHands ?? 0) / Math.max(1, r.pieces[0]?.newMeasures ?? 1),
    },
    { id: 'state', header: 'State', accessorFn: (r: Row) => `${stateOf(r)} ${stuckText(r)}` },
    { id: 'due', header: 'Due', accessorFn: (r: Row) => r.due },
    { id: 'last', header: 'Last lesson', accessorFn: (r: Row) => r.lastDate ?? '' },
    { id: 'promised', header: 'Goal date', accessorFn: (r: Row) => r.promised?.date ?? '9999' },
  ];
  let only = $state<State | 'all'>('all');
  const wanted = $derived(learners.filter((r) => only === 'all' || stateOf(r) === only));
  const table = createTable({
    features,
    columns,
    get data() {
      return wanted as Row[];
    },
    globalFilterFn: 'includesString',
    enableSortingRemoval: false,
  });
  const rows = $derived(table.getRowModel().rows.map((r) => r.original));
  const dayText = (row: Row): string =>
    row.weekday ? `${shortWeekday(row.weekday)} ${row.time ? timeText(row.time) : ''}` : '';
  const promisedText = ({ promised }: Row): string =>
    promised
      ? `${promised.title}, ${shortDate(promised.date)}${promised.estimate?.goal ? `: ${GOAL_TEXTS[promised.estimate.goal]}` : ''}`
      : '';

  function takeAway(): void {
    const text = csvOf([
      [
        'student',
        'lesson',
        'level',
        'current piece',
        'measures hands together',
        'measures to learn',
        'state',
        'at',
        'due',
        'last lesson',
        'goal piece',
        'goal date',
      ],
      ...rows.map((r) => [
        r.name,
        dayText(r),
        r.level,
        r.pieces[0]?.title ?? '',
        r.pieces[0]?.bothHands ?? null,
        r.pieces[0]?.newMeasures ?? null,
        stateOf(r),
        stuckText(r),
        r.due,
        r.lastDate && shortDate(r.lastDate),
        r.promised?.title ?? '',
        r.promised ? shortDate(r.promised.date) : null,
      ]),
    ]);
    keepFile(new TextEncoder().encode(text), `students ${today}.csv`, 'text/csv');
  }
  const ARROWS = { asc: '↑', desc: '↓' } as const;
</script>

<div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
  <label class="flex items-center gap-2"
    >Find <input
      type="search"
      class="field w-44"
      oninput={(e) => table.setGlobalFilter(e.currentTarget.value)}
    /></label
  >
  <label class="flex items-center gap-2"
    >Show
    <select class="field" bind:value={only}>
      <option value="all">Everyone</option>
      <option value="stuck">Stuck</option>
      <option value="needs a piece">Needs a piece</option>
      <option value="moves">Progressing</option>
      <option value="new">No change</option>
    </select></label
  >
  <button class="link ml-auto" onclick={takeAway}>Download table (CSV)</button>
</div>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="mt-3 overflow-x-auto" role="region" aria-label="Students table" tabindex="0">
  <table class="w-full min-w-[56rem] border-collapse text-left">
    <thead>
      {#each table.getHeaderGroups() as group (group.id)}
        <tr>
          {#each group.headers as header (header.id)}
            {@const sorted = header.column.getIsSorted()}
            <th
              class="border-b border-ink py-1 pr-4 font-normal"
              aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
            >
              <button
                class="min-h-7 whitespace-nowrap text-quiet hover:text-ink"
                onclick={header.column.getToggleSortingHandler()}
                >{header.column.columnDef.header as string}{sorted ? ` ${ARROWS[sorted]}` : ''}</button
              >
            </th>
          {/each}
        </tr>
      {/each}
    </thead>
    <tbody>
      {#each rows as row (row.id)}
        <tr class="border-b border-hairline align-top">
          <td class="py-1.5 pr-4"
            ><a class="font-semibold hover:text-accent" href="/learners/{row.id}">{row.name}</a></td
          >
          <td class="py-1.5 pr-4 font-mono text-sm leading-6 whitespace-nowrap">{dayText(row)}</td>
          <td class="py-1.5 pr-4">{levelText(row.level)}</td>
          <td class="py-1.5 pr-4">
            {#if row.pieces[0]}<a class="hover:text-accent" href="/assignments/{row.pieces[0].id}"
                >{row.pieces[0].title}</a
              >{:else}<span class="text-quiet">none</span>{/if}
          </td>
          <td class="py-1.5 pr-4 whitespace-nowrap"
            >{row.pieces[0]?.newMeasures
              ? `${row.pieces[0].bothHands} of ${row.pieces[0].newMeasures}`
              : ''}</td
          >
          <td class="py-1.5 pr-4"
            >{stateOf(row)}{#if row.stuck}<span class="block text-sm text-quiet">{stuckText(row)}</span
              >{/if}</td
          >
          <td class="py-1.5 pr-4">{row.due || ''}</td>
          <td class="py-1.5 pr-4 whitespace-nowrap">{row.lastDate ? shortDate(row.lastDate) : ''}</td>
          <td class="py-1.5 text-sm leading-6">{promisedText(row)}</td>
        </tr>
      {:else}
        <tr><td class="py-3 text-quiet" colspan="9">No students match.</td></tr>
      {/each}
    </tbody>
  </table>
</div>
