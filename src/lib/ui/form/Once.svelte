<script lang="ts">
  /** Marks a form, so that the same form sent twice makes one thing. */
  import { page } from '$app/state';
  import { formToken } from './token';

  let token = $state(formToken());
  // What was taken is another form the next time.
  $effect(() => {
    void page.form;
    token = formToken();
  });
</script>

<input type="hidden" name="once" value={token} />
