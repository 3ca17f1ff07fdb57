<script lang="ts">
  /** Which part is the melody, and which the hands play. */
  import { PART_CHOICES, type PartChoice, type PartChoices } from '$core/players/parts';
  import { plural } from '$ui/text';

  interface Props {
    parts: readonly { id: string; name: string; staves: number; notes: number; hasWords: boolean }[];
    choices: PartChoices;
    onchange: (choices: PartChoices) => void;
  }
  let { parts, choices, onchange }: Props = $props();

  const NAMES: Readonly<Record<PartChoice, string>> = {
    melody: 'Melody',
    piano: 'Piano, both hands',
    right: 'Right hand',
    left: 'Left hand',
    other: 'Accompaniment (used for its chords)',
  };
</script>

<ul>
  {#each parts as part (part.id)}
    <li class="border-t border-hairline py-1.5">
      <label class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <span class="min-w-0 flex-1">
          <span class="font-semibold">{part.name}</span>
          <span class="text-quiet"
            >{part.staves > 1 ? `${part.staves} staves, ` : ''}{plural(part.notes, 'note')}{part.hasWords
              ? ', with lyrics'
              : ''}</span
          >
        </span>
        <select
          class="field"
          name="part {part.id}"
          value={choices.parts[part.id] ?? 'other'}
          onchange={(event) =>
            onchange({
              ...choices,
              parts: { ...choices.parts, [part.id]: event.currentTarget.value as PartChoice },
            })}
        >
          {#each PART_CHOICES as choice (choice)}<option value={choice}>{NAMES[choice]}</option>{/each}
        </select>
      </label>
    </li>
  {/each}
</ul>
