<script lang="ts">
  /** What a form is filled in over: what was changed elsewhere meanwhile is then not overwritten by it. */
  interface Props {
    value: unknown;
    /** The answer to the form: where it has met another change, it says what is there. */
    form?: object | null | undefined;
  }
  let { value, form }: Props = $props();
  const there = $derived(form && 'was' in form && typeof form.was === 'string' ? form.was : undefined);
</script>

<input type="hidden" name="was" value={there ?? JSON.stringify(value)} />
