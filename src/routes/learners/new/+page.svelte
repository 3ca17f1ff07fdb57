<script lang="ts">
  import LearnerForm from '$ui/learner/LearnerForm.svelte';

  let { data, form } = $props();
</script>

<svelte:head><title>New student · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-7 py-7">
  <h1 class="mb-5">A new student</h1>
  <LearnerForm action="" button="Add" levels={data.levels} problems={form?.problems} />
</main>
