<script lang="ts">
  /** What opens over every page by a key: the help by "?", the search by Ctrl or Cmd K, the metronome from the search. Loaded when first asked for. */
  import { help } from '$ui/help/help.svelte';
  import { search } from '$ui/search/search.svelte';

  const isWritten = (target: EventTarget | null): boolean =>
    target instanceof Element && target.closest('input, textarea, select, [contenteditable]') !== null;

  function onkeydown(event: KeyboardEvent): void {
    if (
      (event.ctrlKey || event.metaKey) &&
      !event.shiftKey &&
      !event.altKey &&
      event.key.toLowerCase() === 'k'
    ) {
      event.preventDefault();
      search.open = true;
    } else if (event.key === '?' && !isWritten(event.target)) {
      event.preventDefault();
      help.open = true;
    }
  }
</script>

<svelte:window {onkeydown} />

{#if help.open}
  {#await import('$ui/help/HelpDialog.svelte') then { default: HelpDialog }}<HelpDialog />{/await}
{/if}
{#if search.open}
  {#await import('$ui/search/SearchDialog.svelte') then { default: SearchDialog }}<SearchDialog />{/await}
{/if}
{#if search.metronome}
  {#await import('$ui/sound/MetronomeBar.svelte') then { default: MetronomeBar }}<MetronomeBar />{/await}
{/if}
