<script lang="ts">
  import Help from '$ui/help/Help.svelte';
  import { SCREENS } from '$ui/help/screens';
</script>

<svelte:head><title>Help · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-3xl px-4 py-7 sm:px-7">
  <h1>Help</h1>
  <div class="mt-4"><Help screens={SCREENS} /></div>
</main>
