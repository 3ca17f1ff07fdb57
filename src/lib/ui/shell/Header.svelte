<script lang="ts">
  import { page } from '$app/state';
  import type { Snippet } from 'svelte';

  interface Props {
    studio: string;
    /** Replaces the navigation on workplaces that need the room. */
    trail?: Snippet;
  }
  let { studio, trail }: Props = $props();
  const places = [
    { href: '/', name: 'Today' },
    { href: '/learners', name: 'Students' },
    { href: '/pieces', name: 'Pieces' },
    { href: '/settings/levels', name: 'Levels' },
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
  class="flex min-h-12 flex-wrap items-center gap-x-6 border-b border-hairline px-4 sm:px-7 print:hidden"
>
  <a class="font-bold whitespace-nowrap" href="/">Key Path</a>
  {#if trail}
    {@render trail()}
  {:else}
    <nav aria-label="Main" class="flex flex-wrap gap-x-4 sm:gap-x-6">
      {#each places as place (place.href)}
        <a
          href={place.href}
          aria-current={isHere(place.href) ? 'page' : undefined}
          class="border-b-2 py-2 {isHere(place.href)
            ? 'border-ink'
            : 'border-transparent text-quiet hover:text-ink'}"
        >
          {place.name}
        </a>
      {/each}
    </nav>
    <span class="ml-auto hidden text-quiet sm:inline">{studio}</span>
  {/if}
</header>
