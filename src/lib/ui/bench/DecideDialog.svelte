<script lang="ts">
  /** Everything that can be decided at Selection, in a list that is searched by typing; words are written in place. */
  import { SCOPES, type Scope } from '$core/decisions/anchor';
  import { kindOf, type AnyKind, type KindId } from '$core/decisions/registry';
  import { Command, Dialog } from 'bits-ui';
  import { untrack } from 'svelte';
  import BenchDialog from './BenchDialog.svelte';
  import { perform } from './commands';
  import { choicesOf, decidedNow, offersOf, scopeOfKind, settingsOffered, type Offer } from './offers';
  import { scopesHere } from './places';
  import { scopeText } from './scopeText';
  import { seek, underHeadings } from './seek';
  import { getBench } from './state/bench.svelte';

  interface Props {
    open: boolean;
    /** Only what this kind offers. */
    only?: KindId | undefined;
    /** Where the keyboard goes back to. */
    onclose: () => void;
    /** Opens the form for a pattern of one's own. */
    onpattern: () => void;
  }
  let { open = $bindable(), only, onclose, onpattern }: Props = $props();

  const bench = getBench();
  let scope = $state<Scope>();
  let writing = $state<KindId>();
  let text = $state('');
  let complaint = $state('');
  let sought = $state('');
  const situation = $derived(bench.situation);
  const offers = $derived([...offersOf(bench, scope, only), ...(only ? [] : settingsOffered(bench))]);
  const found = $derived(seek(offers, sought));
  const MOST_FOUND = 60;
  /** Under their headings while nothing is sought; then one after another, the best first. */
  const groups = $derived(
    sought.trim() === '' ? underHeadings(found) : [{ heading: '', items: found.slice(0, MOST_FOUND) }],
  );
  const idOf = ({ group, name }: Offer): string => `${group}: ${name}`;
  // Enter takes the best of what is found, at once.
  let marked = $derived(groups[0]?.items[0] ? idOf(groups[0].items[0]) : '');

  function take(offer: Offer): void {
    const next = offer.take();
    if (next === 'write') return write(kindOf(offer.kind!) as unknown as AnyKind);
    open = false;
    if (next === 'pattern') onpattern();
  }
  function write(kind: AnyKind): void {
    const value = decidedNow(bench, kind, scope);
    writing = kind.id;
    complaint = '';
    text = value !== undefined && situation ? kind.written!.show(value, situation) : '';
  }
  function keep(): void {
    if (!writing || !situation) return;
    const kind = kindOf(writing) as unknown as AnyKind;
    const value = text.trim() === '' ? undefined : kind.written!.read(text, situation);
    if (value === undefined && text.trim() !== '') {
      complaint = `Not understood. Write it like this: ${kind.written!.hint}`;
      return;
    }
    perform(bench, { do: 'decide here', kind: kind.id, scope: scopeOfKind(bench, kind, scope), value });
    open = false;
  }
  // Only where it is opened: a version that arrives meanwhile must not take away what is being typed.
  $effect(() => {
    if (open) untrack(begin);
  });
  function begin(): void {
    scope = undefined;
    writing = undefined;
    sought = '';
    if (!only) return;
    // A kind that is only written is written at once.
    const kind = kindOf(only) as unknown as AnyKind;
    if (kind.written && choicesOf(bench, kind).length === 0) write(kind);
  }
  const offered = $derived.by(() => {
    const kinds = new Set(offers.flatMap(({ kind }) => (kind ? [kind] : [])));
    const all = new Set([...kinds].flatMap((kind) => scopesHere(kind, bench)));
    return SCOPES.filter((s) => all.has(s));
  });
</script>

<BenchDialog
  bind:open
  title={writing ? kindOf(writing).name : only ? kindOf(only).name : 'Change here'}
  description={scopeText(bench, scope)}
  {onclose}
>
  {#if !writing && offered.length > 1}
    <div class="flex flex-wrap gap-x-4 text-sm" role="radiogroup" aria-label="Where it holds">
      {#each [undefined, ...offered] as option (option ?? '')}
        <label class="flex min-h-7 items-center gap-1.5">
          <input
            type="radio"
            class="tick"
            name="scope"
            checked={scope === option}
            onchange={() => (scope = option)}
          />
          {option ? scopeText(bench, option) : 'Selection'}
        </label>
      {/each}
    </div>
  {/if}
  {#if writing}
    {@const written = kindOf(writing).written!}
    <form
      class="grid gap-2"
      onsubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <input
        class="field"
        aria-label={kindOf(writing).name}
        aria-describedby="written-like"
        bind:value={text}
        {@attach (field) => {
          field.focus();
          field.select();
        }}
      />
      <p id="written-like" class="text-sm text-quiet">For example: {written.hint}</p>
      {#if complaint}<p class="text-sm text-alarm" role="alert">{complaint}</p>{/if}
      <p class="flex items-center gap-4">
        <button class="action">Change</button>
        <span class="text-sm text-quiet">Leave empty to reset.</span>
      </p>
    </form>
  {:else}
    <Command.Root
      class="flex min-h-0 flex-col gap-2"
      label="What to change"
      shouldFilter={false}
      bind:value={marked}
    >
      <Command.Input bind:value={sought} class="field" placeholder="Type what you want to change" autofocus />
      <Command.List class="min-h-0 overflow-y-auto">
        <Command.Viewport>
          {#if found.length === 0}<p class="p-2 text-quiet" role="status">No matching options here.</p>{/if}
          {#each groups as { heading, items } (heading)}
            <Command.Group>
              {#if heading}
                <Command.GroupHeading class="px-2 pt-2 text-sm font-semibold">{heading}</Command.GroupHeading>
              {/if}
              <Command.GroupItems>
                {#each items as offer (idOf(offer))}
                  <Command.Item
                    class="flex min-h-7 cursor-pointer items-center gap-2 rounded-sm px-2 py-0.5 data-disabled:cursor-default data-disabled:text-quiet data-selected:bg-accent-soft pointer-coarse:min-h-11"
                    value={idOf(offer)}
                    disabled={offer.isRefused ?? false}
                    onSelect={() => take(offer)}
                  >
                    {#if !heading}<span class="shrink-0 text-quiet">{offer.group}:</span>{/if}
                    <span
                      >{offer.name}{#if offer.says}<span class="text-quiet">, {offer.says}</span>{/if}</span
                    >
                    {#if offer.note}<span class="ml-auto shrink-0 text-sm text-quiet">{offer.note}</span>{/if}
                  </Command.Item>
                {/each}
              </Command.GroupItems>
            </Command.Group>
          {/each}
        </Command.Viewport>
      </Command.List>
    </Command.Root>
  {/if}
  <Dialog.Close class="link justify-self-start self-start text-sm">Cancel</Dialog.Close>
</BenchDialog>
