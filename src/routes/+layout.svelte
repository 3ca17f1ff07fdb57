<script lang="ts">
  import { page } from '$app/state';
  import Header from '$ui/shell/Header.svelte';
  import { Toaster } from 'svelte-sonner';
  import { onMount } from 'svelte';
  import './app.css';

  let { data, children } = $props();
  // Says that buttons that work by script do.
  onMount(() => document.documentElement.setAttribute('data-ready', ''));
  /** The bench brings a header of its own, with its controls; a handout is paper. */
  const ownHeader = $derived(/^\/versions\/[^/]+(\/handout)?$/.test(page.url.pathname));
</script>

{#if !ownHeader}
  <a class="sr-only focus:not-sr-only" href="#main">To the content</a>
  <Header studio={data.studio} />
{/if}
{@render children()}
<Toaster position="bottom-left" />
