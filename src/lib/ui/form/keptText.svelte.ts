/** A text that is being written outside of a form: kept in this tab until it is emptied, so that a reload loses nothing. */
import { onMount } from 'svelte';

/** Called while a component is made. `read` gives the text as it is, `write` puts back what was kept. */
export function keptText(name: string, read: () => string, write: (text: string) => void): void {
  const key = `keypath text ${name}`;
  onMount(() => {
    try {
      const kept = sessionStorage.getItem(key);
      if (kept && !read()) write(kept);
    } catch (error) {
      console.warn('This browser can’t store what you type:', error);
    }
  });
  let isFirst = true;
  $effect.pre(() => {
    const text = read();
    // What was kept is put back before anything is written over it.
    if (isFirst) {
      isFirst = false;
      return;
    }
    try {
      if (text) sessionStorage.setItem(key, text);
      else sessionStorage.removeItem(key);
    } catch (error) {
      console.warn('This browser can’t store what you type:', error);
    }
  });
}
