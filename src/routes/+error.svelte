<script lang="ts">
  import { page } from '$app/state';
</script>

<main id="main" class="mx-auto max-w-xl px-7 py-16">
  <h1>{page.status === 404 ? 'Not here' : 'That did not work'}</h1>
  <p class="mt-3">{page.error?.message}</p>
  <p class="mt-4"><a class="link" href="/">Back to today</a></p>
</main>
