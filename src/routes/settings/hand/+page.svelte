<script lang="ts">
  import { enhance } from '$app/forms';
  import { capital, plural } from '$ui/text';

  let { data, form } = $props();

  const SHARES = [
    { value: 1, says: 'As learned' },
    { value: 0.5, says: 'Half as strongly' },
    { value: 0, says: 'Not at all' },
  ] as const;
</script>

<svelte:head><title>Fingering preferences · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-3xl px-7 py-7">
  <h1>Fingering preferences</h1>
  <p class="mt-1 text-quiet">
    Key Path learns from the fingers you choose. Scales, arpeggios and chords keep their standard fingering,
    and nothing a hand can’t do is suggested. A version keeps the preferences it was made with, so nothing
    changes under a student’s fingers.
  </p>
  {#if form && 'said' in form}<p class="mt-3" role="status">{form.said}</p>{/if}
  {#if form && 'message' in form}<p class="mt-3 text-alarm" role="alert">{form.message}</p>{/if}

  <p class="mt-4">
    {data.decisions === 0
      ? 'Nothing learned yet. Key Path starts with the fingers you choose on the bench.'
      : data.decisions < data.fewest
        ? `Seen so far: ${plural(data.decisions, 'chosen finger')}. From ${data.fewest} on, suggestions follow them.`
        : `Learned from ${plural(data.decisions, 'chosen finger')}.`}
  </p>

  {#if data.habits.length > 0}
    <h2 class="mt-6">What Key Path has learned</h2>
    <ul class="mt-1">
      {#each data.habits as habit (habit.key)}
        <li class="grid grid-cols-[minmax(0,1fr)_6rem_auto] items-center gap-4 border-t border-hairline py-2">
          <span>{capital(habit.text)}</span>
          <span
            class="h-2 bg-hairline"
            role="img"
            aria-label="{Math.round(habit.strength * habit.share * 100)} of 100"
            ><span class="block h-2 bg-accent" style:width="{habit.strength * habit.share * 100}%"
            ></span></span
          >
          <form method="post" action="?/share" use:enhance>
            <input type="hidden" name="key" value={habit.key} />
            <select
              name="share"
              class="field"
              aria-label="How strongly to follow it: {habit.text}"
              value={String(habit.share)}
              onchange={(event) => event.currentTarget.form?.requestSubmit()}
            >
              {#each SHARES as { value, says } (value)}<option value={String(value)}>{says}</option>{/each}
            </select>
            <noscript><button class="link">Save</button></noscript>
          </form>
        </li>
      {/each}
    </ul>
  {/if}

  <div class="mt-6 flex flex-wrap gap-6 border-t border-hairline pt-3">
    <form method="post" action="?/turn" use:enhance>
      <input type="hidden" name="on" value={data.isOn ? 'no' : 'yes'} />
      <button class="link">{data.isOn ? 'Make new versions without it' : 'Use it in new versions'}</button>
    </form>
    {#if data.decisions > 0}
      <form method="post" action="?/forget" use:enhance>
        <button class="link">Reset fingering preferences</button>
      </form>
    {/if}
  </div>
</main>
