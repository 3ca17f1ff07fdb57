<script lang="ts">
  import { page } from '$app/state';
  import { levelText } from '$core/arrange/levels';
  import Discard from '$ui/form/Discard.svelte';
  import Bring from '$ui/piece/Bring.svelte';
  import { metreText, plural } from '$ui/text';

  let { data } = $props();
</script>

<svelte:head><title>Pieces · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-7 py-7">
  <h1>Pieces</h1>
  <div class="mt-5"><Bring rights={data.rights} message={page.form?.message} /></div>

  <ul class="mt-6">
    {#each data.pieces as piece (piece.id)}
      <li class="grid grid-cols-[minmax(0,1fr)_auto] gap-4 border-t border-hairline py-3.5">
        <div>
          <a href="/pieces/{piece.id}" class="text-lg font-semibold hover:text-accent">{piece.title}</a>
          {#if 'problem' in piece}
            <div class="text-alarm">
              It cannot be read: {piece.problem}
              <a class="link" href="/pieces/{piece.id}/source">Take its file away</a>
              <Discard kind="piece" id={piece.id} label={piece.title} />
            </div>
          {:else}
            <p class="text-quiet">
              {piece.key}, {metreText(piece.time)}. {piece.newMeasures} of {plural(piece.measures, 'measure')} are
              new.
            </p>
          {/if}
        </div>
        <p class="text-right text-quiet">
          {#each piece.levels as { level, count, newest } (level)}
            <a class="link ml-4" href={count === 1 ? `/versions/${newest}` : `/pieces/${piece.id}#versions`}
              >level {levelText(level)}{count > 1 ? `, ${count} versions` : ''}</a
            >
          {:else}
            no version yet
          {/each}
        </p>
      </li>
    {:else}
      <li class="border-t border-hairline py-4 text-quiet">
        The pieces you teach stand here, each with its versions. Bring the first one above.
      </li>
    {/each}
  </ul>
</main>
