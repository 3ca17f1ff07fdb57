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
    { href: '/learners', name: 'Learners' },
    { href: '/pieces', name: 'Pieces' },
    { href: '/settings/levels', name: 'Levels' },
    { href: '/settings/hand', name: 'Fingering' },
    { href: '/settings/studio', name: 'Studio' },
  ];
  const isHere = (href: string): boolean =>
    href === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(href);
</script>

<header class="flex min-h-12 items-center gap-6 border-b border-hairline px-7 print:hidden">
  <a class="font-bold whitespace-nowrap" href="/">Key Path</a>
  {#if trail}
    {@render trail()}
  {:else}
    <nav aria-label="Main" class="flex gap-6">
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
    <span class="ml-auto text-quiet">{studio}</span>
  {/if}
</header>
