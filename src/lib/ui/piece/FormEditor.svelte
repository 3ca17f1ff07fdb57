<script lang="ts">
  /** The form as a list that can be changed: where sections begin, what they are called, split and joined. Kept at once, undone at will. */
  import type { Form } from '$core/analysis/form';
  import {
    joinSection,
    moveSection,
    renameSection,
    splitSection,
    type SectionStart,
  } from '$core/analysis/sections';
  import { measuresText } from '$ui/text';
  import { toast } from 'svelte-sonner';
  import { measureLink } from './links';

  interface Props {
    pieceId: string;
    form: Form;
    numbers: readonly string[];
    /** The teacher's own form; null where the analysis speaks. */
    decided: readonly SectionStart[] | null;
    onchange: () => Promise<void>;
  }
  let { pieceId, form, numbers, decided, onchange }: Props = $props();

  const starts = $derived<readonly SectionStart[]>(
    decided ??
      form.sections.map((s) => ({
        measure: s.from,
        ...(s.role?.from === 'name' || s.label.length > 4 ? { name: s.label } : {}),
      })),
  );

  async function keep(next: readonly SectionStart[] | null, said: string): Promise<void> {
    const before = decided;
    const response = await fetch(`/pieces/${pieceId}/sections`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ sections: next, was: before }),
    }).catch(() => undefined);
    if (!response?.ok) {
      const answer = (await response?.json().catch(() => undefined)) as { message?: string } | undefined;
      toast.error(answer?.message ?? 'The sections weren’t saved: the server isn’t answering. Try again.');
      if (response?.status === 409) await onchange();
      return;
    }
    await onchange();
    if (said) toast(said, { action: { label: 'Undo', onClick: () => void keep(before, '') } });
  }

  /** The middle of a section, at a phrase. */
  function middleOf(index: number): number {
    const { from, to } = form.sections[index]!;
    const middle = (from + to + 1) / 2;
    const inside = form.phrases.map((p) => p.from).filter((at) => at > from && at <= to);
    const candidates = inside.length > 0 ? inside : [Math.max(from + 1, Math.round(middle))];
    return candidates.reduce((a, b) => (Math.abs(b - middle) < Math.abs(a - middle) ? b : a));
  }
</script>

<details class="mt-2">
  <summary class="w-fit cursor-pointer text-quiet hover:text-accent">
    {decided ? 'Your sections' : 'Change the sections'}
  </summary>
  <ol class="mt-2">
    {#each form.sections as section, i (i)}
      {@const name = section.label}
      <li
        class="grid grid-cols-[11rem_7rem_minmax(0,1fr)_auto_auto] items-center gap-3 border-t border-hairline py-1.5"
      >
        <input
          class="field {decided ? '' : 'border-dashed'}"
          aria-label="Name of section {name}"
          value={starts[i]?.name ?? ''}
          placeholder="{name}{section.role ? `, ${section.role.role}?` : ''}"
          maxlength="60"
          onchange={(event) =>
            keep(renameSection(starts, i, event.currentTarget.value), `Section ${name} has another name.`)}
        />
        <label class="flex items-center gap-2 text-sm text-quiet">
          from
          <select
            class="field text-ink"
            aria-label="Section {name} starts at measure"
            disabled={i === 0}
            value={section.from}
            onchange={(event) =>
              keep(
                moveSection(starts, i, Number(event.currentTarget.value), numbers.length),
                `Section ${name} begins elsewhere.`,
              )}
          >
            {#each numbers as number, measure (measure)}
              {#if measure === section.from || (measure > (starts[i - 1]?.measure ?? -1) && measure < (starts[i + 1]?.measure ?? numbers.length))}
                <option value={measure}>{number === '0' ? 'pickup' : number}</option>
              {/if}
            {/each}
          </select>
        </label>
        <a class="text-sm text-quiet hover:text-accent" href={measureLink(section.from)}>
          {measuresText(numbers, section.from, section.to)}{section.pickup ? ', with a pickup' : ''}
        </a>
        <button
          class="link text-sm disabled:invisible"
          disabled={section.to === section.from}
          aria-label="Split section {name}"
          onclick={() => keep(splitSection(starts, middleOf(i)), `Section ${name} is two now.`)}>Split</button
        >
        <button
          class="link text-sm disabled:invisible"
          disabled={i === 0}
          aria-label="Join section {name} to the one before"
          onclick={() => keep(joinSection(starts, i), `Section ${name} is part of the one before.`)}
          >Merge with previous</button
        >
      </li>
    {/each}
  </ol>
  {#if decided}
    <button class="link mt-1 text-sm" onclick={() => keep(null, 'Suggested sections.')}>
      Reset to the suggestion
    </button>
  {/if}
</details>
