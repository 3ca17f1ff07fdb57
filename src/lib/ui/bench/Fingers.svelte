<script lang="ts">
  /** The fingers of one hand in one measure: outlined where proposed, filled where decided. */
  import { pitchName } from '$core/theory/pitch';
  import type { Note } from '$core/score/score';
  import type { NoteFinger } from '$core/version/realise';

  interface Props {
    notes: readonly Note[];
    fingers: Readonly<Record<string, NoteFinger>>;
    hand: 'right' | 'left';
    selected: string | undefined;
    onselect: (id: string) => void;
  }
  let { notes, fingers, hand, selected, onselect }: Props = $props();
</script>

<ul class="flex flex-wrap gap-1.5">
  {#each notes.filter((n) => n.id in fingers) as note (note.id)}
    {@const { finger, decided } = fingers[note.id]!}
    <li>
      <button
        type="button"
        onclick={() => onselect(note.id)}
        aria-pressed={note.id === selected}
        aria-label="{pitchName(note.pitch)}, finger {finger}, {decided ? 'your choice' : 'suggested'}"
        title={pitchName(note.pitch)}
        class={[
          'h-7 w-7 border-2 text-sm font-bold',
          hand === 'right' ? 'rounded-full border-plum' : 'rounded-sm border-moss',
          hand === 'right'
            ? decided
              ? 'bg-plum text-paper'
              : 'bg-paper text-plum'
            : decided
              ? 'bg-moss text-paper'
              : 'bg-paper text-moss',
          note.id === selected && 'ring-2 ring-accent ring-offset-1',
        ]}
      >
        {finger}
      </button>
    </li>
  {/each}
</ul>
