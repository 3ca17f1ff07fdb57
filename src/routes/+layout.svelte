<script lang="ts">
  import { navigating, page } from '$app/state';
  import Working from '$ui/waiting/Working.svelte';
  import { waiting } from '$ui/waiting/waiting.svelte';
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
{#if navigating.to}
  {@const { pathname } = navigating.to.url}
  {#key pathname}
    <div class="waits"><Working path={pathname} /></div>
  {/key}
{:else if waiting.file}
  {#key waiting.file}
    <div class="waits">
      <Working path={waiting.file.path} about={waiting.file.name} onend={() => (waiting.file = undefined)} />
    </div>
  {/key}
{/if}
<Toaster position="bottom-left" />
