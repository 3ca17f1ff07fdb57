<script lang="ts">
  /** Choosing what goes on paper, with its pages beside it, and the ways to take it along. */
  import type { Choices } from '$lib/paper/choices';
  import { plural } from '$ui/text';
  import type { Snippet } from 'svelte';
  import PaperForm from './PaperForm.svelte';
  import ReadAloud from '$ui/score/ReadAloud.svelte';
  import Pages from './Pages.svelte';

  interface Props {
    title: string;
    /** What stands below the title, before how many pages it is. */
    says: string;
    back: { readonly href: string; readonly name: string };
    pages: readonly { readonly place: number; readonly sheet: string; readonly svg: string }[];
    /** How many pages; null until they are laid out. */
    count: number | null;
    choices: Choices;
    problem?: string | undefined;
    /** Addresses of the files, and of further pages. */
    files: readonly { readonly href: string; readonly name: string }[];
    more: string;
    /** For whom, where that is to be chosen. */
    whose?: Snippet;
    /** Address of the music as it is read out, where it is of one version. */
    reading?: string;
  }
  let { title, says, back, pages, count, choices, problem, files, more, whose, reading }: Props = $props();
  let shown = $state<ReturnType<typeof Pages>>();
  let counted = $state.raw<{ readonly of: typeof pages; readonly count: number }>();
  const number = $derived(counted?.of === pages ? counted.count : count);
</script>

<div class="lg:grid lg:grid-cols-[20rem_minmax(0,1fr)] print:block">
  <aside
    class="border-hairline px-6 py-5 lg:sticky lg:top-0 lg:h-screen lg:overflow-y-auto lg:border-r print:hidden"
    aria-label="What to print"
  >
    <a class="link" href={back.href}>{back.name}</a>
    <h1 class="mt-3">{title}</h1>
    <p class="text-quiet">
      {[says, number === null ? '' : plural(number, 'page')].filter(Boolean).join(', ')}
    </p>
    {@render whose?.()}
    {#if number !== 0}
      <p class="my-4 flex flex-wrap items-center gap-x-4 gap-y-2">
        <button type="button" class="action" onclick={() => void shown?.whole().then(() => window.print())}
          >Print</button
        >
        {#each files as { href, name } (href)}<a class="link" {href} download>{name}</a>{/each}
      </p>
    {:else}
      <p class="my-4">Nothing to print yet.</p>
    {/if}
    <PaperForm {choices} {problem} />
  </aside>
  <main id="main" class="min-w-0 px-4 py-6 print:p-0">
    {#if reading}<ReadAloud at={reading} label="Music of {title}" />{/if}
    <Pages
      bind:this={shown}
      {pages}
      {count}
      paper={choices.paper}
      {more}
      oncounted={(count) => (counted = { of: pages, count })}
    />
  </main>
</div>
