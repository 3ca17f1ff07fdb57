<script lang="ts">
  /** The practice room of a student: its link, who may enter, and how long was practised. */
  import { browser } from '$app/environment';
  import { enhance } from '$app/forms';
  import Qr from '$ui/room/Qr.svelte';
  import { stepInSentence } from '$core/lessons/steps';
  import { plural, shortDate, tempoText } from '$ui/text';
  import { toast } from 'svelte-sonner';

  let { data, form } = $props();
  const { learner } = $derived(data);
  const link = $derived(
    data.token && browser ? new URL(`/room/${data.token}`, location.href).href : undefined,
  );
  /** A phone can’t reach an address that means this computer itself. */
  const isOnlyHere = $derived(browser && /^(localhost|127\.|\[::1\])/.test(location.hostname));
  const most = $derived(Math.max(learner.minutesADay, ...data.days.map((d) => d.minutes)));
  const total = $derived(data.days.reduce((sum, d) => sum + d.minutes, 0));

  async function copy(): Promise<void> {
    if (!link) return;
    try {
      await navigator.clipboard.writeText(link);
      toast.success('Link copied.');
    } catch {
      toast(link, { duration: 20_000 });
    }
  }
</script>

<svelte:head><title>{learner.name}, practice room · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-3xl px-4 py-7 sm:px-7">
  <p class="print:hidden">
    <a class="text-quiet hover:text-ink" href="/learners/{learner.id}">{learner.name}</a>
  </p>
  <h1>Practice room</h1>
  <p class="mt-1 text-quiet">
    {learner.name} opens it on a phone, tablet or computer beside any piano. It shows the week’s steps, listens,
    and sends what was done.
  </p>
  {#if form && 'said' in form}<p class="mt-3" role="status">{form.said}</p>{/if}
  {#if form && 'message' in form}<p class="mt-3 text-alarm" role="alert">{form.message}</p>{/if}

  {#if data.token}
    <section class="mt-5 flex flex-wrap gap-6 border-t border-hairline pt-4" aria-labelledby="link">
      {#if link}<Qr {link} label="Code of the link for {learner.name}" />{/if}
      <div class="min-w-0 flex-1 basis-72">
        <h2 id="link">Link</h2>
        <p class="font-mono text-sm break-all"><a class="link" href="/room/{data.token}">{link ?? ''}</a></p>
        {#if isOnlyHere}
          <p class="mt-1 text-sm">
            This address works on this computer alone. Open Key Path by the address that phones in your
            network use, then the link and the code fit.
          </p>
        {/if}
        <p class="mt-1 text-sm text-quiet">
          Whoever has the link sees {learner.name}’s pieces and nothing else.
        </p>
        <div class="mt-3 flex flex-wrap gap-x-5 gap-y-2 print:hidden">
          <button type="button" class="link" onclick={copy}>Copy link</button>
          <form method="post" action="?/renew" use:enhance>
            <button class="link">Replace the link</button>
          </form>
          <form method="post" action="?/withdraw" use:enhance>
            <button class="link">Withdraw the link</button>
          </form>
        </div>
        <form
          method="post"
          action="?/pin"
          use:enhance
          class="mt-4 flex flex-wrap items-end gap-3 print:hidden"
        >
          <label class="grid"
            >PIN ({data.hasPin ? 'set' : 'optional'})
            <input
              class="field w-36"
              name="pin"
              inputmode="numeric"
              autocomplete="off"
              maxlength="8"
              placeholder={data.hasPin ? '••••' : ''}
            /></label
          >
          <button class="action">{data.hasPin ? 'Change the PIN' : 'Set a PIN'}</button>
          <span class="text-sm text-quiet">Leave empty for none.</span>
        </form>
      </div>
    </section>
  {:else}
    <form method="post" action="?/renew" use:enhance class="mt-5">
      <button class="action">Create the link</button>
    </form>
  {/if}

  <section class="mt-7 border-t border-hairline pt-4 print:hidden" aria-labelledby="home">
    <h2 id="home">Without a network</h2>
    <p class="text-quiet">
      One file with this week’s steps, the music and the sound of the piano; it listens to a keyboard or the
      microphone. It opens in any browser, also offline, and saves {learner.name}’s results until you add them
      here.
    </p>
    <p class="mt-3">
      <a class="action" href="/learners/{learner.id}/room/file" download>Take home</a>
    </p>
    <form
      method="post"
      action="?/results"
      enctype="multipart/form-data"
      use:enhance
      class="mt-4 grid max-w-xl gap-3"
      aria-label="Results from home"
    >
      <label class="grid"
        >Results from home, as a file <input
          class="field"
          type="file"
          name="file"
          accept=".txt,text/plain"
        /></label
      >
      <label class="grid"
        >or as text <textarea class="field h-20 font-mono text-sm" name="text" placeholder="kp1.…"
          >{form && 'typed' in form ? form.typed : ''}</textarea
        ></label
      >
      <div><button class="action">Add results</button></div>
    </form>
  </section>

  <section class="mt-7 border-t border-hairline pt-4" aria-labelledby="minutes">
    <h2 id="minutes">Minutes practiced, as measured</h2>
    <p class="text-quiet">
      {total === 0
        ? 'Nothing measured in the last four weeks.'
        : `${plural(total, 'minute')} in the last four weeks. The dashed line marks ${plural(learner.minutesADay, 'minute')} a day.`}
    </p>
    <ol class="relative mt-2 flex h-28 items-end gap-1 border-b border-ink" aria-label="Minutes by day">
      <li
        class="pointer-events-none absolute inset-x-0 border-t border-dashed border-field"
        style:bottom="{(learner.minutesADay / most) * 100}%"
        aria-hidden="true"
      ></li>
      {#each data.days as { day, minutes } (day)}
        <li
          class="flex h-full flex-1 flex-col justify-end"
          title="{shortDate(day)}: {plural(minutes, 'minute')}"
        >
          <span class="block bg-accent" style:height="{(minutes / most) * 100}%"></span>
          <span class="sr-only">{shortDate(day)}: {plural(minutes, 'minute')}</span>
        </li>
      {/each}
    </ol>
    <p class="flex justify-between text-sm text-quiet">
      <span>{shortDate(data.days[0]!.day)}</span><span>{shortDate(data.days.at(-1)!.day)}</span>
    </p>
  </section>

  {#if data.told.length > 0}
    <section class="mt-7 border-t border-hairline pt-4" aria-labelledby="told">
      <h2 id="told">Done at home</h2>
      <p class="text-quiet">
        What {learner.name} marked as done, and what the program heard. Your own entries are in the lessons.
      </p>
      <table class="mt-2 w-full text-sm">
        <thead class="sr-only"
          ><tr><th>Day</th><th>What</th><th>How it went</th><th>Who says so</th></tr></thead
        >
        <tbody>
          {#each data.told as line (line.id)}
            <tr class="border-t border-hairline align-baseline">
              <td class="py-1.5 pr-3 whitespace-nowrap text-quiet">{shortDate(line.day)}</td>
              <td class="py-1.5 pr-3">{line.title}, {line.where}: {stepInSentence(line.step)}</td>
              <td class="py-1.5 pr-3"
                >{[line.grade, line.tempo === null ? null : tempoText(line.time, line.tempo)]
                  .filter(Boolean)
                  .join(', ')}</td
              >
              <td class="py-1.5 whitespace-nowrap"
                >{line.by === 'ear' ? 'heard' : `${learner.name} says so`}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </section>
  {/if}

  <section class="mt-7 border-t border-hairline pt-4" aria-labelledby="parents">
    <h2 id="parents">For parents</h2>
    <p>
      The practice room keeps which steps were done and when, how many minutes were practiced, and which notes
      were right or wrong. It keeps no sound: what the microphone or the keyboard hears is judged on your
      device and then forgotten. A file taken home keeps the same in its browser. Nothing goes to anybody but
      the teacher’s own computer. The teacher can show you everything that is kept, give you a copy of it, and
      erase it.
    </p>
  </section>
</main>
