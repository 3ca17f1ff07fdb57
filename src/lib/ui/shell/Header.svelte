<script lang="ts">
  import { page } from '$app/state';
  import HelpButton from '$ui/help/HelpButton.svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    studio: string;
    /** Replaces the navigation on workplaces that need the room. */
    trail?: Snippet;
  }
  let { studio, trail }: Props = $props();
  let showsMore = $state(false);
  /** What is asked for every day. */
  const OFTEN = ['/', '/learners', '/pieces'];
  const places = [
    { href: '/', name: 'Today' },
    { href: '/learners', name: 'Students' },
    { href: '/pieces', name: 'Pieces' },
    { href: '/settings/levels', name: 'Levels' },
    { href: '/settings/patterns', name: 'Patterns' },
    { href: '/settings/hand', name: 'Fingering' },
    { href: '/settings/studio', name: 'Studio' },
  ];
  /** Pages that have no place of their own in the navigation belong to another one's. */
  const BELONGS: Readonly<Record<string, readonly string[]>> = {
    '/': ['/week', '/lessons'],
    '/learners': ['/learners', '/classes', '/assignments'],
  };
  const isHere = (href: string): boolean =>
    page.url.pathname === href ||
    (BELONGS[href] ?? [href]).some((place) => page.url.pathname.startsWith(place));
</script>

<header
  class="flex min-h-12 items-center gap-x-6 border-b border-hairline px-4 sm:flex-wrap sm:px-7 print:hidden"
>
  <a class="flex items-center font-bold whitespace-nowrap max-sm:hidden" href="/">Key Path</a>
  {#if trail}
    {@render trail()}
  {:else}
    <nav aria-label="Main" class="flex w-full gap-x-4 sm:w-auto sm:flex-wrap sm:gap-x-6">
      {#each places as place (place.href)}
        {@render link(place, OFTEN.includes(place.href) ? '' : 'max-sm:hidden')}
      {/each}
      <!-- What is seldom asked for waits behind one word where there is no room. -->
      <details class="relative ml-auto sm:hidden" bind:open={showsMore}>
        <summary class="flex cursor-pointer list-none items-center px-1 py-2">More</summary>
        <div
          class="absolute top-full right-0 z-20 grid min-w-44 rounded-md border border-hairline bg-paper px-3 shadow-md"
        >
          {#each places.filter((p) => !OFTEN.includes(p.href)) as place (place.href)}
            {@render link(place, '')}
          {/each}
          {@render link({ href: '/help', name: 'Help' }, '')}
        </div>
      </details>
    </nav>
    <span class="ml-auto hidden items-center gap-3 text-quiet sm:flex">{studio} <HelpButton /></span>
  {/if}
</header>

{#snippet link(place: { href: string; name: string }, more: string)}
  <a
    href={place.href}
    aria-current={isHere(place.href) ? 'page' : undefined}
    onclick={() => (showsMore = false)}
    class="flex items-center border-b-2 py-2 {isHere(place.href)
      ? 'border-ink'
      : 'border-transparent text-quiet hover:text-ink'} {more}"
  >
    {place.name}
  </a>
{/snippet}
