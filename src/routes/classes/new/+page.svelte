<script lang="ts">
  import ClassForm from '$ui/learner/ClassForm.svelte';

  let { data, form } = $props();
</script>

<svelte:head><title>New class · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-4 py-7 sm:px-7">
  <h1 class="mb-1">A new class</h1>
  <p class="mb-5 text-quiet">Several students, one piece, each at their own level.</p>
  <ClassForm action="" button="Add" learners={data.learners} pieces={data.pieces} message={form?.message} />
</main>
