<script lang="ts">
  /** Giving the version to a learner. */
  import { enhance } from '$app/forms';
  import { Dialog } from 'bits-ui';

  interface Props {
    open: boolean;
    learners: readonly { id: string; name: string; level: number; has: boolean; isNewest: boolean }[];
  }
  let { learners, open = $bindable() }: Props = $props();
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-shade" />
    <Dialog.Content
      class="fixed top-24 left-1/2 z-40 w-[26rem] -translate-x-1/2 rounded-lg border border-hairline bg-paper p-6"
    >
      <Dialog.Title class="text-lg font-bold">Assign this version to…</Dialog.Title>
      <Dialog.Description class="mb-3 text-quiet"
        >It appears in the student’s pieces, with its practice plan.</Dialog.Description
      >
      {#if learners.length === 0}
        <p>There are no students yet. <a class="link" href="/learners/new">Add the first one</a></p>
      {:else}
        <ul class="grid">
          {#each learners as learner (learner.id)}
            <li class="flex items-center gap-3 border-t border-hairline py-2">
              <span
                ><strong>{learner.name}</strong>
                <span class="text-quiet">level {learner.level}</span></span
              >
              {#if learner.has && learner.isNewest}
                <span class="ml-auto text-quiet">assigned</span>
              {:else}
                <form method="post" action="?/give" use:enhance class="ml-auto">
                  <input type="hidden" name="learner" value={learner.id} />
                  <button class="link font-semibold" aria-label="Assign to {learner.name}"
                    >{learner.has ? 'Assign the latest changes' : 'Assign'}</button
                  >
                </form>
              {/if}
            </li>
          {/each}
        </ul>
      {/if}
      <Dialog.Close class="mt-4 link">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
