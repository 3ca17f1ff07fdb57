<script lang="ts">
  /**
   * Pages as they will print: each a picture of its own, one below the other; in print every picture is a page. The first comes with the
   * HTML, others behind it; of a very long document those beyond some dozens come as one comes near them, and all before it prints.
   */
  import { PAPER_CSS, type Choices } from '$lib/paper/choices';
  import { onMount, tick, untrack } from 'svelte';

  interface Page {
    readonly place: number;
    readonly sheet: string;
    readonly svg: string;
  }
  interface Props {
    /** How it begins, as it came with the HTML. */
    pages: readonly Page[];
    /** How many there are; null until all of them are laid out. */
    count: number | null;
    paper: Choices['paper'];
    /** Where pages are asked for; with its own question mark. */
    more: string;
    oncounted: (count: number) => void;
  }
  let { pages, count, paper, more, oncounted }: Props = $props();

  interface Fetched {
    readonly count: number;
    readonly pages: readonly Page[];
  }
  /** What was fetched, with the beginning that it belongs to: other choices, other pages. */
  let fetched = $state.raw<Fetched & { readonly after: readonly Page[] }>();
  let problem = $state('');
  let isWorking = $state(false);
  const own = $derived(fetched?.after === pages ? fetched : undefined);
  /** The first page gives way to itself as it is when all is laid out. */
  const all = $derived(own?.pages ?? pages);
  const number = $derived(own?.count ?? count);
  const isWhole = $derived(number !== null && all.length >= number && (own !== undefined || count !== null));
  const AT_ONCE = 6;
  /** So many come by themselves: the browser's own way to print does not ask for more. */
  const BY_ITSELF = 60;
  const shape = $derived(paper === 'a4' ? '595.28 / 841.89' : '612 / 792');

  async function next(): Promise<void> {
    if (isWorking || isWhole) return;
    isWorking = true;
    const before = pages;
    const from = own?.pages.length ?? 0;
    try {
      const answer = await fetch(`${more}from=${from}&to=${from + AT_ONCE}`);
      if (!answer.ok) throw new Error('The pages couldn’t be prepared. Try again.');
      const found = (await answer.json()) as Fetched;
      if (before === pages) {
        fetched = { after: pages, count: found.count, pages: [...(own?.pages ?? []), ...found.pages] };
        oncounted(found.count);
      }
      problem = '';
    } catch {
      problem = 'The other pages couldn’t be loaded.';
    } finally {
      isWorking = false;
    }
  }

  /** Fetches pages while some are wanted. */
  async function fill(most: number): Promise<void> {
    const begun = pages;
    while (begun === pages && !isWhole && !problem && (own?.pages.length ?? 0) < most) {
      if (isWorking) await new Promise((resolve) => setTimeout(resolve, 50));
      else await next();
    }
  }

  /** Every page is here, as far as they can be had. */
  export async function whole(): Promise<void> {
    await fill(Infinity);
    await tick();
  }

  let end = $state<HTMLElement>();
  onMount(() => {
    const watching = new IntersectionObserver(
      (entries) => {
        if (entries.some((e) => e.isIntersecting)) void next().then(look);
      },
      { rootMargin: '1500px' },
    );
    /** Looked at anew: what was near is still near when there are more pages. */
    const look = (): void => {
      if (!end || problem) return;
      watching.unobserve(end);
      watching.observe(end);
    };
    look();
    return () => watching.disconnect();
  });
  $effect(() => {
    // Other choices, other pages: whoever stands at their end sees them come.
    void pages;
    untrack(() => {
      problem = '';
      void fill(BY_ITSELF);
    });
  });
</script>

<svelte:head>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- a style of two known values -->
  {@html `<style>@page { size: ${PAPER_CSS[paper]}; margin: 0; }</style>`}
</svelte:head>

<div class="pages">
  {#each all as page (page.place)}
    <div class="page-of-paper sheet">
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- laid out by ourselves from our own engraving -->
      {@html page.svg}
    </div>
  {/each}
  {#if !isWhole}
    <div class="page-of-paper print:hidden" style:aspect-ratio={shape} bind:this={end}>
      {#if problem}
        <p class="p-8 text-alarm" role="alert">
          {problem} <button class="link" onclick={() => void next()}>Try again</button>
        </p>
      {:else}
        <p class="p-8 text-quiet" role="status">
          {number === null ? 'Preparing pages…' : `Page ${all.length + 1} of ${number}…`}
        </p>
      {/if}
      <noscript
        ><a class="link m-8" href="?whole=yes">The first pages</a>, or the PDF for all of them.</noscript
      >
    </div>
  {/if}
</div>

<style>
  .page-of-paper {
    margin: 0 auto 1.5rem;
    max-width: 50rem;
    /* Paper is white by night as well. */
    color-scheme: light;
    background: #fff;
    color: #1a2238;
    box-shadow: 0 1px 5px rgb(26 34 56 / 0.18);
  }
  .page-of-paper :global(svg) {
    display: block;
    color: #1a2238;
    width: 100%;
    height: auto;
  }
  @media print {
    .page-of-paper {
      margin: 0;
      max-width: none;
      box-shadow: none;
      break-after: page;
      break-inside: avoid;
    }
    .page-of-paper:last-child {
      break-after: auto;
    }
    .page-of-paper :global(svg) {
      width: 100vw;
      max-height: 100vh;
    }
  }
</style>
