/**
 * After a choice by pointer the keyboard goes back to where its next key is meant: the music of the bench or of a lesson, the field of
 * a list. A page marks that place with `data-keys-home`; the innermost open dialog has a place of its own. Whoever works by keyboard
 * alone keeps the focus where it is.
 */

/** What has been chosen with, and needs no key any more. */
const DONE =
  'button, a, summary, select, label, [role="option"], [role="radio"], input[type="checkbox"], input[type="radio"], input[type="range"]';
/** What is written in keeps the keyboard. */
const WRITTEN = 'textarea, [contenteditable], input:not([type="checkbox"], [type="radio"], [type="range"])';
/** Lists and dialogs give the focus back themselves a moment after they have closed. */
const MOMENTS = [60, 250] as const;

const OPEN =
  '[role="listbox"], [role="menu"], [role="dialog"][data-state="open"], [data-popover-content][data-state="open"]';

/** Listens on a document; gives what ends it. */
export function refocusing(document: Document): () => void {
  let byPointer = false;
  const down = (): void => void (byPointer = true);
  const key = (): void => void (byPointer = false);
  const back = (event: Event): void => {
    if (!byPointer || !(event.target instanceof Element)) return;
    // A list that is being chosen from opens on its own click.
    if (!event.target.closest(DONE) || (event.type === 'click' && event.target.closest('select'))) return;
    // At once as well: on a busy page the next key comes before any timer.
    home();
    for (const moment of MOMENTS) setTimeout(home, moment);
  };
  const home = (): void => {
    if (!byPointer) return;
    const { activeElement: active } = document;
    if (active?.closest(WRITTEN)) return;
    const open = [...document.querySelectorAll(OPEN)].at(-1);
    const place = (open ?? document).querySelector<HTMLElement>('[data-keys-home]');
    if (place && place !== active) place.focus({ preventScroll: true });
  };
  document.addEventListener('pointerdown', down, true);
  document.addEventListener('keydown', key, true);
  document.addEventListener('click', back);
  document.addEventListener('change', back);
  return () => {
    document.removeEventListener('pointerdown', down, true);
    document.removeEventListener('keydown', key, true);
    document.removeEventListener('click', back);
    document.removeEventListener('change', back);
  };
}
