<script lang="ts">
  import { page } from '$app/state';
  import Discard from '$ui/form/Discard.svelte';

  const title = $derived(
    page.status === 404
      ? 'Page not found'
      : page.error?.pieceId
        ? 'This can’t be read'
        : 'Something went wrong',
  );
</script>

<svelte:head><title>{title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-xl px-7 py-16">
  <h1>{title}</h1>
  {#if page.error?.message.replace(/\.$/, '') !== title}<p class="mt-3">{page.error?.message}</p>{/if}
  {#if page.error?.pieceId}
    <p class="mt-4">
      <a class="link" href="/pieces/{page.error.pieceId}/source" data-sveltekit-reload>
        Download the original file
      </a>
    </p>
    {#if page.route.id?.startsWith('/pieces')}
      <div class="mt-4"><Discard kind="piece" id={page.error.pieceId} label="this piece" /></div>
    {/if}
  {/if}
  <p class="mt-4"><a class="link" href="/">Back to Today</a></p>
</main>
