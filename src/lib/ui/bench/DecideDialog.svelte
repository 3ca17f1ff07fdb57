<script lang="ts">
  /** Everything that can be decided at Selection, in a list that is searched by typing; words are written in place. */
  import { SCOPES, type Scope } from '$core/decisions/anchor';
  import { allKinds, kindOf, type AnyKind, type Decision, type KindId } from '$core/decisions/registry';
  import { Command, Dialog } from 'bits-ui';
  import { untrack } from 'svelte';
  import { perform } from './commands';
  import { placesHere, scopeHere, scopesHere } from './places';
  import { scopeText } from './scopeText';
  import { getBench } from './state/bench.svelte';

  interface Props {
    open: boolean;
    /** Only what this kind offers. */
    only?: KindId | undefined;
    /** Where the keyboard goes back to. */
    onclose: () => void;
  }
  let { open = $bindable(), only, onclose }: Props = $props();

  const bench = getBench();
  let scope = $state<Scope>();
  let writing = $state<KindId>();
  let text = $state('');
  let complaint = $state('');
  let sought = $state('');
  let list = $state<HTMLElement | null>(null);
  /** Milliseconds after which the list is looked at again, and how often: it follows what is typed a moment later. */
  const FOLLOWS = 60;
  const MOST_LOOKS = 8;
  let looks = 0;
  /** Enter struck with the last letter means what is sought, not what stood there before: it waits until the list has followed. */
  function taken(label: string, act: () => void): () => void {
    return () => {
      const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
      if (looks >= MOST_LOOKS || words.every((word) => label.toLowerCase().includes(word))) {
        looks = 0;
        return act();
      }
      looks += 1;
      setTimeout(
        () => list?.querySelector<HTMLElement>('[data-command-item][data-selected]')?.click(),
        FOLLOWS,
      );
    };
  }

  /** Kinds with a place of their own elsewhere: fingers by their keys, words to count in the panel. */
  const ELSEWHERE: readonly KindId[] = ['finger', 'hand', 'octave', 'pitch', 'count'];
  const situation = $derived(bench.situation);
  const kinds = $derived(
    situation === undefined
      ? []
      : allKinds().filter(
          (kind) =>
            (only ? kind.id === only : !ELSEWHERE.includes(kind.id)) &&
            (choicesOf(kind).length > 0 || kind.written !== undefined),
        ),
  );
  /** What a kind offers here; what leads from note to note needs more than one. */
  function choicesOf(kind: AnyKind) {
    const { length } = bench.selection.notes;
    const { spans } = kind;
    return (situation ? (kind.choices?.(situation) ?? []) : []).filter(
      ([value]) => !spans || length > 1 || spans(value, '') === value,
    );
  }
  const scopeFor = (kind: AnyKind): Scope => {
    if (scope && kind.scopes.includes(scope)) return scope;
    return scopeHere(kind.id, bench);
  };
  const decidedFor = (kind: AnyKind): Decision['value'] | undefined => {
    const [at] = placesHere(kind.id, scopeFor(kind), bench);
    return at && bench.document.decided(kind.id, at)?.value;
  };
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

  function write(kind: AnyKind): void {
    const value = decidedFor(kind);
    writing = kind.id;
    complaint = '';
    text = value !== undefined && situation ? kind.written!.show(value, situation) : '';
  }
  function choose(kind: AnyKind, value: Decision['value'] | undefined): void {
    perform(bench, { do: 'decide here', kind: kind.id, scope: scopeFor(kind), value });
    open = false;
  }
  function keep(): void {
    if (!writing || !situation) return;
    const kind = kindOf(writing) as unknown as AnyKind;
    if (text.trim() === '') return choose(kind, undefined);
    const value = kind.written!.read(text, situation);
    if (value === undefined) complaint = `Not understood. Write it like this: ${kind.written!.hint}`;
    else choose(kind, value);
  }
  // Only where it is opened: a version that arrives meanwhile must not take away what is being typed.
  $effect(() => {
    if (open) untrack(begin);
  });
  function begin(): void {
    scope = undefined;
    writing = undefined;
    sought = '';
    looks = 0;
    // A kind that is only written is written at once.
    const [kind] = kinds;
    if (only && kind?.written && choicesOf(kind).length === 0) write(kind);
  }
  const offered = $derived.by(() => {
    const all = new Set(kinds.flatMap((kind) => scopesHere(kind.id, bench)));
    return SCOPES.filter((s) => all.has(s));
  });
</script>

<Dialog.Root
  bind:open
  onOpenChangeComplete={(isOpen) => {
    if (!isOpen) onclose();
  }}
>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed top-16 left-1/2 z-40 flex max-h-[calc(100dvh-6rem)] w-[34rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 flex-col gap-3 rounded-lg border border-hairline bg-paper p-5"
    >
      <Dialog.Title class="text-lg font-bold">
        {writing ? kindOf(writing).name : only ? kindOf(only).name : 'Change here'}
      </Dialog.Title>
      <Dialog.Description class="text-quiet">{scopeText(bench, scope)}</Dialog.Description>
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
            placeholder={written.hint}
            bind:value={text}
            {@attach (field) => {
              field.focus();
              field.select();
            }}
          />
          {#if complaint}<p class="text-sm text-alarm" role="alert">{complaint}</p>{/if}
          <p class="flex items-center gap-4">
            <button class="action">Change</button>
            <span class="text-sm text-quiet">Leave empty to reset.</span>
          </p>
        </form>
      {:else}
        <Command.Root class="flex min-h-0 flex-col gap-2" label="What to change">
          <Command.Input
            bind:value={sought}
            class="field"
            placeholder="Type what you want to change"
            autofocus
          />
          <Command.List bind:ref={list} class="min-h-0 overflow-y-auto">
            <Command.Viewport>
              <Command.Empty class="p-2 text-quiet">No matching options here.</Command.Empty>
              {#each kinds as kind (kind.id)}
                {@const now = decidedFor(kind)}
                <Command.Group>
                  <Command.GroupHeading class="px-2 pt-2 text-sm font-semibold"
                    >{kind.name}</Command.GroupHeading
                  >
                  <Command.GroupItems>
                    {#each choicesOf(kind) as [value, name] (name)}
                      <Command.Item
                        class="flex min-h-7 cursor-pointer items-center rounded-sm px-2 py-0.5 data-selected:bg-accent-soft"
                        value="{kind.name} {name}"
                        onSelect={taken(`${kind.name} ${name}`, () => choose(kind, value))}
                      >
                        {name}
                        {#if same(now, value)}<span class="ml-auto text-sm text-quiet">your choice</span>{/if}
                      </Command.Item>
                    {/each}
                    {#if kind.written}
                      <Command.Item
                        class="flex min-h-7 cursor-pointer items-center rounded-sm px-2 py-0.5 data-selected:bg-accent-soft"
                        value="{kind.name} write"
                        onSelect={taken(`${kind.name} write`, () => write(kind))}
                      >
                        {now === undefined ? 'write …' : `“${kind.written.show(now, situation!)}”, write …`}
                      </Command.Item>
                    {/if}
                    {#if now !== undefined}
                      <Command.Item
                        class="flex min-h-7 cursor-pointer items-center rounded-sm px-2 py-0.5 data-selected:bg-accent-soft"
                        value="{kind.name} give back"
                        onSelect={taken(`${kind.name} reset`, () => choose(kind, undefined))}
                      >
                        reset
                      </Command.Item>
                    {/if}
                  </Command.GroupItems>
                </Command.Group>
              {/each}
            </Command.Viewport>
          </Command.List>
        </Command.Root>
      {/if}
      <Dialog.Close class="link justify-self-start self-start text-sm">Cancel</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
