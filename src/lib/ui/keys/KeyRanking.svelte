<script lang="ts">
  /**
   * All keys for a learner, as bars that add up what each criterion costs with its weight: the shortest bar is the best key.
   * A bar is a button; the weights are beside it and order the bars at once.
   */
  import type { LevelContract } from '$core/arrange/levels';
  import {
    BEYOND_LEVEL,
    CRITERIA,
    CRITERION_NAMES,
    DEFAULT_WEIGHTS,
    keySentence,
    weighed,
    type Criterion,
    type RankedKey,
    type VoiceRange,
    type Weights,
  } from '$core/keys/rank';
  import { keyName, type Key } from '$core/theory/key';
  import type { VersionDocument } from '$core/version/document';
  import { service } from '$ui/worker/service';
  import SongRange from './SongRange.svelte';

  interface Props {
    /** Where the piece is to be fetched. */
    score: string;
    levels: readonly LevelContract[];
    document: VersionDocument;
    voice: VoiceRange | null;
    mode: Key['mode'];
    /** The key that is chosen now, by its code. */
    current?: string | null;
    /** What a click on a key does, for its name. */
    does: string;
    onchoose: (key: string) => void;
  }
  let { score, levels, document, voice, mode, current = null, does, onchoose }: Props = $props();

  let judged = $state.raw<readonly RankedKey[]>([]);
  let problem = $state('');
  let weights = $state<{ -readonly [K in keyof Weights]: number }>({ ...DEFAULT_WEIGHTS });

  /** How low and high the song goes, where there is no melody to tell. */
  let songRange = $state.raw<VoiceRange | null>(null);
  let hasMelody = $state(true);

  $effect(() => {
    const [wanted, from, range] = [document, score, songRange];
    judged = [];
    const music = service();
    music
      .open(from, levels)
      .then(() => music.keys(wanted, voice, range))
      .then(
        (keys) => {
          if (wanted !== document || range !== songRange) return;
          judged = keys;
          hasMelody = keys[0]?.voiceFrom === 'melody';
        },
        (error: unknown) => (problem = error instanceof Error ? error.message : String(error)),
      );
  });

  const ranked = $derived(weighed(judged, weights));
  const longest = $derived(Math.max(1, ...ranked.map((k) => k.total)));
  const nameOf = (key: RankedKey): string => keyName({ fifths: key.fifths, mode });
  /** Steps of one hue, so that they part in grey as well. */
  const SHADES: Readonly<Record<Criterion, string>> = {
    reading: 'var(--color-ink)',
    hands: '#4b5a86',
    voice: '#7d8ab0',
    keyboard: '#aab3cd',
    distance: '#d3d8e6',
  };
  const sums = (key: RankedKey): string =>
    CRITERIA.map((c) => `${CRITERION_NAMES[c].name} ${(weights[c] * key[c]).toFixed(1)}`).join(', ');
</script>

{#if voice && !hasMelody}
  <SongRange said={songRange} onsay={(range) => (songRange = range)} />
{/if}
{#if problem}
  <p class="text-alarm" role="alert">Key Path couldn’t compare the keys: {problem}</p>
{:else if ranked.length === 0}
  <p class="text-quiet" role="status">Playing the piece through in every key…</p>
{:else}
  <ol class="mb-6 grid gap-1 pl-6 [list-style:decimal]" aria-label="Best three keys">
    {#each ranked.slice(0, 3) as key (key.key)}
      <li>{keySentence(key, mode, ranked)}</li>
    {/each}
  </ol>

  <div class="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_17rem]">
    <ul aria-label="All keys, best first" class="grid gap-1">
      {#each ranked as key (key.key)}
        <li>
          <button
            type="button"
            class="group grid w-full grid-cols-[7.5rem_minmax(0,1fr)_9rem] items-center gap-3 rounded px-2 py-1 text-left hover:bg-accent-soft"
            aria-label="{does} {nameOf(key)}: {key.total.toFixed(1)} in all; {sums(key)}"
            aria-current={key.key === current ? 'true' : undefined}
            title={sums(key)}
            onclick={() => onchoose(key.key)}
          >
            <span class={key.key === current ? 'font-bold' : ''}>{nameOf(key)}</span>
            <span class="flex h-4" aria-hidden="true">
              {#each CRITERIA as criterion (criterion)}
                <span
                  style:width="{(100 * weights[criterion] * key[criterion]) / longest}%"
                  style:background={SHADES[criterion]}
                ></span>
              {/each}
              {#if key.beyondLevel > 0}
                <span
                  class="border border-dashed border-ink"
                  style:width="{(100 * BEYOND_LEVEL * key.beyondLevel) / longest}%"
                ></span>
              {/if}
            </span>
            <span class="text-sm text-quiet">
              {key.total.toFixed(1)}{key.beyondLevel > 0
                ? ', beyond the level'
                : key.by === 0
                  ? ', the original key'
                  : ''}
            </span>
            <span class="col-start-2 col-end-4 font-mono text-xs text-quiet" aria-hidden="true"
              >{sums(key)}</span
            >
          </button>
        </li>
      {/each}
    </ul>

    <fieldset class="grid content-start gap-3">
      <legend class="mb-1 font-semibold">What matters, and how much</legend>
      {#each CRITERIA as criterion (criterion)}
        <label class="grid grid-cols-[1rem_minmax(0,1fr)_4.5rem] items-center gap-2">
          <span class="h-4 w-4" style:background={SHADES[criterion]} aria-hidden="true"></span>
          <span>
            {CRITERION_NAMES[criterion].name}
            <span class="block text-sm text-quiet">{CRITERION_NAMES[criterion].says}</span>
          </span>
          <input
            class="field w-full"
            type="number"
            min="0"
            max="100"
            step="any"
            aria-label="Weight of {CRITERION_NAMES[criterion].name}"
            bind:value={weights[criterion]}
          />
        </label>
      {/each}
      <button type="button" class="link w-fit" onclick={() => (weights = { ...DEFAULT_WEIGHTS })}>
        Reset weights
      </button>
    </fieldset>
  </div>
{/if}
