<script lang="ts">
  /** How long the lesson goes on, of how long it is; and a stopwatch for anything else. */
  import { onMount } from 'svelte';

  interface Props {
    since: string | null;
    minutes: number;
    /** When the lesson ended: then both stand still. */
    ended: string | null;
  }
  let { since, minutes, ended }: Props = $props();
  let now = $state(0);
  let watch = $state<number>();

  onMount(() => {
    now = Date.now();
    const timer = setInterval(() => {
      if (!ended) now = Date.now();
    }, 1000);
    return () => clearInterval(timer);
  });
  const text = (ms: number): string => {
    const seconds = Math.max(0, Math.floor(ms / 1000));
    return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
  };
  const went = $derived(since && now > 0 ? (ended ? Date.parse(ended) : now) - Date.parse(since) : undefined);
</script>

<span class="flex items-center gap-3 font-mono">
  <button
    disabled={ended !== null}
    class="h-8 border-b-2 max-sm:hidden border-transparent text-sm {watch === undefined
      ? 'text-quiet hover:text-ink'
      : 'border-accent'}"
    aria-pressed={watch !== undefined}
    onclick={() => (watch = watch === undefined ? Date.now() : undefined)}
    >{watch === undefined ? 'Stopwatch' : text(now - watch)}</button
  >
  {#if went !== undefined && went < 5 * 3_600_000}<span aria-label="Time of the lesson"
      >{text(went)} of {minutes}</span
    >{/if}
</span>
