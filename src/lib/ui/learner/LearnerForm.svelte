<script lang="ts">
  /** Who a learner is, as far as lessons need it: day, level, hands, keyboard, voice. */
  import { kept, stays } from '$ui/form/kept';
  import { levelText } from '$core/arrange/levels';
  import { SCHOOL_IDS, SCHOOLS } from '$core/counting/schools';
  import { KEYBOARDS } from '$core/hands/register';
  import ReachPicture from './ReachPicture.svelte';
  import TimeInput from '$ui/form/TimeInput.svelte';
  import Once from '$ui/form/Once.svelte';
  import Was from '$ui/form/Was.svelte';
  import { reachName, weekdayName, weekdays } from '$ui/text';

  interface Values {
    name: string;
    weekday: number | null;
    time: string | null;
    level: number;
    reachRight: number;
    reachLeft: number;
    keyboard: number;
    hasPedal: boolean;
    school: string | null;
    voiceLow: string | null;
    voiceHigh: string | null;
    minutesADay: number;
    about: string;
  }
  interface Props {
    values?: Values | undefined;
    action: string;
    button: string;
    /** The levels of the studio. */
    levels: readonly { readonly level: number; readonly name: string }[];
    problems?: Partial<Record<string, string>> | undefined;
    /** What was saved when the form was opened. */
    was?: object | undefined;
    /** The answer to the form. */
    form?: object | null | undefined;
    /** Said where somebody else has saved something in between. */
    meanwhile?: string | undefined;
  }
  /** As chosen in the form, for the pictures. */
  const reaches = $state<{ reachRight?: number; reachLeft?: number }>({});
  let { values, action, button, levels, problems = {}, was, form, meanwhile }: Props = $props();
</script>

{#snippet problem(field: string)}
  {#if problems[field]}<span class="text-alarm" role="alert">{problems[field]}</span>{/if}
{/snippet}

<form method="post" {action} use:kept={{ submit: stays }} class="grid max-w-md gap-3">
  {#if was}<Was value={was} {form} />{:else}<Once />{/if}
  <label class="grid"
    >Name <input name="name" class="field" value={values?.name ?? ''} required />{@render problem(
      'name',
    )}</label
  >
  <div class="grid grid-cols-2 gap-3">
    <label class="grid">
      Lesson day
      <select name="weekday" class="field">
        <option value="">No fixed day</option>
        {#each weekdays() as day (day)}<option value={day} selected={values?.weekday === day}
            >{weekdayName(day)}</option
          >{/each}
      </select>
    </label>
    <label class="grid">
      At
      <TimeInput name="time" value={values?.time ?? ''} label="Lesson time" />{@render problem('time')}
    </label>
  </div>
  <label class="grid">
    Level
    <select name="level" class="field">
      {#each levels as { level, name } (level)}
        <option value={level} selected={(values?.level ?? 1) === level}>{levelText(level)} {name}</option>
      {/each}
    </select>
  </label>
  <fieldset class="grid grid-cols-2 gap-3">
    <legend class="mb-1">Widest interval each hand reaches easily</legend>
    {#each [['reachRight', 'Right'], ['reachLeft', 'Left']] as const as [name, label] (name)}
      <label class="grid">
        {label}
        <select {name} class="field" onchange={(e) => (reaches[name] = Number(e.currentTarget.value))}>
          {#each [7, 8, 9, 10] as reach (reach)}
            <option value={reach} selected={(values?.[name] ?? 8) === reach}>{reachName(reach)}</option>
          {/each}
        </select>
        <span class="mt-1"
          ><ReachPicture
            reach={reaches[name] ?? values?.[name] ?? 8}
            hand={name === 'reachRight' ? 'right' : 'left'}
          /></span
        >
      </label>
    {/each}
  </fieldset>
  <p class="text-sm text-quiet">
    With a relaxed hand, rest the thumb and little finger flat on white keys. Count the keys from one to the
    other, both included. Never force a stretch.
  </p>
  <label class="grid">
    Keyboard at home
    <select name="keyboard" class="field">
      {#each Object.entries(KEYBOARDS) as [size, { name }] (size)}
        <option value={size} selected={(values?.keyboard ?? 61) === Number(size)}>{name}</option>
      {/each}
    </select>
  </label>
  <label class="grid">
    Counting system
    <select name="school" class="field">
      <option value="">Studio default</option>
      {#each SCHOOL_IDS as id (id)}<option value={id} selected={values?.school === id}
          >{SCHOOLS[id].name}</option
        >{/each}
    </select>
  </label>
  <label class="flex min-h-6 items-center gap-2">
    <input type="checkbox" class="tick" name="hasPedal" checked={values?.hasPedal ?? false} /> Sustain pedal
  </label>
  <div class="grid grid-cols-2 gap-3">
    <label class="grid">
      Lowest sung note
      <input
        name="voiceLow"
        class="field w-full min-w-0"
        placeholder="B3"
        value={values?.voiceLow ?? ''}
      />{@render problem('voiceLow')}
    </label>
    <label class="grid">
      Highest sung note
      <input
        name="voiceHigh"
        class="field w-full min-w-0"
        placeholder="C5"
        value={values?.voiceHigh ?? ''}
      />{@render problem('voiceHigh')}
    </label>
  </div>
  <label class="grid"
    >Practice minutes a day
    <input
      name="minutesADay"
      type="number"
      min="1"
      max="240"
      class="field w-24"
      value={values?.minutesADay ?? 15}
    />{@render problem('minutesADay')}</label
  >
  <label class="grid"
    >Notes
    <input name="about" class="field" maxlength="400" value={values?.about ?? ''} />{@render problem(
      'about',
    )}</label
  >
  {#if meanwhile}<p class="text-alarm" role="alert">{meanwhile}</p>{/if}
  <div><button class="action">{button}</button></div>
</form>
