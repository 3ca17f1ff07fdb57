<script lang="ts">
  /** Name, piece and members of a class. */
  import { kept, stays } from '$ui/form/kept';
  import Once from '$ui/form/Once.svelte';
  import Was from '$ui/form/Was.svelte';

  interface Props {
    values?: { name: string; piece: string | null; members: readonly string[] };
    learners: readonly { id: string; name: string }[];
    pieces: readonly { id: string; title: string }[];
    action: string;
    button: string;
    message?: string | undefined;
    /** The answer to the form. */
    form?: object | null | undefined;
  }
  let { values, learners, pieces, action, button, message, form }: Props = $props();
</script>

<form
  method="post"
  {action}
  use:kept={{ submit: stays }}
  class="grid max-w-md grid-cols-[minmax(0,1fr)] gap-3"
>
  {#if values}<Was value={{ ...values, piece: values.piece ?? '' }} {form} />{:else}<Once />{/if}
  <label class="grid">Name <input name="name" class="field" value={values?.name ?? ''} required /></label>
  <label class="grid min-w-0"
    >Piece
    <select name="piece" class="field w-full min-w-0">
      {#each pieces as { id, title } (id)}<option value={id} selected={id === values?.piece}>{title}</option
        >{/each}
    </select></label
  >
  <fieldset>
    <legend>Students</legend>
    <div class="mt-1 grid grid-cols-2 gap-x-4">
      {#each learners as { id, name } (id)}
        <label class="flex min-h-7 items-center gap-2"
          ><input
            type="checkbox"
            class="tick"
            name="members"
            value={id}
            checked={values?.members.includes(id) ?? false}
          />
          {name}</label
        >
      {/each}
    </div>
  </fieldset>
  {#if message}<p class="text-alarm" role="alert">{message}</p>{/if}
  <div><button class="action">{button}</button></div>
</form>
