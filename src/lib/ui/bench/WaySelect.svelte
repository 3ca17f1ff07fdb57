<script lang="ts" generics="Value extends string">
  /** Another way for a section or a measure: dashed while it is only proposed, solid once it is decided. */
  interface Props {
    /** Where it holds, before the list; and what the list is called. */
    where: string;
    label: string;
    value: Value | undefined;
    /** What the first entry says, which gives the way back. */
    back: string;
    options: readonly (readonly [value: Value, name: string])[];
    onchange: (value: Value | undefined) => void;
  }
  let { where, label, value, back, options, onchange }: Props = $props();
</script>

<label class="mt-1 flex items-center gap-2 text-sm text-quiet">
  {where}
  <select
    class="field min-w-0 flex-1 text-ink {value ? 'border-ink' : 'border-dashed'}"
    aria-label={label}
    value={value ?? ''}
    onchange={(event) => onchange(options.find(([v]) => v === event.currentTarget.value)?.[0])}
  >
    <option value="">{back}</option>
    {#each options as [way, name] (way)}<option value={way}>{name}</option>{/each}
  </select>
</label>
