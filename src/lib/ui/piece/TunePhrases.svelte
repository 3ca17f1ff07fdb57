<script lang="ts">
  /** Who has the melody of a band, phrase by phrase: heard with a click, changed in a list. */
  import type { TuneChoice } from '$core/players/parts';
  import type { TuneFacts } from '$lib/engrave/tuneFacts';
  import type { Player } from '$ui/sound/player';
  import { measuresBetween } from '$core/score/measureText';
  import { onDestroy } from 'svelte';

  interface Props {
    tune: readonly TuneFacts[];
    parts: readonly { id: string; name: string }[];
    chosen: readonly TuneChoice[];
    onchange: (tune: TuneChoice[]) => void;
  }
  let { tune, parts, chosen, onchange }: Props = $props();

  let sounding = $state<number>();
  let player: Player | undefined;
  const where = ({ numbers }: TuneFacts): string => measuresBetween(numbers);

  async function listen(phrase: TuneFacts, i: number): Promise<void> {
    if (sounding === i) {
      player?.stop();
      return;
    }
    const { Player } = await import('$ui/sound/player');
    player ??= new Player({ onend: () => (sounding = undefined), onsilence: () => undefined });
    const notes = phrase.heard.map(([at, length, midi], n) => ({
      at,
      until: at + length,
      id: `${n}`,
      midi,
      velocity: 0.7,
      staff: 1,
    }));
    const ends = notes.reduce((last, n) => Math.max(last, n.until), 0);
    await player.play({
      program: { notes, clicks: [], words: [], begins: 0, ends, tickAt: () => 0, secondsAt: () => 0 },
      loops: false,
    });
    sounding = i;
  }
  onDestroy(() => player?.stop());

  /** As it was just chosen, before the phrases are read again. */
  const chosenFor = ({ from, to }: TuneFacts): string | undefined =>
    chosen.find((c) => c.from <= from && c.to >= to)?.part;

  function choose({ from, to }: TuneFacts, part: string): void {
    const others = chosen.filter((c) => c.to < from || c.from > to);
    onchange([...others, { from, to, part }].sort((a, b) => a.from - b.from));
  }
</script>

<ol>
  {#each tune as phrase, i (`${phrase.from}-${phrase.to}`)}
    <li class="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-t border-hairline py-1.5">
      <span class="min-w-0 flex-1 first-letter:uppercase">{where(phrase)}</span>
      <button
        type="button"
        class="link"
        aria-pressed={sounding === i}
        aria-label={sounding === i ? `Stop ${where(phrase)}` : `Listen to ${where(phrase)}`}
        onclick={() => void listen(phrase, i)}>{sounding === i ? 'Stop' : 'Listen'}</button
      >
      <select
        class="field"
        aria-label="Melody in {where(phrase)}"
        value={chosenFor(phrase) ?? phrase.part}
        onchange={(event) => choose(phrase, event.currentTarget.value)}
      >
        {#each parts as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </select>
    </li>
  {/each}
</ol>
{#if chosen.length > 0}
  <button type="button" class="link mt-2" onclick={() => onchange([])}>Reset to the suggestion</button>
{/if}
