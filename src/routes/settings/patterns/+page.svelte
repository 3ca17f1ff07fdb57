<script lang="ts">
  import { enhance } from '$app/forms';

  let { data, form } = $props();
  const values = $derived<Record<string, string> | undefined>(
    form && 'values' in form ? form.values : undefined,
  );
  const HANDS = { left: 'Left hand', right: 'Right hand of sung chords' } as const;
</script>

<svelte:head><title>Patterns · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-3xl px-7 py-7">
  <h1>Patterns</h1>
  <p class="mt-1 text-quiet">
    Your own left-hand patterns and chord rhythms. Each is offered on the bench beside the built-in ones and
    follows every chord. A version keeps the pattern it plays, even if you remove it here.
  </p>
  {#if form && 'said' in form}<p class="mt-3" role="status">{form.said}</p>{/if}
  {#if form && 'message' in form}<p class="mt-3 text-alarm" role="alert">{form.message}</p>{/if}

  {#if data.patterns.length === 0}
    <p class="mt-4">No patterns yet.</p>
  {:else}
    <ul class="mt-4">
      {#each data.patterns as { hand, text, name, steps } (hand + text)}
        <li class="flex flex-wrap items-baseline gap-x-4 border-t border-hairline py-2">
          <span class="font-semibold">{name}</span>
          <span class="font-mono text-sm">{steps}</span>
          <span class="text-sm text-quiet">{HANDS[hand]}</span>
          <form method="post" action="?/remove" use:enhance class="ml-auto">
            <input type="hidden" name="hand" value={hand} />
            <input type="hidden" name="text" value={text} />
            <button class="link text-sm" aria-label="Remove {name}">Remove</button>
          </form>
        </li>
      {/each}
    </ul>
  {/if}

  <section class="mt-8 border-t border-hairline pt-3" aria-labelledby="new">
    <h2 id="new">New pattern</h2>
    <form method="post" action="?/add" use:enhance class="mt-2 grid gap-3 sm:grid-cols-2">
      <label class="grid"
        >Name <input class="field" name="name" required maxlength="40" value={values?.name ?? ''} /></label
      >
      <label class="grid"
        >Hand <select class="field" name="hand" value={values?.hand ?? 'left'}>
          <option value="left">{HANDS.left}</option>
          <option value="right">{HANDS.right}</option>
        </select></label
      >
      <label class="grid sm:col-span-2"
        >Steps <input
          class="field font-mono"
          name="steps"
          required
          maxlength="400"
          aria-describedby="steps-like"
          value={values?.steps ?? ''}
        /></label
      >
      <p id="steps-like" class="text-sm text-quiet sm:col-span-2">
        For example <span class="font-mono">eighths 1 5 8 5</span>. 1, 3, 5 and 7 are the chord from its bass
        up; 8 is an octave above 1, <span class="font-mono">5,</span> an octave below 5; 2, 4 and 6 are notes
        of the key. <span class="font-mono">1+5</span> together, <span class="font-mono">.</span> continues,
        <span class="font-mono">-</span> rests. Add <span class="font-mono">nearest</span> to follow the nearest
        inversion.
      </p>
      <p><button class="action">Save pattern</button></p>
    </form>
  </section>
</main>
