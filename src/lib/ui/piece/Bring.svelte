<script lang="ts">
  /** Bringing a piece: by button, by dropping a file or pasting anywhere on the page, or by typing it. */
  import { tooLarge } from '$core/io/limits';
  import type { BookTune } from '$core/io/abc/book';
  import { ACCEPTED, look, textFile, tuneFile, tunesOf, type Looked } from './bring';
  import Working from '$ui/waiting/Working.svelte';
  import Book from './Book.svelte';
  import Look from './Look.svelte';
  import Several from './Several.svelte';
  import { keptText } from '$ui/form/keptText.svelte';

  interface Props {
    rights: readonly string[];
    message: string | undefined;
  }
  let { rights, message }: Props = $props();

  const EXAMPLE = `T: A melody
M: 3/4
L: 1/4
K: G
"G" !1!G A B | "D7" A F D |

or

Verse:
G / / | D7 / / |`;

  let input = $state<HTMLInputElement>();
  let dragging = $state(false);
  let typing = $state(false);
  let typed = $state('');
  keptText(
    'typed piece',
    () => typed,
    (text) => {
      typed = text;
      typing = true;
    },
  );
  let busy = $state('');
  let problem = $state('');
  let found = $state.raw<{ file: File; preview: Looked }>();
  let book = $state.raw<{ name: string; tunes: BookTune[] }>();

  async function read(file: File): Promise<void> {
    problem = tooLarge(file.name, file.size) ?? '';
    if (problem) return;
    busy = file.name;
    try {
      const tunes = await tunesOf(file);
      if (tunes.length > 0) book = { name: file.name, tunes };
      else found = { file, preview: await look(file) };
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    } finally {
      busy = '';
      if (input) input.value = ''; // the same file can be chosen again
    }
  }

  let several = $state.raw<readonly File[]>();
  /** One file is looked at before it is kept; of several a list says what each became. */
  function take(files: FileList | undefined | null): void {
    if (!files || files.length === 0) return;
    if (files.length === 1) void read(files[0]!);
    else several = [...files];
  }

  function drop(event: DragEvent): void {
    event.preventDefault();
    dragging = false;
    take(event.dataTransfer?.files);
  }

  function paste(event: ClipboardEvent): void {
    // Text pasted into a field belongs to the field.
    if (event.target instanceof Element && event.target.closest('input, textarea, select')) return;
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (event.clipboardData?.files.length) take(event.clipboardData.files);
    else if (text.trim()) void read(textFile(text));
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
  onpaste={paste}
/>

<section
  aria-labelledby="bring"
  class="border-l-[3px] py-1 pl-4 {dragging ? 'border-accent bg-accent-soft' : 'border-hairline'}"
>
  <h2 id="bring">Add a piece</h2>
  <p class="text-quiet">
    MusicXML, MIDI, ABC, or a chord chart. Drop files anywhere here, or paste text. You see what was read
    before anything is saved.
  </p>
  <form
    method="post"
    action="/pieces?/keep"
    enctype="multipart/form-data"
    class="mt-2 flex flex-wrap items-center gap-5"
  >
    <label
      class="action cursor-pointer focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-accent"
    >
      {dragging ? 'Drop to read' : 'Choose files'}
      <input
        bind:this={input}
        type="file"
        name="file"
        accept={ACCEPTED}
        class="sr-only"
        multiple
        onchange={() => take(input?.files)}
      />
    </label>
    <button type="button" class="link" aria-expanded={typing} onclick={() => (typing = !typing)}>
      Type or paste it
    </button>
    <a class="link" href="/pieces/new">Write a new one</a>
    {#if busy}<Working path="/pieces" about={busy} before="Reading {busy}…" />{/if}
    <noscript><button class="link">Read it</button></noscript>
  </form>
  {#if typing}
    <form
      class="mt-3 grid max-w-2xl gap-2"
      onsubmit={(event) => {
        event.preventDefault();
        if (typed.trim()) void read(textFile(typed));
      }}
    >
      <label class="grid text-sm text-quiet">
        A melody in ABC, or chords with their beats
        <textarea
          bind:value={typed}
          class="field h-44 resize-y font-mono text-[15px] text-ink"
          spellcheck="false"
          placeholder={EXAMPLE}></textarea>
      </label>
      <div><button class="action">Read this text</button></div>
    </form>
  {/if}
  {#if problem || message}
    <p class="mt-2 text-alarm" role="alert">{problem || message} Nothing was saved.</p>
  {/if}
</section>

{#if book}
  <Book
    {...book}
    {rights}
    onone={(tune) => {
      book = undefined;
      void read(tuneFile(tune));
    }}
    onclose={() => (book = undefined)}
  />
{/if}
{#if several}
  <Several
    files={several}
    onclose={() => {
      several = undefined;
      if (input) input.value = '';
    }}
  />
{/if}
{#if found}
  <Look {...found} {rights} onclose={() => (found = undefined)} />
{/if}
