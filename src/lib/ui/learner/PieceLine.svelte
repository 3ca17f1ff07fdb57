<script lang="ts">
  /** One piece of a learner in one line: what is next, and how far along the path it is. */
  import type { Form } from '$core/analysis/form';
  import type { MeasureState } from '$core/lessons/plan';
  import type { TimeSignature } from '$core/score/score';
  import Path from '$ui/path/Path.svelte';
  import type { ComponentProps } from 'svelte';
  import { progressText } from '$ui/text';
  import NextStep from './NextStep.svelte';

  interface Props {
    piece: {
      id: string;
      title: string;
      numbers: readonly string[];
      time: TimeSignature;
      next: ComponentProps<typeof NextStep>['next'];
      form: Form;
      difficulty: readonly number[];
      states: readonly MeasureState[];
      bothHands: number;
    };
  }
  let { piece }: Props = $props();
</script>

<div class="grid grid-cols-[minmax(0,1fr)_250px] items-center gap-5 py-1">
  <p>
    <a class="hover:text-accent" href="/assignments/{piece.id}">
      <NextStep title={piece.title} numbers={piece.numbers} time={piece.time} next={piece.next} />
    </a>
  </p>
  <Path
    form={piece.form}
    numbers={piece.numbers}
    difficulty={piece.difficulty}
    states={piece.states}
    small
    firstWidth={250}
    label="{piece.title}: {progressText(piece)}"
  />
</div>
