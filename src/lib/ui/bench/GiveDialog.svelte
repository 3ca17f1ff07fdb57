<script lang="ts">
  /** Assigning the version: to one student or several, found by typing; a new one is added here. */
  import { enhance } from '$app/forms';
  import { levelText } from '$core/arrange/levels';
  import Once from '$ui/form/Once.svelte';
  import { plural } from '$ui/text';
  import { Dialog } from 'bits-ui';

  interface Props {
    open: boolean;
    level: number;
    /** Who has just been given it: their plans are the next click. */
    plans: readonly { readonly name: string; readonly assignment: string }[];
    learners: readonly { id: string; name: string; level: number; has: boolean; isNewest: boolean }[];
  }
  let { learners, level, plans, open = $bindable() }: Props = $props();

  let sought = $state('');
  let chosen = $state<string[]>([]);
  const seen = $derived(
    learners.filter(({ name }) => name.toLowerCase().includes(sought.trim().toLowerCase())),
  );
  const names = $derived(learners.filter(({ id }) => chosen.includes(id)).map(({ name }) => name));
  const button = $derived(
    names.length === 0
      ? 'Assign'
      : names.length === 1
        ? `Assign to ${names[0]}`
        : `Assign to ${plural(names.length, 'student')}`,
  );
  /** From so many students on they are searched. */
  const MANY = 7;
</script>

<Dialog.Root
  bind:open
  onOpenChange={() => {
    sought = '';
    chosen = [];
  }}
>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed top-16 left-1/2 z-40 flex max-h-[calc(100dvh-6rem)] w-[28rem] max-w-[calc(100vw-1.5rem)] -translate-x-1/2 flex-col rounded-lg border border-hairline bg-paper p-6 max-desk:p-4"
    >
      <Dialog.Title class="text-lg font-bold">Assign this version to…</Dialog.Title>
      <Dialog.Description class="mb-3 text-quiet"
        >It appears in the student’s pieces, with its practice plan.</Dialog.Description
      >
      {#if plans.length > 0}
        <p class="mb-3 border-l-[3px] border-accent pl-3">
          Next:
          {#each plans as { name, assignment } (assignment)}
            <a class="link mr-3" href="/assignments/{assignment}">{name}’s practice plan</a>
          {/each}
        </p>
      {/if}
      {#if learners.length > 0}
        {#if learners.length >= MANY}
          <input
            class="field mb-2"
            type="search"
            aria-label="Find a student"
            placeholder="Find a student"
            data-keys-home
            bind:value={sought}
          />
        {/if}
        <form
          method="post"
          action="?/give"
          class="flex min-h-0 flex-col"
          use:enhance={() =>
            ({ update }) => {
              chosen = [];
              return update({ reset: false });
            }}
        >
          {#each chosen as id (id)}<input type="hidden" name="learner" value={id} />{/each}
          <ul class="grid min-h-0 content-start overflow-y-auto">
            {#each seen as learner (learner.id)}
              <li class="border-t border-hairline">
                <label class="flex min-h-10 items-center gap-3">
                  {#if learner.has && learner.isNewest}<span class="w-4"></span>{:else}
                    <input type="checkbox" class="tick" value={learner.id} bind:group={chosen} />
                  {/if}
                  <span
                    ><strong>{learner.name}</strong>
                    <span class="text-quiet">level {levelText(learner.level)}</span></span
                  >
                  <span class="ml-auto text-sm text-quiet"
                    >{learner.has ? (learner.isNewest ? 'assigned' : 'has an earlier state') : ''}</span
                  >
                </label>
              </li>
            {:else}<li class="py-2 text-quiet">No students match.</li>{/each}
          </ul>
          <div class="border-t border-hairline pt-3">
            <button class="action" disabled={chosen.length === 0}>{button}</button>
          </div>
        </form>
      {/if}
      <form method="post" action="?/giveNew" use:enhance class="mt-3 flex items-end gap-3">
        <Once />
        <label class="grid min-w-0 flex-1 text-sm text-quiet"
          >{learners.length === 0 ? 'Your first student’s name' : 'Or add a student'}
          <input
            name="name"
            class="field text-base text-ink"
            required
            maxlength="80"
            autocomplete="off"
          /></label
        >
        <button class={learners.length === 0 ? 'action' : 'link mb-1'}>Add and assign</button>
      </form>
      <p class="mt-1 text-sm text-quiet">
        A new student starts at level {levelText(level)}. Reach and keyboard can be set later.
      </p>
      <Dialog.Close class="mt-3 link self-start">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
