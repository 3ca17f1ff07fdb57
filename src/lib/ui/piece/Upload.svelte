<script lang="ts">
  /** Bringing a piece by button or by dropping the file anywhere on the page. */
  import { enhance } from '$app/forms';
  import { MOST_BYTES } from '$core/io/readScoreFile';

  interface Props {
    rights: readonly string[];
    message: string | undefined;
  }
  let { rights, message }: Props = $props();

  let form = $state<HTMLFormElement>();
  let input = $state<HTMLInputElement>();
  let dragging = $state(false);
  let busy = $state('');
  let tooLarge = $state('');

  function send(): void {
    const file = input?.files?.[0];
    if (!file) return;
    tooLarge = '';
    if (file.size > MOST_BYTES) {
      // Said at once, without sending it first.
      tooLarge = `“${file.name}” has ${Math.round(file.size / 1024 / 1024)} MB; a score of up to ${MOST_BYTES / 1024 / 1024} MB can be read.`;
      input!.value = '';
      return;
    }
    form?.requestSubmit();
  }

  function drop(event: DragEvent): void {
    event.preventDefault();
    dragging = false;
    const files = event.dataTransfer?.files;
    if (!files || files.length === 0 || !input) return;
    input.files = files;
    send();
  }
</script>

<svelte:window
  ondragover={(event) => {
    event.preventDefault();
    dragging = true;
  }}
  ondragleave={(event) => {
    if (!event.relatedTarget) dragging = false;
  }}
  ondrop={drop}
/>

<form
  bind:this={form}
  method="post"
  action="/pieces?/upload"
  enctype="multipart/form-data"
  use:enhance={() => {
    busy = input?.files?.[0]?.name ?? 'the file';
    return async ({ update }) => {
      await update();
      busy = '';
    };
  }}
  class="border-l-[3px] py-1 pl-4 {dragging ? 'border-accent bg-accent-soft' : 'border-hairline'}"
>
  <h2>Bring a piece</h2>
  <p class="text-quiet">
    A MusicXML file (.musicxml, .xml or .mxl): two staves for piano, or one melody with chord names. Drop it
    anywhere here.
  </p>
  <div class="mt-2 flex flex-wrap items-center gap-4">
    <label
      class="action cursor-pointer focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-accent"
    >
      {dragging ? 'Let go to read it' : 'Choose a file'}
      <input
        bind:this={input}
        type="file"
        name="file"
        accept=".musicxml,.xml,.mxl,.mid,.midi"
        class="sr-only"
        onchange={send}
      />
    </label>
    <label class="flex items-center gap-2">
      Rights
      <select name="rights" class="field">
        {#each rights as right (right)}<option selected={right === 'not known'}>{right}</option>{/each}
      </select>
    </label>
    {#if busy}<span role="status" class="text-quiet">Reading {busy}…</span>{/if}
    <noscript><button class="link">Read it</button></noscript>
  </div>
  {#if tooLarge || message}
    <p class="mt-2 text-alarm" role="alert">{tooLarge || message} Nothing was kept.</p>
  {/if}
</form>
