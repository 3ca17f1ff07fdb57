<script lang="ts">
  /** Pages as they will print: each a picture of its own, one below the other. In print every picture is a page. */
  import { PAPER_CSS } from '$lib/paper/choices';
  import type { Choices } from '$lib/paper/choices';

  interface Props {
    pages: readonly { readonly sheet: string; readonly svg: string }[];
    paper: Choices['paper'];
  }
  let { pages, paper }: Props = $props();
</script>

<svelte:head>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- a style of two known values -->
  {@html `<style>@page { size: ${PAPER_CSS[paper]}; margin: 0; }</style>`}
</svelte:head>

<div class="pages">
  {#each pages as page, i (i)}
    <div class="page-of-paper sheet">
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- laid out by ourselves from our own engraving -->
      {@html page.svg}
    </div>
  {/each}
</div>

<style>
  .page-of-paper {
    margin: 0 auto 1.5rem;
    max-width: 50rem;
    background: #fff;
    box-shadow: 0 1px 5px rgb(26 34 56 / 0.18);
  }
  .page-of-paper :global(svg) {
    display: block;
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
