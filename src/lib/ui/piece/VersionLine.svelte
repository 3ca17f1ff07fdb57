<script lang="ts">
  /** A version of a piece in its list: what it is, who has it, whether it is signed; and what can be done with it. */
  import { inSentence } from '$core/capital';
  import { enhance } from '$app/forms';
  import { stays } from '$ui/form/kept';
  import { levelText } from '$core/arrange/levels';
  import Discard from '$ui/form/Discard.svelte';
  import Once from '$ui/form/Once.svelte';
  import { plural, shortDate } from '$ui/text';

  interface Props {
    version: {
      id: string;
      name: string | null;
      level: number;
      style: 'solo' | 'sing-along';
      /** In words. */
      key: string;
      decisions: number;
      holders: readonly string[];
      signed: { at: string; later: number } | null;
    };
    learners: readonly { id: string; name: string; level: number }[];
    hasOthers: boolean;
  }
  let { version, learners, hasOthers }: Props = $props();
  const what = $derived(
    `Level ${levelText(version.level)} in ${version.key}${version.style === 'sing-along' ? ', sing-along' : ''}`,
  );
  const signedText = $derived(
    version.signed === null
      ? 'draft'
      : `ready ${shortDate(version.signed.at)}${version.signed.later > 0 ? `, ${plural(version.signed.later, 'change')} since` : ''}`,
  );
</script>

<li class="border-t border-hairline py-2.5">
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
    <a class="font-semibold hover:text-accent" href="/versions/{version.id}">{version.name ?? what}</a>
    <span class="text-quiet">
      {version.name ? `${inSentence(what)}, ` : ''}{version.holders.length > 0
        ? `for ${version.holders.join(', ')}`
        : 'not assigned yet'}{version.decisions > 0 ? `, ${plural(version.decisions, 'choice')}` : ''}, {signedText}
    </span>
    <a class="link ml-auto" href="/versions/{version.id}/levels">All levels</a>
    <a class="link" href="/versions/{version.id}/handout">Handout</a>
  </div>
  <details class="text-sm">
    <summary class="w-fit cursor-pointer text-quiet">Name, copy, compare</summary>
    <div class="flex flex-wrap items-end gap-x-6 gap-y-2 py-2">
      <form method="post" action="?/rename" use:enhance={stays} class="flex items-end gap-2">
        <input type="hidden" name="version" value={version.id} />
        <label class="grid text-quiet"
          >Name<input
            class="field text-ink"
            name="name"
            maxlength="80"
            placeholder={what}
            value={version.name ?? ''}
          /></label
        >
        <button class="link">Save</button>
      </form>
      <form method="post" action="?/duplicate" use:enhance class="flex items-end gap-2">
        <Once />
        <input type="hidden" name="version" value={version.id} />
        <label class="grid text-quiet"
          >Copy for
          <select class="field text-ink" name="learner">
            <option value="">the same hands</option>
            {#each learners as { id, name } (id)}<option value={id}>{name}’s hands and keyboard</option
              >{/each}
          </select></label
        >
        <button class="link">Copy</button>
      </form>
      {#if hasOthers}<a class="link" href="/versions/{version.id}/compare">Compare with another version</a
        >{/if}
      <Discard
        kind="version"
        id={version.id}
        label={version.name ?? `level ${levelText(version.level)} in ${version.key}`}
        text="Remove"
      />
    </div>
  </details>
</li>
