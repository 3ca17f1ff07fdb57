<script lang="ts">
  /** The plan as it is changed: chunks and their steps are moved (dragged, or by keys), dropped, added, split, joined and renamed. */
  import { labelOf, METHOD_LABELS } from '$ui/labels';
  import { METHODS, type Plan, type PlannedStep } from '$core/lessons/plan';
  import type { PlanEdit } from '$core/lessons/planEdits';
  import type { ChunkState } from '$core/lessons/progress';
  import { kept } from '$ui/form/kept';
  import { placesText } from '$ui/text';
  import { placesBetween } from '$core/lessons/chunkId';
  import { invalidateAll } from '$app/navigation';
  import type { SubmitFunction } from '@sveltejs/kit';
  import { dragHandle, dragHandleZone, type DndEvent } from 'svelte-dnd-action';
  import { tick } from 'svelte';
  import { toast } from 'svelte-sonner';
  import StepsEditor from './StepsEditor.svelte';

  interface Props {
    plans: readonly ChunkState[];
    plan: Plan;
    ids: readonly string[];
    numbers: readonly string[];
    /** The first and the last beat of each measure. */
    beats: readonly (readonly [number, number])[];
    isProposed: boolean;
    templates: readonly { id: string; name: string; method: Plan['method']; steps: readonly PlannedStep[] }[];
  }
  let { plans, plan, ids, numbers, beats, isProposed, templates }: Props = $props();

  interface Item {
    id: string;
    index: number;
  }
  /** Named by where they begin: a chunk that is split, joined or moved is still the same one, and stays open. */
  const own = $derived(
    plan.chunks.map((c, index): Item => {
      const before = plan.chunks.slice(0, index).filter((other) => other.from === c.from).length;
      return { id: `${c.from} ${before}`, index };
    }),
  );
  let dragged = $state.raw<Item[]>();
  const items = $derived(dragged ?? own);
  const FLIP = 120;

  let edit = $state('');
  let form = $state<HTMLFormElement>();
  /** Sends an edit. */
  async function send(change: PlanEdit): Promise<void> {
    edit = JSON.stringify(change);
    await tick();
    form?.requestSubmit();
  }
  /** Changes of this window go one after the other: each is made on what the one before it has left. */
  let saved: Promise<void> = Promise.resolve();
  const PATIENCE = 4000;
  const keep: SubmitFunction = async ({ formData }) => {
    // What is changed now cannot be taken back before the server has it.
    toast.dismiss('plan');
    const before = saved;
    let done: () => void = () => undefined;
    saved = new Promise((resolve) => (done = resolve));
    // What the server has not answered by then is tried again by its own form.
    await Promise.race([before, new Promise((resolve) => setTimeout(resolve, PATIENCE))]);
    formData.set('was', JSON.stringify(plan));
    return async ({ result, update }) => {
      await update({ reset: false });
      // Where another window was first, its plan is shown.
      if (result.type === 'failure') await invalidateAll();
      dragged = undefined;
      done();
    };
  };
  function consider(event: CustomEvent<DndEvent<Item>>): void {
    dragged = event.detail.items;
  }
  function finalize(event: CustomEvent<DndEvent<Item>>): void {
    dragged = event.detail.items;
    const to = dragged.findIndex((item) => item.id === event.detail.info.id);
    const moved = dragged[to];
    if (moved && moved.index !== to) void send({ do: 'move', chunk: idOf(plan.chunks[moved.index]!), to });
  }

  const placesOf = (c: Plan['chunks'][number]) => placesBetween(ids, c.from, c.to);
  const whereOf = (c: Plan['chunks'][number]): string => {
    const places = placesOf(c);
    return places ? placesText(numbers, places) : 'measures that aren’t there any more';
  };
  const stateOf = (c: Plan['chunks'][number]) => plans.find((p) => p.chunk.id === `${c.from}..${c.to}`);
  /** Measures in which a chunk can be split. */
  const inside = (c: Plan['chunks'][number]): readonly string[] => {
    const places = placesOf(c);
    return places ? ids.slice(places.from, places.to + 1) : [];
  };
  /** Where each chunk is split, and the ends of the one that is added, as they are chosen. */
  const cut = $state<Record<string, string>>({});
  const ends = $state({ from: '', to: '' });
  /** Beats at which a measure can be cut: with script those that it has, else as many as any has. */
  const beatsOf = (measure: string | undefined): number[] => {
    const [first, last] = beats[ids.indexOf(measure ?? '')] ?? [1, Math.max(...beats.map((b) => b[1]))];
    return Array.from({ length: last - first + 1 }, (_, i) => first + i);
  };
  const idOf = (c: Plan['chunks'][number]): string => `${c.from}..${c.to}`;
  const numberOf = (id: string): string => {
    const number = numbers[ids.indexOf(id)];
    return number === '0' ? 'pickup' : (number ?? '');
  };
  const JSONof = (change: object): string => JSON.stringify(change);
</script>

{#snippet beat(name: string, says: string, own: readonly number[], usual: string)}
  <label class="grid text-sm text-quiet"
    >beat
    <select {name} class="field text-base text-ink" aria-label={says}>
      <option value="">{usual}</option>
      {#each own as value (value)}<option {value}>{value}</option>{/each}
    </select></label
  >
{/snippet}

<form method="post" action="?/plan" use:kept={{ submit: keep }} bind:this={form} class="hidden">
  <input type="hidden" name="edit" value={edit} />
</form>

<div class="mt-3 grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1fr)_18rem]">
  <ul
    aria-label="Chunks"
    class="grid content-start gap-2"
    use:dragHandleZone={{ items, flipDurationMs: FLIP, dropTargetStyle: {}, zoneTabIndex: -1 }}
    onconsider={consider}
    onfinalize={finalize}
  >
    {#each items as { id, index } (id)}
      {@const chunk = plan.chunks[index]!}
      {@const state = stateOf(chunk)}
      {@const name = chunk.name ?? state?.chunk.section ?? ''}
      <li class="border-t border-hairline bg-ground py-2" aria-label="{name}, {whereOf(chunk)}">
        <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
          <span
            use:dragHandle
            class="flex h-8 w-6 cursor-grab items-center justify-center text-quiet"
            aria-label="Move {name}, {whereOf(chunk)}: drag, or press Space and use the arrows"
            ><span aria-hidden="true">⠿</span></span
          >
          <strong class="font-semibold">{name}</strong> <span class="text-quiet">{whereOf(chunk)}</span>
          <span class="ml-auto flex items-center gap-3 text-sm">
            <button
              class="link disabled:opacity-40"
              disabled={index === 0}
              onclick={() => send({ do: 'move', chunk: idOf(chunk), to: index - 1 })}
              aria-label="Move up: {name}, {whereOf(chunk)}">Move up</button
            >
            <button
              class="link disabled:opacity-40"
              disabled={index === plan.chunks.length - 1}
              onclick={() => send({ do: 'move', chunk: idOf(chunk), to: index + 1 })}
              aria-label="Move down: {name}, {whereOf(chunk)}">Move down</button
            >
            <button
              class="link"
              onclick={() => send({ do: 'drop', chunk: idOf(chunk) })}
              aria-label="Remove {name}, {whereOf(chunk)}">Remove</button
            >
          </span>
        </div>
        <details class="mt-1 pl-9">
          <summary class="cursor-pointer text-sm text-quiet hover:text-ink">Name, measures and steps</summary>
          <div class="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
            <form method="post" action="?/plan" use:kept={{ submit: keep }} class="flex items-end gap-2">
              <input type="hidden" name="edit" value={JSONof({ do: 'name', chunk: idOf(chunk) })} />
              <label class="grid text-sm text-quiet"
                >Name <input
                  name="name"
                  class="field w-40 text-base text-ink"
                  value={chunk.name ?? ''}
                  placeholder={state?.chunk.section}
                /></label
              >
              <button class="link mb-1">Rename</button>
            </form>
            {#if inside(chunk).length > 0}
              {@const own = inside(chunk)}
              {@const at = cut[idOf(chunk)] ?? own[1] ?? own[0]}
              <form method="post" action="?/plan" use:kept={{ submit: keep }} class="flex items-end gap-2">
                <input type="hidden" name="edit" value={JSONof({ do: 'split', chunk: idOf(chunk) })} />
                <label class="grid text-sm text-quiet"
                  >Split before measure
                  <select
                    name="before"
                    class="field text-base text-ink"
                    value={at}
                    onchange={(e) => (cut[idOf(chunk)] = e.currentTarget.value)}
                  >
                    {#each own as measure (measure)}<option value={measure}>{numberOf(measure)}</option
                      >{/each}
                  </select></label
                >
                {@render beat('beat', 'Split before beat', beatsOf(at), 'first')}
                <button class="link mb-1">Split</button>
              </form>
            {/if}
            <button class="link mb-1" onclick={() => send({ do: 'join', chunk: idOf(chunk) })}
              >Merge with the next chunk</button
            >
          </div>
          <StepsEditor
            steps={chunk.steps}
            name="{name}, {whereOf(chunk)}"
            onchange={(steps) => send({ do: 'steps', chunk: idOf(chunk), steps: [...steps] })}
          />
        </details>
      </li>
    {/each}
  </ul>

  <aside class="grid content-start gap-5">
    <section aria-labelledby="school">
      <h3 id="school" class="font-bold">Practice order</h3>
      <ul class="mt-1 grid gap-2">
        {#each METHODS as method (method.id)}
          <li>
            <button
              class="text-left {plan.method === method.id ? 'font-semibold' : 'link'}"
              aria-pressed={plan.method === method.id}
              onclick={() => send({ do: 'method', method: method.id })}
              >{labelOf(METHOD_LABELS, method.id)}</button
            >
            <p class="text-sm text-quiet">{method.says}</p>
          </li>
        {/each}
      </ul>
      {#if !isProposed}<p class="mt-2 text-sm text-quiet">
          A new order rebuilds the plan. Progress is kept.
        </p>{/if}
    </section>
    <form method="post" action="?/plan" use:kept={{ submit: keep }} class="grid gap-1">
      <h3 class="font-bold">Add a chunk</h3>
      <input type="hidden" name="edit" value={JSONof({ do: 'add', at: plan.chunks.length })} />
      {#each [['from', 'From measure', 'Begins on beat', 'first'], ['to', 'to measure', 'Ends with beat', 'last']] as const as [field, says, beatSays, usual] (field)}
        <div class="flex items-end gap-2">
          <label class="grid w-32 text-sm text-quiet"
            >{says}
            <select name={field} class="field text-base text-ink" bind:value={ends[field]}>
              {#each ids as id (id)}<option value={id}>{numberOf(id)}</option>{/each}
            </select></label
          >
          {@render beat(`${field}Beat`, beatSays, beatsOf(ends[field] || ids[0]), usual)}
        </div>
      {/each}
      <div>
        <button class="link mb-1">Add</button>
      </div>
    </form>
    <section aria-labelledby="templates">
      <h3 id="templates" class="font-bold">Templates</h3>
      <ul>
        {#each templates as template (template.id)}
          <li class="flex items-baseline gap-3">
            <button
              class="link"
              onclick={() => send({ do: 'template', method: template.method, steps: [...template.steps] })}
              >{template.name}</button
            >
            <form method="post" action="?/forget" use:kept={{ submit: keep }}>
              <input type="hidden" name="template" value={template.id} />
              <button class="text-sm text-quiet hover:text-ink" aria-label="Delete template {template.name}"
                >Delete</button
              >
            </form>
          </li>
        {:else}
          <li class="text-sm text-quiet">None yet. You can save this plan’s steps for other pieces.</li>
        {/each}
      </ul>
      <form method="post" action="?/keep" use:kept={{ submit: keep }} class="mt-2 flex items-end gap-2">
        <label class="grid text-sm text-quiet"
          >Save these steps as <input name="name" class="field w-40 text-base text-ink" /></label
        >
        <button class="link mb-1">Save</button>
      </form>
    </section>
  </aside>
</div>
