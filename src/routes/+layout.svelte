<script lang="ts">
  import { goto } from '$app/navigation';
  import { navigating, page } from '$app/state';
  import Working from '$ui/waiting/Working.svelte';
  import { waiting } from '$ui/waiting/waiting.svelte';
  import { giveBackEarly } from '$ui/shell/early';
  import { notice } from '$ui/shell/generation';
  import { refocusing } from '$ui/form/refocus';
  import Doors from '$ui/shell/Doors.svelte';
  import Header from '$ui/shell/Header.svelte';
  import { toast, Toaster } from 'svelte-sonner';
  import { keepRoom } from '$ui/shown/shown';
  import { speakAs } from '$ui/text';
  import { onMount, untrack } from 'svelte';
  import './app.css';

  let { data, children } = $props();
  // Before anything below is written.
  speakAs(untrack(() => data.locale));
  $effect.pre(() => speakAs(data.locale));
  // Says that buttons that work by script do.
  onMount(() => {
    giveBackEarly();
    document.documentElement.setAttribute('data-ready', '');
    keepRoom(innerWidth);
    void sendWhatWaits();
    const said = notice();
    if (said) toast(said, { duration: 20_000 });
    return refocusing(document);
  });
  /** What a lesson could not send before its tab was closed is sent from wherever the studio is opened next. */
  async function sendWhatWaits(): Promise<void> {
    const { Outbox, waitingLessons } = await import('$ui/lesson/outbox');
    for (const lesson of waitingLessons().filter((id) => !page.url.pathname.startsWith(`/lessons/${id}`)))
      new Outbox(lesson, {
        onchange: () => undefined,
        onrefused: (why) => toast.error(`Part of a lesson wasn’t saved: ${why}`),
        onconflict: () =>
          toast.error('A lesson was changed in another window. Open it to choose what to save.', {
            duration: Infinity,
            action: { label: 'Open lesson', onClick: () => void goto(`/lessons/${lesson}`) },
          }),
      });
  }
  /** The bench, the lesson and the practice room bring headers of their own, with their controls; a handout is paper. */
  const ownHeader = $derived(
    /^\/(versions\/[^/]+(\/handout)?|classes\/[^/]+\/handout|lessons\/[^/]+|today\/handout|room\/[^/]+(\/month)?)$/.test(
      page.url.pathname,
    ),
  );
</script>

{#if !ownHeader}
  <a class="sr-only focus:not-sr-only" href="#main">To the content</a>
  <Header studio={data.studio} />
{/if}
<!-- A page keeps what it was opened with: of another version it is another page. -->
{#key page.url.pathname}
  {@render children()}
{/key}
{#if navigating.to}
  {@const { pathname } = navigating.to.url}
  {#key pathname}
    <div class="waits"><Working path={pathname} /></div>
  {/key}
{:else if waiting.file}
  {#key waiting.file}
    <div class="waits">
      <Working path={waiting.file.path} about={waiting.file.name} onend={() => (waiting.file = undefined)} />
    </div>
  {/key}
{/if}
<Doors />
<Toaster position="bottom-left" />
