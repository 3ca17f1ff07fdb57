<script lang="ts">
  /** ABC or a chord chart typed beside its picture; what is wrong is said with its place. */
  import Look from '$ui/piece/Look.svelte';
  import { look, textFile, type Looked } from '$ui/piece/bring';
  import { keptText } from '$ui/form/keptText.svelte';
  import Sheet from '$ui/score/Sheet.svelte';

  let { rights }: { rights: readonly string[] } = $props();

  const EXAMPLE = `X: 1
T: A melody
M: 3/4
L: 1/4
K: G
"G" G A B | "D7" A F D |
w: The lan-tern swings a- bove

or

Verse:
G / / | D7 / / |`;
  /** Milliseconds without a stroke after which it is read. */
  const PAUSE = 450;
  const SHOWN = 48;

  let text = $state('');
  keptText(
    'music as text',
    () => text,
    (kept) => (text = kept),
  );
  let area = $state<HTMLTextAreaElement>();
  let preview = $state.raw<Looked>();
  let problem = $state('');
  let keeping = $state(false);
  let wished = 0;

  $effect(() => {
    const typed = text;
    const mine = ++wished;
    if (!typed.trim()) {
      [preview, problem] = [undefined, ''];
      return;
    }
    const timer = setTimeout(() => {
      look(textFile(typed), undefined, SHOWN).then(
        (made) => {
          if (mine === wished) [preview, problem] = [made, ''];
        },
        (error: unknown) => {
          if (mine === wished) problem = error instanceof Error ? error.message : String(error);
        },
      );
    }, PAUSE);
    return () => clearTimeout(timer);
  });

  /** The line that a sentence names, from 1. */
  const lineIn = (sentence: string): number | undefined => {
    const found = /\bline (\d+)/i.exec(sentence)?.[1];
    return found ? Number(found) : undefined;
  };
  function goToLine(line: number): void {
    if (!area) return;
    const lines = text.split('\n');
    const start = lines.slice(0, line - 1).reduce((sum, l) => sum + l.length + 1, 0);
    area.focus();
    area.setSelectionRange(start, start + (lines[line - 1]?.length ?? 0));
  }
</script>

{#snippet sentence(said: string, isProblem: boolean)}
  {@const line = lineIn(said)}
  <p class={isProblem ? 'text-alarm' : 'text-quiet'} role={isProblem ? 'alert' : undefined}>
    {said}
    {#if line}<button type="button" class="link text-sm" onclick={() => goToLine(line)}
        >Go to line {line}</button
      >{/if}
  </p>
{/snippet}

<div class="grid gap-6 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
  <label class="grid content-start text-sm text-quiet">
    ABC, or chords with their beats and words
    <textarea
      bind:value={text}
      bind:this={area}
      class="field h-[26rem] resize-y font-mono text-[15px] text-ink"
      spellcheck="false"
      placeholder={EXAMPLE}></textarea>
  </label>
  <div class="min-w-0">
    {#if problem}{@render sentence(problem, true)}{/if}
    {#each preview?.warnings ?? [] as warning (warning)}{@render sentence(warning, false)}{/each}
    {#if preview}
      <div class="mt-2 border-y border-hairline bg-paper px-2 py-1">
        <Sheet sheet={preview.sheet} label="What is typed: {preview.title}" />
      </div>
      <p class="mt-3">
        <button type="button" class="action" onclick={() => (keeping = true)}>Save this piece</button>
      </p>
    {:else if !problem}
      <p class="text-quiet">The music appears here as you type.</p>
    {/if}
  </div>
</div>
{#if keeping && preview}
  <Look file={textFile(text)} {preview} {rights} onclose={() => (keeping = false)} />
{/if}
