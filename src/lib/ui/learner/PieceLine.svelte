<script lang="ts">
  /** One piece of a learner in one line: what is next, and how far along the path it is. */
  import type { PathPicture as Picture } from '$core/lessons/picture';
  import type { TimeSignature } from '$core/score/score';
  import PathPicture from '$ui/path/PathPicture.svelte';
  import type { ComponentProps } from 'svelte';
  import { progressText } from '$ui/text';
  import NextStep from './NextStep.svelte';

  interface Props {
    piece: Shown | Broken;
  }
  interface Broken {
    id: string;
    title: string;
    /** Why it cannot be shown. */
    problem: string;
  }
  interface Shown {
    id: string;
    title: string;
    time: TimeSignature;
    next: readonly NonNullable<ComponentProps<typeof NextStep>['next']>[];
    picture: Picture;
    newMeasures: number;
    bothHands: number;
  }
  let { piece }: Props = $props();
</script>

{#if 'problem' in piece}
  <p class="py-1"><strong class="font-semibold">{piece.title}</strong> cannot be shown: {piece.problem}</p>
{:else}
  <div class="grid items-center gap-x-5 gap-y-1 py-1 sm:grid-cols-[minmax(0,1fr)_minmax(0,250px)]">
    <p>
      <a class="hover:text-accent" href="/assignments/{piece.id}">
        <NextStep title={piece.title} time={piece.time} next={piece.next[0]} />
      </a>
    </p>
    <PathPicture picture={piece.picture} label="{piece.title}: {progressText(piece)}" />
  </div>
{/if}
