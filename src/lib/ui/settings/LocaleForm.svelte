<script lang="ts">
  /** How dates, times and notes are written, and on which paper; beside it the time zone. Proposed from the browser. */
  import { datesIn } from '$core/dates';
  import { isLanguage, proposedLocale, type Locale, type NoteNaming } from '$core/locale';
  import Was from '$ui/form/Was.svelte';
  import { enhance } from '$app/forms';
  import { untrack } from 'svelte';

  interface Props {
    locale: Locale;
    /** What goes for most in the browser's language. */
    proposed: Locale;
    languages: readonly string[];
    zone: string;
    zones: readonly string[];
    /** Asked for the first time. */
    isFirst?: boolean;
    form?: object | null | undefined;
  }
  let { locale, proposed, languages, zone, zones, isFirst = false, form }: Props = $props();

  let now = $state<Locale>(untrack(() => (isFirst ? proposed : locale)));
  let inZone = $state(untrack(() => zone));
  // The browser knows better than the server in which zone its user is.
  $effect(() => {
    if (isFirst) inZone = Intl.DateTimeFormat().resolvedOptions().timeZone || zone;
  });
  const names = new Intl.DisplayNames('en', { type: 'language', languageDisplay: 'standard' });
  const offered = $derived([...new Set([now.language, proposed.language, ...languages])].filter(isLanguage));
  const NAMINGS: readonly (readonly [NoteNaming, string])[] = [
    ['letters', 'C D E F G A B'],
    ['german', 'C D E F G A H (B for B♭)'],
    ['solfege', 'do re mi fa sol la si'],
  ];
  const dates = $derived(datesIn(now));
</script>

<form
  method="post"
  action="/settings/studio?/locale"
  class="grid gap-3"
  use:enhance={() =>
    async ({ result, update }) => {
      await update({ reset: false });
      // Everything on the page is written anew.
      if (result.type === 'success') location.reload();
    }}
>
  {#if !isFirst}<Was value={{ ...locale, zone }} {form} />{/if}
  <div class="flex flex-wrap gap-x-5 gap-y-3">
    <label class="grid"
      >Dates in
      <select
        name="language"
        class="field"
        value={now.language}
        onchange={(event) => (now = proposedLocale(event.currentTarget.value))}
      >
        {#each offered as tag (tag)}<option value={tag}>{names.of(tag)}</option>{/each}
      </select></label
    >
    <label class="grid"
      >Week starts on
      <select name="firstDay" class="field" bind:value={now.firstDay}>
        {#each [1, 6, 7] as day (day)}<option value={day}>{dates.weekday(day)}</option>{/each}
      </select></label
    >
    <label class="grid"
      >Clock
      <select name="hours" class="field" bind:value={now.hours}>
        <option value={24}>24 hours</option><option value={12}>12 hours</option>
      </select></label
    >
    <label class="grid"
      >Time zone
      <select name="zone" class="field" bind:value={inZone}>
        {#each [...new Set([inZone, ...zones])] as name (name)}<option value={name}
            >{name.replaceAll('_', ' ')}</option
          >{/each}
      </select></label
    >
    <label class="grid"
      >Note names
      <select name="noteNames" class="field" bind:value={now.noteNames}>
        {#each NAMINGS as [id, says] (id)}<option value={id}>{says}</option>{/each}
      </select></label
    >
    <label class="grid"
      >Paper
      <select name="paper" class="field" bind:value={now.paper}>
        <option value="a4">A4</option><option value="letter">Letter</option>
      </select></label
    >
  </div>
  <p class="text-quiet">For example: {dates.long('2026-11-26')}, {dates.time('16:30')}.</p>
  <div><button class={isFirst ? 'action' : 'link'}>{isFirst ? 'Use these' : 'Save'}</button></div>
</form>
