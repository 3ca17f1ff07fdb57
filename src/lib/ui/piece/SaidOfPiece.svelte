<script lang="ts">
  /** What the teacher can say of the whole piece against the analysis: its home key, and the groups of a measure. */
  import { enhance } from '$app/forms';
  import type { PieceReport } from '$core/report/report';
  import { stays } from '$ui/form/kept';

  interface Props {
    data: {
      readonly said: { readonly home: string | null; readonly groups: string | null };
      readonly homes: readonly { readonly code: string; readonly name: string }[];
      readonly groupings: readonly string[];
      readonly groups: string | null;
      /** The loop that goes round in it, and other pieces that have it. */
      readonly loop: {
        readonly degrees: string;
        readonly others: readonly { readonly id: string; readonly title: string }[];
      } | null;
    };
    /** Undefined while a long piece is analysed. */
    report: PieceReport | undefined;
  }
  let { data, report }: Props = $props();
  const other = $derived(report?.otherHome);
</script>

{#snippet choice(
  kind: 'home' | 'groups',
  label: string,
  said: string | null,
  heard: string,
  options: readonly (readonly [string, string])[],
)}
  <form method="post" action="?/say" use:enhance={stays}>
    <input type="hidden" name="kind" value={kind} />
    <select
      name="value"
      class="field"
      aria-label={label}
      onchange={(event) => event.currentTarget.form?.requestSubmit()}
    >
      <option value="" selected={said === null}>{heard}</option>
      {#each options as [value, name] (value)}<option {value} selected={value === said}>{name}</option>{/each}
    </select>
    <noscript><button class="link">Save</button></noscript>
  </form>
{/snippet}

<section>
  <h2>Home key</h2>
  {@render choice(
    'home',
    'Home key',
    data.said.home,
    data.said.home === null && report ? `${report.keyName}, suggested` : 'as suggested',
    data.homes.map(({ code, name }) => [code, name] as const),
  )}
  {#if report && report.home.numbers}
    <p class="mt-1 text-sm text-quiet">It begins {report.home.numbers}.</p>
    {#if data.loop}
      <p class="mt-1 text-sm text-quiet">
        Its chords loop: {data.loop.degrees}.
        {#if data.loop.others.length > 0}
          The same loop:
          {#each data.loop.others as piece, i (piece.id)}{i > 0 ? ', ' : ' '}<a
              class="link"
              href="/pieces/{piece.id}">{piece.title}</a
            >{/each}.
        {/if}
      </p>
    {/if}
  {/if}
  {#if other}
    <form method="post" action="?/say" use:enhance={stays} class="mt-1 text-sm text-quiet">
      <input type="hidden" name="kind" value="home" />
      <input type="hidden" name="value" value={other.code} />
      It could also be in {other.name}{other.numbers ? `: ${other.numbers}` : ''}.
      <button class="link">Use {other.name}</button>
    </form>
  {/if}
</section>
{#if data.groups !== null}
  <section>
    <h2>Groups of a measure</h2>
    {@render choice(
      'groups',
      'Groups of a measure',
      data.said.groups,
      data.said.groups === null ? `${data.groups}, suggested` : 'as suggested',
      data.groupings.map((value) => [value, value] as const),
    )}
  </section>
{/if}
