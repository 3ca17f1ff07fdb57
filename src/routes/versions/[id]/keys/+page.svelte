<script lang="ts">
  import { goto } from '$app/navigation';
  import { levelText } from '$core/arrange/levels';
  import { editing } from '$core/edits/edit';
  import { serverStore } from '$ui/bench/state/store';
  import KeyRanking from '$ui/keys/KeyRanking.svelte';
  import { reachName } from '$ui/text';

  let { data } = $props();
  let problem = $state('');
  const recipe = $derived(data.saved.document.recipe);
  const hands = $derived.by(() => {
    const { left, right } = recipe.reach;
    return left === right ? reachName(left) : `${reachName(left)} (left) and ${reachName(right)} (right)`;
  });

  async function choose(key: string): Promise<void> {
    const { id } = data.version;
    const { patches } = editing(data.saved.document, (draft) => void (draft.recipe.key = key));
    try {
      if (patches.length > 0) await serverStore(id, data.saved.edit).save(patches, data.saved.edit);
      await goto(`/versions/${id}`, { invalidateAll: true });
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  }
</script>

<svelte:head><title>Keys for {data.version.title} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-7 py-7">
  <h1>Keys for {data.version.title}</h1>
  <p class="mb-5 text-quiet">
    At level {levelText(recipe.level)}, for a reach of {hands}, on {recipe.keyboard} keys{data.singer
      ? `, sung by ${data.singer.name}`
      : ''}. Every key is arranged and fingered. The shortest bar is the easiest.
    <a class="link" href="/versions/{data.version.id}">Back to the bench</a>
  </p>
  {#if problem}<p class="mb-3 text-alarm" role="alert">{problem}</p>{/if}
  <KeyRanking
    score={data.score}
    levels={data.levels}
    document={data.saved.document}
    voice={data.singer?.voice ?? null}
    mode={data.mode}
    current={data.current}
    does="Take"
    onchoose={choose}
  />
</main>
