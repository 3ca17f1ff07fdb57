<script lang="ts">
  /** The steps of a chunk as they are changed: moved, dropped, renamed, added from the table or of one's own. */
  import type { PlannedStep } from '$core/lessons/plan';
  import { moved } from '$core/lessons/planEdits';
  import { stepFacts, STEPS } from '$core/lessons/steps';
  import { formToken } from '$ui/form/token';
  import { dragHandle, dragHandleZone, type DndEvent } from 'svelte-dnd-action';

  interface Props {
    steps: readonly PlannedStep[];
    /** Whose they are. */
    name: string;
    onchange: (steps: readonly PlannedStep[]) => void;
  }
  let { steps, name, onchange }: Props = $props();

  /** Each with its place: what is dragged is known by it. */
  const own = $derived(steps.map((step) => ({ id: step.id, step })));
  let dragged = $state.raw<typeof own>();
  const items = $derived(dragged ?? own);
  const FLIP = 120;
  function finalize(event: CustomEvent<DndEvent<(typeof own)[number]>>): void {
    dragged = undefined;
    const order = event.detail.items.map((item) => item.step);
    if (order.some((step, i) => step.id !== steps[i]?.id)) onchange(order);
  }

  let adding = $state('');
  let called = $state('');
  let hand = $state<'right' | 'left' | 'both' | 'none'>('both');
  const missing = $derived(STEPS.filter((s) => !steps.some((own) => own.id === s.id)));
  const nameOf = (step: PlannedStep): string => step.name ?? stepFacts(step.id)?.says ?? 'A step';

  function add(): void {
    if (adding === 'own') {
      if (called.trim() === '') return;
      onchange([
        ...steps,
        { id: `own-${formToken().slice(0, 12)}`, name: called.trim(), hand: hand === 'none' ? null : hand },
      ]);
      called = '';
    } else if (adding !== '') onchange([...steps, { id: adding, name: null }]);
    adding = '';
  }
  function rename(index: number, text: string): void {
    const facts = stepFacts(steps[index]!.id);
    const own = text.trim() === '' || text.trim() === facts?.says ? null : text.trim();
    if (own === null && !facts) return;
    onchange(steps.map((s, i) => (i === index ? { ...s, name: own } : s)));
  }
</script>

<ol
  class="mt-3 grid gap-1"
  aria-label="Steps of {name}"
  use:dragHandleZone={{
    items,
    flipDurationMs: FLIP,
    dropTargetStyle: {},
    zoneTabIndex: -1,
    type: `steps of ${name}`,
  }}
  onconsider={(event: CustomEvent<DndEvent<(typeof own)[number]>>) => (dragged = event.detail.items)}
  onfinalize={finalize}
>
  {#each items as { id, step }, i (id)}
    <li class="flex items-center gap-2 bg-ground" aria-label={nameOf(step)}>
      <span
        use:dragHandle
        class="flex h-8 w-6 cursor-grab items-center justify-center text-quiet"
        aria-label="Move the step {nameOf(step)}: drag, or press Space and use the arrows"
        ><span aria-hidden="true">⠿</span></span
      >
      <input
        class="field h-8 w-64 max-w-full py-0"
        aria-label="Name of the step {nameOf(step)}"
        value={nameOf(step)}
        onchange={(e) => rename(i, e.currentTarget.value)}
      />
      <button
        class="h-8 w-8 disabled:opacity-35"
        disabled={i === 0}
        aria-label="Move up: {nameOf(step)}"
        onclick={() => onchange(moved(steps, i, i - 1))}>↑</button
      >
      <button
        class="h-8 w-8 disabled:opacity-35"
        disabled={i === steps.length - 1}
        aria-label="Move down: {nameOf(step)}"
        onclick={() => onchange(moved(steps, i, i + 1))}>↓</button
      >
      <button
        class="h-8 w-8"
        aria-label="Remove step {nameOf(step)}"
        onclick={() => onchange(steps.filter((_, n) => n !== i))}>×</button
      >
    </li>
  {/each}
</ol>
<div class="mt-2 flex flex-wrap items-end gap-2">
  <label class="grid text-sm text-quiet"
    >Add a step
    <select class="field text-base text-ink" bind:value={adding}>
      <option value="">Choose</option>
      {#each missing as { id, says } (id)}<option value={id}>{says}</option>{/each}
      <option value="own">your own step…</option>
    </select></label
  >
  {#if adding === 'own'}
    <label class="grid text-sm text-quiet"
      >Step name <input
        class="field text-base text-ink"
        bind:value={called}
        maxlength="60"
        placeholder="Clap the rhythm"
      /></label
    >
    <label class="grid text-sm text-quiet"
      >Hands
      <select class="field text-base text-ink" bind:value={hand}>
        <option value="both">Together</option><option value="right">Right</option><option value="left"
          >Left</option
        ><option value="none">None</option>
      </select></label
    >
  {/if}
  <button class="link mb-1" disabled={adding === ''} onclick={add}>Add</button>
</div>
