<script lang="ts">
  /** A class: who is how far, what it can play together now, and a set of parts. */
  import { levelText } from '$core/arrange/levels';
  import { kept } from '$ui/form/kept';
  import ClassForm from '$ui/learner/ClassForm.svelte';
  import NextStep from '$ui/learner/NextStep.svelte';
  import Path from '$ui/path/Path.svelte';
  import { measuresBetween, plural, progressText, tempoText, toBeats } from '$ui/text';

  let { data, form } = $props();
  const without = $derived(data.members.filter((m) => !m.part));
  const time = $derived(data.members.find((m) => m.part)?.part?.time);
  const together = $derived(data.sections.filter((s) => s.cannot.length === 0));
</script>

<svelte:head><title>{data.group.name} · Key Path</title></svelte:head>

<main id="main" class="mx-auto max-w-5xl px-4 py-7 sm:px-7">
  <h1>{data.group.name}</h1>
  <p class="text-quiet">
    {data.title ?? 'No piece'}, {plural(data.members.length, 'student')}, each at their own level.
  </p>

  {#if data.sections.length > 0}
    <section class="mt-5 border-l-[3px] border-accent py-1 pl-4" aria-labelledby="together">
      <h2 id="together">Together now</h2>
      <p>
        {together.length > 0
          ? `Everyone can play ${together.map((s) => `${s.label} (${measuresBetween(s.numbers)})`).join(', ')}`
          : 'No section is ready for everyone yet'}{data.tempo && time && together.length > 0
          ? `, up to ${tempoText(time, data.tempo)}`
          : ''}.
      </p>
      <ul class="mt-1">
        {#each data.sections.filter((s) => s.cannot.length > 0) as section (section.label + section.numbers[0])}
          <li class="text-quiet">
            {section.label}, {measuresBetween(section.numbers)}: not ready: {section.cannot.join(
              ', ',
            )}{section.can.length > 0 ? `; ready: ${section.can.join(', ')}` : ''}.
          </li>
        {/each}
      </ul>
    </section>
  {/if}

  <ul class="mt-5">
    {#each data.members as member (member.id)}
      <li class="border-t border-hairline py-3" aria-label={member.name}>
        <div class="flex flex-wrap items-baseline gap-x-3">
          <h2><a class="hover:text-accent" href="/learners/{member.id}">{member.name}</a></h2>
          {#if member.part}
            <span class="text-quiet"
              >level {levelText(member.part.level)}; {progressText(member.part)}{member.part.reachedTempo
                ? `, up to ${tempoText(member.part.time, member.part.reachedTempo)} of ${toBeats(member.part.time, member.part.goalTempo)}`
                : ''}</span
            >
            <span class="ml-auto flex gap-4">
              <a class="link" href="/versions/{member.part.versionId}/handout">Part</a>
              <form method="post" action="?/begin">
                <input type="hidden" name="learner" value={member.id} /><button class="link">Lesson</button>
              </form>
            </span>
          {:else}<span class="text-quiet">no version yet</span>{/if}
        </div>
        {#if member.part}
          <Path
            form={member.part.form}
            numbers={member.part.numbers}
            difficulty={member.part.difficulty}
            states={member.part.states}
            label="{member.name}: {progressText(member.part)}"
            small
          />
          <p class="text-quiet">Next: <NextStep time={member.part.time} next={member.part.next} /></p>
        {/if}
      </li>
    {:else}
      <li class="border-t border-hairline py-3 text-quiet">Choose a piece and students.</li>
    {/each}
  </ul>

  <section class="mt-4 border-t border-hairline pt-3" aria-labelledby="parts">
    <h2 id="parts">Parts</h2>
    {#if without.length > 0 && data.group.piece}
      <form method="post" action="?/give" use:kept class="mt-1">
        {without.map((m) => m.name).join(', ')}
        {without.length === 1 ? 'has' : 'have'} no part yet.
        <button class="link"
          >Make {without.length === 1 ? 'a part' : 'parts'} at {without.length === 1
            ? 'this level'
            : 'their levels'}</button
        >
      </form>
    {/if}
    {#if data.members.some((m) => m.part)}
      <p><a class="link" href="/classes/{data.group.id}/handout">Print for everyone</a></p>
    {/if}
    <p class="flex flex-wrap gap-x-5">
      {#each data.members.filter((m) => m.part) as member (member.id)}
        <a class="link" href="/versions/{member.part!.versionId}/handout"
          >{member.name}, level {levelText(member.part!.level)}</a
        >
      {/each}
    </p>
  </section>

  <details class="mt-6 border-t border-hairline pt-3" open={!!form?.message}>
    <summary class="cursor-pointer text-quiet hover:text-ink">Change the class</summary>
    <div class="mt-3">
      <ClassForm
        values={{ name: data.group.name, piece: data.group.piece, members: data.inGroup }}
        action="?/change"
        button="Save"
        {form}
        learners={data.learners}
        pieces={data.pieces}
        message={form?.message}
      />
      <form method="post" action="?/remove" class="mt-4">
        <button class="link">Delete class</button>
        <span class="text-quiet">Students keep their progress.</span>
      </form>
    </div>
  </details>
</main>
