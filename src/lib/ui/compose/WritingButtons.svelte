<script lang="ts">
  /** Everything that is written by keys, as buttons: lengths, rest, accidentals, tie, delete; chords, lyrics and sections. */
  import type { Desk } from '$core/compose/compose';

  interface Props {
    desk: Desk;
    canUndo: boolean;
    canRedo: boolean;
    /** A key, as it would be pressed. */
    onpress: (press: string) => void;
  }
  let { desk, canUndo, canRedo, onpress }: Props = $props();

  interface Button {
    readonly press: string;
    readonly sign: string;
    readonly name: string;
    readonly isOn?: boolean;
    readonly isOff?: boolean;
  }
  const groups = $derived<readonly { name: string; buttons: readonly Button[] }[]>([
    {
      name: 'Note length',
      buttons: [
        { press: '1', sign: '\u{1D15D}', name: 'Whole notes', isOn: desk.value === 1 },
        { press: '2', sign: '\u{1D15E}', name: 'Half notes', isOn: desk.value === 2 },
        { press: '4', sign: '\u{1D15F}', name: 'Quarters', isOn: desk.value === 4 },
        { press: '8', sign: '\u{1D160}', name: 'Eighths', isOn: desk.value === 8 },
        { press: '6', sign: '\u{1D161}', name: 'Sixteenths', isOn: desk.value === 16 },
        { press: '.', sign: '•', name: 'Dotted', isOn: desk.dots === 1 },
        { press: 't', sign: '3', name: 'Triplets', isOn: desk.triplet },
      ],
    },
    {
      name: 'Last note',
      buttons: [
        { press: 'r', sign: '\u{1D13D}', name: 'Rest' },
        { press: '#', sign: '♯', name: 'Raise a half step' },
        { press: '-', sign: '♭', name: 'Lower a half step' },
        { press: 'ArrowUp', sign: '↑', name: 'Raise a step' },
        { press: 'ArrowDown', sign: '↓', name: 'Lower a step' },
        { press: '~', sign: '‿', name: 'Tie to the next note' },
        { press: 'Backspace', sign: '⌫', name: 'Delete' },
      ],
    },
    {
      name: 'Place',
      buttons: [
        { press: 'ArrowLeft', sign: '←', name: 'Previous note' },
        { press: 'ArrowRight', sign: '→', name: 'Next note' },
        { press: ' ', sign: '▷', name: 'Play from here' },
        { press: 'Ctrl+z', sign: 'Undo', name: 'Undo', isOff: !canUndo },
        { press: 'Ctrl+Shift+z', sign: 'Redo', name: 'Redo', isOff: !canRedo },
      ],
    },
    {
      name: 'Words and chords',
      buttons: [
        { press: 's', sign: 'Chords', name: 'Chords' },
        { press: 'w', sign: 'Lyrics', name: 'Lyrics' },
        { press: 'n', sign: 'Section', name: 'Section' },
        { press: ':', sign: 'Repeat', name: 'End repeat' },
      ],
    },
  ]);
</script>

<div class="mt-2 flex flex-wrap gap-x-4 gap-y-1.5">
  {#each groups as { name, buttons } (name)}
    <div class="flex flex-wrap gap-1" role="group" aria-label={name}>
      {#each buttons as { press, sign, name: says, isOn, isOff } (press)}
        <button
          type="button"
          class="h-9 min-w-9 rounded-md border px-2 leading-none pointer-coarse:h-11 {isOn
            ? 'border-accent bg-accent-soft'
            : 'border-hairline bg-paper'} disabled:opacity-40"
          aria-pressed={isOn}
          aria-label={says}
          title={says}
          disabled={isOff}
          onclick={() => onpress(press)}>{sign}</button
        >
      {/each}
    </div>
  {/each}
</div>
