<script lang="ts">
  import { enhance } from '$app/forms';
  import { stays } from '$ui/form/kept';
  import Once from '$ui/form/Once.svelte';
  import Was from '$ui/form/Was.svelte';
  import { levelText } from '$core/arrange/levels';
  import LevelForm from '$ui/settings/LevelForm.svelte';
  import { toast } from 'svelte-sonner';

  let { data, form } = $props();
  const problems = $derived<Record<string, string>>(form && 'problems' in form ? (form.problems ?? {}) : {});
  $effect(() => {
    if (form && 'saved' in form && form.saved !== undefined) toast.success('Saved.');
  });
</script>

<svelte:head><title>Levels · settings · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-6xl px-7 py-7">
  <h1>Levels</h1>
  <p class="mb-5 max-w-3xl text-quiet">
    A level is a set of limits; every version is checked against it. Changes apply to every version at that
    level the next time you open it.
  </p>
  <div class="grid gap-8 sm:grid-cols-[14rem_minmax(0,1fr)]">
    <nav aria-label="Levels" class="grid content-start">
      {#each data.levels as level (level.level)}
        <a
          href="?level={level.level}"
          aria-current={level.level === data.chosen.level ? 'page' : undefined}
          class="border-l-[3px] px-3 py-1.5 {level.level === data.chosen.level
            ? 'border-accent font-semibold'
            : 'border-hairline text-quiet hover:text-ink'}"
        >
          {levelText(level.level)}
          {level.name}
        </a>
      {/each}
      <form method="post" action="?/add&level={data.chosen.level}" class="mt-3">
        <Once />
        <button class="link">Add a level after {levelText(data.chosen.level)}</button>
      </form>
      {#if data.changed}
        <form method="post" action="?/reset" class="mt-2">
          <Was value={data.levels} />
          <button class="link">Reset to built-in levels</button>
        </form>
      {/if}
    </nav>

    <section aria-labelledby="chosen">
      <h2 id="chosen">{levelText(data.chosen.level)} {data.chosen.name}</h2>
      {#if form?.message}<p class="text-alarm" role="alert">{form.message}</p>{/if}
      {#key data.chosen}
        <form method="post" action="?/save&level={data.chosen.level}" use:enhance={stays} class="mt-3">
          <Was value={data.chosen} {form} />
          <LevelForm level={data.chosen} {problems} />
          <p class="mt-5 flex items-center gap-5">
            <button class="action">Save level</button>
            {#if data.levels.length > 1}
              <button class="link" formaction="?/remove&level={data.chosen.level}" formnovalidate>
                Delete level
              </button>
            {/if}
          </p>
        </form>
      {/key}
    </section>
  </div>
</main>
