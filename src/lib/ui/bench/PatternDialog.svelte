<script lang="ts">
  /** A pattern of one's own: typed, played on a keyboard or taken from the measure, seen and heard in the phrase before it is kept. */
  import { page } from '$app/state';
  import type { Scope } from '$core/decisions/anchor';
  import { teacherPatternText } from '$core/arrange/teacherPattern';
  import Picture from '$ui/score/Picture.svelte';
  import { Dialog } from 'bits-ui';
  import { untrack } from 'svelte';
  import BenchDialog from './BenchDialog.svelte';
  import { perform } from './commands';
  import { scopesHere } from './places';
  import { scopeText } from './scopeText';
  import { getBench } from './state/bench.svelte';
  import { PatternState } from './state/pattern.svelte';

  interface Props {
    open: boolean;
    /** Where the keyboard goes back to. */
    onclose: () => void;
  }
  let { open = $bindable(), onclose }: Props = $props();

  const bench = getBench();
  let making = $state.raw<PatternState>();
  let scope = $state<Scope>('measure');
  const isSimulated = $derived(page.url.searchParams.get('keyboard') === 'simulated');
  const kind = $derived(making?.hand === 'right' ? 'rhythm' : 'texture');
  const scopes = $derived(scopesHere(kind, bench));

  $effect(() => {
    if (!open) return;
    const begun = untrack(() => new PatternState(bench));
    making = begun;
    scope = untrack(() => (scopes.includes('range') ? 'range' : (scopes[0] ?? 'measure')));
    return () => begun.close();
  });
  // The picture follows what is typed, once it rests.
  const RESTS = 250;
  $effect(() => {
    if (!making || !open) return;
    void [making.steps, making.hand];
    const timer = setTimeout(() => void untrack(() => making?.draw()), RESTS);
    return () => clearTimeout(timer);
  });
  async function keep(): Promise<void> {
    if (!making?.pattern || !(await making.keep())) return;
    perform(bench, { do: 'decide here', kind, scope, value: teacherPatternText(making.pattern) });
    open = false;
  }
</script>

<BenchDialog
  bind:open
  isWide
  title="Your own pattern"
  description="Written once, it follows every chord of every piece."
  {onclose}
>
  {#if making}
    {@const says = making.says}
    <form
      class="grid gap-3"
      onsubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <div class="grid gap-3 sm:grid-cols-[1fr_1fr]">
        <label class="grid"
          >Name <input class="field" required maxlength="40" bind:value={making.name} /></label
        >
        {#if bench.situation?.isSingAlong}
          <label class="grid"
            >Hand <select class="field" bind:value={making.hand}>
              <option value="right">Right hand</option>
              <option value="left">Left hand</option>
            </select></label
          >
        {/if}
      </div>
      <label class="grid"
        >Steps <input
          class="field font-mono"
          required
          maxlength="400"
          spellcheck="false"
          aria-describedby="pattern-like"
          bind:value={making.steps}
        /></label
      >
      <p id="pattern-like" class="text-sm text-quiet">
        A note value, then 1, 3, 5, 7 for the chord from its bass up; 8 is an octave above 1,
        <span class="font-mono">5,</span> an octave below 5; 2, 4, 6 are notes of the key.
        <span class="font-mono">1+5</span> together, <span class="font-mono">.</span> continues,
        <span class="font-mono">-</span> rests, <span class="font-mono">nearest</span> at the end follows the nearest
        inversion.
      </p>
      <div class="flex flex-wrap items-center gap-x-5 gap-y-2 text-sm">
        <span class="font-semibold">Or take it from</span>
        <button type="button" class="link" onclick={() => making?.takeFrom('version')}
          >this measure of the version</button
        >
        <button type="button" class="link" onclick={() => making?.takeFrom('source')}
          >this measure of the source</button
        >
        <span class="flex items-center gap-2">
          <button
            type="button"
            class="link"
            aria-pressed={making.isListening}
            onclick={() => (making?.isListening ? making.stop() : void making?.listen(isSimulated))}
            >{making.isListening ? 'Stop listening' : 'your keyboard'}</button
          >
          <label class="flex items-center gap-1.5"
            >over <input
              class="field w-16"
              bind:value={making.over}
              aria-label="Chord you play over"
            /></label
          >
        </span>
      </div>
      {#if making.problem}<p class="text-sm text-alarm" role="alert">{making.problem}</p>{/if}
      {#if says}
        <p class="text-sm {says.isWrong ? 'text-alarm' : 'text-quiet'}" role="status">{says.text}</p>
      {/if}
      <div class="min-h-24 border-y border-hairline py-2">
        <Picture svg={making.picture} label="This phrase with the pattern" />
      </div>
      {#if scopes.length > 1}
        <div class="flex flex-wrap gap-x-4 text-sm" role="radiogroup" aria-label="Where to use it">
          {#each scopes as option (option)}
            <label class="flex min-h-7 items-center gap-1.5">
              <input type="radio" class="tick" name="pattern-scope" value={option} bind:group={scope} />
              {scopeText(bench, option)}
            </label>
          {/each}
        </div>
      {/if}
      <p class="flex items-center gap-4">
        <button class="action" disabled={says?.isWrong ?? false}>Save and use</button>
        <button type="button" class="link" disabled={says?.isWrong ?? false} onclick={() => making?.hear()}
          >Listen</button
        >
        <Dialog.Close class="link text-sm">Cancel</Dialog.Close>
      </p>
    </form>
  {/if}
</BenchDialog>
