<script lang="ts">
  /** Today's sets: the pages of everybody who has a lesson, in the order of the day. */
  import PaperDesk from '$ui/paper/PaperDesk.svelte';
  import { plural } from '$ui/text';

  let { data, form } = $props();
</script>

<svelte:head><title>Today’s handouts · Key Path</title></svelte:head>

<PaperDesk
  title="Today’s handouts"
  says={plural(data.learners, 'student')}
  back={{ href: '/', name: 'Back to Today' }}
  pages={data.pages}
  count={data.count}
  choices={data.choices}
  problem={form?.message}
  files={[
    { href: '/today/handout/pdf', name: 'One PDF' },
    { href: '/today/handout/pdf?zip', name: 'One PDF a student' },
  ]}
  more="/today/handout/pages?"
/>
