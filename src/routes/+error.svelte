<script lang="ts">
  import { page } from '$app/state';
  import Discard from '$ui/form/Discard.svelte';
</script>

<main id="main" class="mx-auto max-w-xl px-7 py-16">
  <h1>
    {page.status === 404
      ? 'Page not found'
      : page.error?.pieceId
        ? 'This can’t be read'
        : 'Something went wrong'}
  </h1>
  <p class="mt-3">{page.error?.message}</p>
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
