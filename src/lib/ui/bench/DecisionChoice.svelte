<script lang="ts">
  /** What is decided of a kind for the whole version. */
  import { inSentence } from '$core/capital';
  import { WHOLE } from '$core/decisions/anchor';
  import { kindOf, type KindId } from '$core/decisions/registry';
  import Choice from './Choice.svelte';
  import { perform } from './commands';
  import { getBench } from './state/bench.svelte';

  let { kind }: { kind: KindId } = $props();

  const bench = getBench();
  const PROPOSED = 'proposed';
  const facts = $derived(kindOf(kind));
  const choices = $derived(bench.situation ? (facts.choices?.(bench.situation) ?? []) : []);
  const options = $derived([
    { value: PROPOSED, label: 'suggested' },
    ...choices.map(([value, label]) => ({ value: String(value), label })),
  ]);
  const decided = $derived(bench.document.decided(kind, WHOLE)?.value);
</script>

{#if choices.length > 0}
  <Choice
    label={facts.name}
    shown="{inSentence(facts.name)}:"
    value={decided === undefined ? PROPOSED : String(decided)}
    {options}
    onchange={(chosen: string) =>
      perform(bench, {
        do: 'decide here',
        kind,
        scope: 'version',
        value: choices.find(([value]) => String(value) === chosen)?.[0],
      })}
  />
{/if}
