<script lang="ts">
  /** What was left out, changed and kept: worth reading once, then folded away. */
  import type { Share } from '$core/arrange/account';
  import { levelText } from '$core/arrange/levels';
  import { keyName } from '$core/theory/key';
  import type { Version } from '$core/version/realise';
  import { plural } from '$ui/text';
  import { untrack } from 'svelte';
  import type { Opening } from './opening';

  interface Props {
    version: Version | undefined;
    opening: Opening;
    versionId: string;
    /** Folded until it is opened here. */
    isFolded: boolean;
  }
  let { version, opening, versionId, isFolded }: Props = $props();

  const FOLDED = 'keypath.account';
  let open = $state(
    untrack(() => !isFolded) &&
      (typeof localStorage === 'undefined' || localStorage.getItem(FOLDED) !== 'folded'),
  );
  function ontoggle(event: Event & { currentTarget: HTMLDetailsElement }): void {
    open = event.currentTarget.open;
    if (!isFolded) localStorage.setItem(FOLDED, open ? 'open' : 'folded');
  }

  /** How true the version is to its source. */
  const keptText = $derived.by(() => {
    if (!version || version.isSingAlong) return '';
    const { beatNotes, basses, contour } = version.account.fidelity;
    const share = ({ kept, of }: Share): string => (kept === of ? `all ${of}` : `${kept} of ${of}`);
    return `Kept: ${share(beatNotes)} notes on the beat, ${share(basses)} bass notes, melodic direction ${share(contour)} times.`;
  });
</script>

<details class="mb-2 text-sm text-quiet" {open} {ontoggle}>
  <summary class="cursor-pointer"
    >Level {levelText(version?.contract.level ?? opening.level)} ({version?.contract.name ??
      opening.levelName}), {keyName(version?.key ?? opening.key)}{open ? '' : ': what was left out and kept'}
    {#if version && version.parked.length > 0}
      <strong class="font-semibold"
        >{plural(version.parked.length, 'choice is on hold', 'choices are on hold')}</strong
      >
    {/if}</summary
  >
  <p>
    {#if version && version.parked.length > 0}
      <a class="link" href="/versions/{versionId}/decisions">See what is on hold</a>
    {/if}
    <span class="inline-block first-letter:uppercase">{version?.accountText ?? opening.accountText}</span>
    {keptText}
    {#if version && version.blurs.length > 0}
      {plural(version.blurs.length, 'place blurs', 'places blur')} under the pedal.
    {/if}
    <span class="whitespace-nowrap">
      <a class="link" href="/versions/{versionId}/levels">Compare levels</a>
      <a class="link ml-2" href="/versions/{versionId}/keys">Compare keys</a>
    </span>
  </p>
</details>
