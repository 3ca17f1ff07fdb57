<script lang="ts">
  import { goto } from '$app/navigation';
  import { levelText } from '$core/arrange/levels';
  import { saveVersion } from '$ui/bench/save';
  import KeyRanking from '$ui/keys/KeyRanking.svelte';
  import { reachName } from '$ui/text';

  let { data } = $props();
  let problem = $state('');
  const hands = $derived.by(() => {
    const { left, right } = data.version.recipe.reach;
    return left === right ? reachName(left) : `${reachName(left)} (left) and ${reachName(right)} (right)`;
  });

  async function choose(key: string): Promise<void> {
    const { recipe, decisions, revision, id } = data.version;
    try {
      await saveVersion(id, { recipe: { ...recipe, key }, decisions }, revision);
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
    At level {levelText(data.version.recipe.level)}, for hands that reach {hands}, on {data.version.recipe
      .keyboard} keys{data.singer ? `, sung by ${data.singer.name}` : ''}. Every key is arranged and fingered;
    the shortest bar is the easiest.
    <a class="link" href="/versions/{data.version.id}">Back to the bench</a>
  </p>
  {#if problem}<p class="mb-3 text-alarm" role="alert">{problem}</p>{/if}
  <KeyRanking
    source={data.source}
    levels={data.levels}
    recipe={data.version.recipe}
    voice={data.singer?.voice ?? null}
    mode={data.mode}
    current={data.current}
    does="Take"
    onchoose={choose}
  />
</main>
