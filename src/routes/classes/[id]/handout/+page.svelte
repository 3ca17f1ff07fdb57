<script lang="ts">
  /** A class's set of parts: everybody's pages in turn, as they will print. */
  import PaperDesk from '$ui/paper/PaperDesk.svelte';
  import { plural } from '$ui/text';

  let { data, form } = $props();
  const own = $derived(`/classes/${data.id}/handout`);
</script>

<svelte:head><title>{data.name} · handouts · Key Path</title></svelte:head>

<PaperDesk
  title={data.title}
  says="{data.name}: {plural(data.learners, 'student')} with a part"
  back={{ href: `/classes/${data.id}`, name: 'Back to the class' }}
  pages={data.pages}
  count={data.count}
  choices={data.choices}
  problem={form?.message}
  files={[
    { href: `${own}/pdf`, name: 'One PDF' },
    { href: `${own}/pdf?zip`, name: 'One PDF a student' },
  ]}
  more="{own}/pages?"
/>
