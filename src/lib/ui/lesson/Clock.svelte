<script lang="ts">
  /** How long the lesson goes on, of how long it is; and a stopwatch for anything else. */
  import { onMount } from 'svelte';

  let { since, minutes }: { since: string | null; minutes: number } = $props();
  let now = $state(0);
  let watch = $state<number>();

  onMount(() => {
    now = Date.now();
    const timer = setInterval(() => (now = Date.now()), 1000);
    return () => clearInterval(timer);
  });
  const text = (ms: number): string => {
    const seconds = Math.max(0, Math.floor(ms / 1000));
    return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
  };
  const went = $derived(since && now > 0 ? now - Date.parse(since) : undefined);
</script>

<span class="flex items-center gap-3 font-mono">
  <button
    class="h-8 border-b-2 border-transparent text-sm {watch === undefined
      ? 'text-quiet hover:text-ink'
      : 'border-accent'}"
    aria-pressed={watch !== undefined}
    onclick={() => (watch = watch === undefined ? Date.now() : undefined)}
    >{watch === undefined ? 'stopwatch' : text(now - watch)}</button
  >
  {#if went !== undefined && went < 5 * 3_600_000}<span aria-label="Time of the lesson"
      >{text(went)} of {minutes}</span
    >{/if}
</span>
