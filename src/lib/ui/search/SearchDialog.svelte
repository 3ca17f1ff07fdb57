<script lang="ts">
  /** One search for everything: students, classes, pieces, versions, actions and pages. */
  import { goto } from '$app/navigation';
  import { help } from '$ui/help/help.svelte';
  import { Command, Dialog } from 'bits-ui';
  import { onMount } from 'svelte';
  import { foundSchema, groupsOf, sought, type Entry, type Group } from './found';
  import { search } from './search.svelte';

  let text = $state('');
  let groups = $state.raw<readonly Group[]>(
    groupsOf({ students: [], classes: [], pieces: [], versions: [] }),
  );
  let problem = $state('');
  const shown = $derived(sought(groups, text));
  let lesson = $state<HTMLFormElement>();
  let student = $state('');

  onMount(async () => {
    try {
      const answer = await fetch('/find');
      groups = groupsOf(foundSchema.parse(await answer.json()));
    } catch (error) {
      console.error(error);
      problem = 'You’re offline: only actions and pages are listed.';
    }
  });

  function take({ href, act, student: whose }: Entry): void {
    search.open = false;
    if (act === 'help') help.open = true;
    else if (act === 'metronome') search.metronome = true;
    else if (act === 'lesson' && whose) {
      student = whose;
      queueMicrotask(() => lesson?.requestSubmit());
    } else if (href) void goto(href);
  }
</script>

<form method="post" action="/?/begin" bind:this={lesson} class="hidden">
  <input type="hidden" name="learner" value={student} />
</form>
<Dialog.Root bind:open={search.open}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed top-12 left-1/2 z-40 flex max-h-[calc(100dvh-5rem)] w-[34rem] max-w-[calc(100vw-1.5rem)] -translate-x-1/2 flex-col gap-2 rounded-lg border border-hairline bg-paper p-4"
    >
      <Dialog.Title class="sr-only">Search</Dialog.Title>
      <Dialog.Description class="sr-only">Students, pieces, versions, pages and actions.</Dialog.Description>
      <Command.Root class="flex min-h-0 flex-col gap-2" label="Search" shouldFilter={false}>
        <Command.Input
          bind:value={text}
          class="field text-base"
          placeholder="Students, pieces, versions, pages, actions"
          aria-label="Search"
          autofocus
          data-keys-home
        />
        {#if problem}<p class="px-2 text-sm text-alarm" role="alert">{problem}</p>{/if}
        <Command.List class="min-h-0 overflow-y-auto">
          <Command.Viewport>
            {#each shown as { name, entries } (name)}
              <Command.Group>
                <Command.GroupHeading class="px-2 pt-2 text-sm font-semibold">{name}</Command.GroupHeading>
                <Command.GroupItems>
                  {#each entries as entry (entry.name + (entry.href ?? entry.student ?? ''))}
                    <Command.Item
                      class="flex min-h-8 cursor-pointer items-center gap-3 rounded-sm px-2 py-0.5 data-selected:bg-accent-soft"
                      value="{name} {entry.name} {entry.href ?? entry.student ?? ''}"
                      onSelect={() => take(entry)}
                    >
                      {entry.name}
                      {#if entry.note}<span class="ml-auto text-sm text-quiet">{entry.note}</span>{/if}
                    </Command.Item>
                  {/each}
                </Command.GroupItems>
              </Command.Group>
            {:else}
              <p class="p-2 text-quiet" role="status">Nothing found.</p>
            {/each}
          </Command.Viewport>
        </Command.List>
      </Command.Root>
      <Dialog.Close class="link self-start text-sm">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
