<script lang="ts">
  /** What is decided of a kind for the measure in hand or its section: dashed while it is only proposed, solid once it is decided. */
  import { kindOf, type Decision, type KindId } from '$core/decisions/registry';
  import { ofSection, perform } from './commands';
  import { placesHere } from './places';
  import { getBench } from './state/bench.svelte';

  let { kind, scope }: { kind: KindId; scope: 'measure' | 'section' } = $props();

  const bench = getBench();
  const facts = $derived(kindOf(kind));
  const refused = $derived(bench.situation ? (facts.refused?.(bench.situation) ?? []) : []);
  const section = $derived(
    bench.view.version?.form.sections[bench.sectionOf(bench.selection.measure ?? 0)]?.label ?? '',
  );
  const where = $derived(scope === 'measure' ? 'here' : `in ${section}`);
  const label = $derived(
    scope === 'measure' ? `${facts.name} in this measure` : `${facts.name} in section ${section}`,
  );
  const decided = $derived.by((): Decision['value'] | undefined => {
    if (scope === 'section') return ofSection(bench, kind)?.value;
    const [at] = placesHere(kind, 'measure', bench);
    return at && bench.document.decided(kind, at)?.value;
  });
  /** What is offered, and what is chosen already where the level no longer offers it. */
  const options = $derived.by((): readonly (readonly [Decision['value'], string])[] => {
    const choices = bench.situation ? (facts.choices?.(bench.situation) ?? []) : [];
    const isOffered = decided === undefined || choices.some(([value]) => String(value) === String(decided));
    return isOffered ? choices : [...choices, [decided, facts.says(decided as never)]];
  });
  const choose = (value: string): void =>
    perform(bench, {
      do: 'decide here',
      kind,
      scope,
      value: options.find(([option]) => String(option) === value)?.[0],
    });
</script>

<label class="mt-1 grid min-w-0 text-sm text-quiet">
  <span class="truncate">{where}</span>
  <select
    class="field w-full min-w-0 text-ink {decided === undefined ? 'border-dashed' : 'border-ink'}"
    aria-label={label}
    value={decided === undefined ? '' : String(decided)}
    onchange={(event) => choose(event.currentTarget.value)}
  >
    <option value="">{scope === 'measure' ? 'Suggested' : 'Same as the piece'}</option>
    {#each options as [value, name] (value)}<option value={String(value)}>{name}</option>{/each}
    {#each refused as [name, why] (name)}<option disabled>{name} ({why})</option>{/each}
  </select>
</label>
