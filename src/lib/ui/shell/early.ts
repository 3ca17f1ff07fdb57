/**
 * What is typed while a page is still starting is not lost: a page is usable before its script has run, and the script, when it takes the
 * fields over, would put back what the server sent. On a slow machine that is seconds.
 */

type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

/** Fields that a person fills in and a script may set. */
const isField = (e: EventTarget | null): e is Field =>
  (e instanceof HTMLInputElement && e.type !== 'file') ||
  e instanceof HTMLTextAreaElement ||
  e instanceof HTMLSelectElement;

const isBox = (field: Field): field is HTMLInputElement =>
  field instanceof HTMLInputElement && (field.type === 'checkbox' || field.type === 'radio');

const isTouched = (field: Field): boolean =>
  isBox(field)
    ? field.checked !== field.defaultChecked
    : field instanceof HTMLSelectElement
      ? // Without one that is marked, the first option is the chosen one.
        ![...field.options].every((o) => o.selected === o.defaultSelected) &&
        (field.selectedIndex > 0 || [...field.options].some((o) => o.defaultSelected))
      : field.value !== field.defaultValue;

const valueOf = (field: Field): string => (isBox(field) ? String(field.checked) : field.value);

const touched = new Map<Field, string>();
const see = ({ target }: Event): void => {
  if (isField(target)) touched.set(target, valueOf(target));
};

/** Remembers what was typed so far, and what is typed until `giveBackEarly`. Before the page's components take it over. */
export function seeEarly(): void {
  for (const field of document.querySelectorAll('input, textarea, select'))
    if (isField(field) && isTouched(field)) touched.set(field, valueOf(field));
  document.addEventListener('input', see, true);
}

/** Puts back what the start of the page has overwritten; its components are told as if it were typed now. After they have begun. */
export function giveBackEarly(): void {
  document.removeEventListener('input', see, true);
  for (const [field, value] of touched) {
    if (!field.isConnected || valueOf(field) === value) continue;
    if (isBox(field)) field.checked = value === 'true';
    else field.value = value;
    field.dispatchEvent(new Event('input', { bubbles: true }));
    field.dispatchEvent(new Event('change', { bubbles: true }));
  }
  touched.clear();
}
