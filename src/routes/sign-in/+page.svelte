<script lang="ts">
  import { page } from '$app/state';

  let { data, form } = $props();
  const to = $derived(page.url.searchParams.get('to') ?? '/');
</script>

<svelte:head><title>Sign in · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-md px-7 py-16">
  <h1>Sign in to the studio</h1>
  {#if data.hasPassphrase}
    <form method="post" action="?/enter&to={encodeURIComponent(to)}" class="mt-5 grid gap-3">
      <label class="grid">
        The studio's passphrase
        <input type="password" name="passphrase" class="field" autocomplete="current-password" required />
      </label>
      {#if form?.message}<p class="text-alarm" role="alert">{form.message}</p>{/if}
      <div><button class="action">Sign in</button></div>
    </form>
  {:else}
    <p class="mt-3">
      Other computers can reach this studio, but it has no passphrase. Set one on the computer that it runs
      on:
    </p>
    <p class="mt-3 font-mono">./keypath passphrase</p>
  {/if}
</main>
