<script lang="ts">
  import { goto } from '$app/navigation';
  import { levelText } from '$core/arrange/levels';
  import Once from '$ui/form/Once.svelte';
  import KeyRanking from '$ui/keys/KeyRanking.svelte';
  import { tick } from 'svelte';

  let { data, form } = $props();
  let making = $state<HTMLFormElement>();
  let key = $state('');

  async function choose(chosen: string): Promise<void> {
    key = chosen;
    await tick();
    making?.requestSubmit();
  }
  const show = (change: Record<string, string>): Promise<void> =>
    goto(
      `?${new URLSearchParams({ learner: data.learner, level: String(data.document.recipe.level), ...change })}`,
      {
        keepFocus: true,
        noScroll: true,
      },
    );
</script>

<svelte:head><title>Keys for {data.piece.title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-7 py-7">
  <h1>Keys for {data.piece.title}</h1>
  <div class="my-3 flex flex-wrap items-end gap-5">
    <label class="grid text-sm text-quiet">
      For
      <select
        class="field text-base text-ink"
        value={data.learner}
        onchange={(event) => {
          const learner = event.currentTarget.value;
          const level = data.learners.find((l) => l.id === learner)?.level ?? data.document.recipe.level;
          void show({ learner, level: String(level) });
        }}
      >
        <option value="">Anyone (an octave, 61 keys)</option>
        {#each data.learners as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </select>
    </label>
    <label class="grid text-sm text-quiet">
      At level
      <select
        class="field text-base text-ink"
        value={data.document.recipe.level}
        onchange={(event) => void show({ level: event.currentTarget.value })}
      >
        {#each data.levels as { level, name } (level)}
          <option value={level}>{levelText(level)} {name}</option>
        {/each}
      </select>
    </label>
    <a class="link" href="/pieces/{data.piece.id}">Back to the piece</a>
  </div>
  {#if form?.message}<p class="text-alarm" role="alert">{form.message}</p>{/if}
  <KeyRanking
    score={data.score}
    levels={data.levels}
    document={data.document}
    voice={data.voice}
    mode={data.mode}
    current={data.current}
    does="Make a version in"
    onchoose={choose}
  />
  <form
    method="post"
    action="?/version&learner={data.learner}&level={data.document.recipe.level}"
    bind:this={making}
  >
    <Once />
    <input type="hidden" name="key" value={key} />
  </form>
</main>
