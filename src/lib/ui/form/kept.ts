/**
 * Forms whose words are not lost. What is typed is kept in the browser until the server has it: it is there again after a crash or a
 * reload; while the server is away the form says so, waits, and sends itself when it is back.
 */
import { enhance } from '$app/forms';
import type { SubmitFunction } from '@sveltejs/kit';
import { reloads } from '$ui/shell/generation';
import { toast } from 'svelte-sonner';
import type { Action } from 'svelte/action';

/** Between two tries while the server is away, in milliseconds. */
const AGAIN = 3000;

/** The page as it stands, and the form in it. */
const keyOf = (form: HTMLFormElement): string =>
  `keypath ${location.pathname} ${form.getAttribute('action') ?? ''} ${form.dataset.draft ?? ''}`;

type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

/** Fields that are typed in, and what they were typed over; secrets and what else the page fills in are not kept. */
const fieldsOf = (form: HTMLFormElement): Field[] =>
  [...form.elements].filter(
    (e): e is Field =>
      (e instanceof HTMLTextAreaElement || e instanceof HTMLSelectElement || e instanceof HTMLInputElement) &&
      e.name !== '' &&
      (e.name === 'was' || !['hidden', 'password', 'file', 'submit'].includes(e.type)),
  );

const valueOf = (field: Field): string =>
  field instanceof HTMLInputElement && field.type === 'checkbox' ? String(field.checked) : field.value;

function setValue(field: Field, value: string): void {
  if (field instanceof HTMLInputElement && field.type === 'checkbox') field.checked = value === 'true';
  else field.value = value;
}

/** The store may be full or forbidden: then nothing is kept, and nothing else fails. */
function store(act: (of: Storage) => void): void {
  try {
    act(localStorage);
  } catch (error) {
    console.warn('This browser can’t store what you type:', error);
  }
}

interface KeptOptions {
  /** What happens with an answer; without it, what forms usually do. */
  readonly submit?: SubmitFunction;
}

/** What is in the fields stays in them: the page shows what came of it. */
export const stays: SubmitFunction =
  () =>
  ({ update }) =>
    update({ reset: false });

/** Takes the place of `use:enhance`. `data-draft` tells apart forms of one page that have the same action. */
export const kept: Action<HTMLFormElement, KeptOptions | undefined> = (form, options) => {
  const key = keyOf(form);
  let isDirty = false;
  let isAway = false;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const forget = (): void => {
    isDirty = false;
    store((of) => of.removeItem(key));
  };
  const keep = (): void => {
    isDirty = true;
    store((of) =>
      of.setItem(key, JSON.stringify(Object.fromEntries(fieldsOf(form).map((f) => [f.name, valueOf(f)])))),
    );
  };
  store((of) => {
    const draft = of.getItem(key);
    if (draft === null) return;
    const values = JSON.parse(draft) as Record<string, string>;
    for (const field of fieldsOf(form)) {
      const value = values[field.name];
      if (value !== undefined) setValue(field, value);
    }
    isDirty = true;
    toast('Your unsent text is back in the form.');
  });

  const warn = (event: BeforeUnloadEvent): void => {
    if (isDirty && !reloads()) event.preventDefault();
  };
  const again = (): void => {
    clearTimeout(timer);
    if (isAway) form.requestSubmit();
  };
  form.addEventListener('input', keep);
  addEventListener('beforeunload', warn);
  addEventListener('online', again);

  const enhanced = enhance(form, async (input) => {
    // It may wait, for what was sent before it.
    const after = await options?.submit?.(input);
    return async (answer) => {
      const { result } = answer;
      // An error without a status is no answer at all.
      if (result.type === 'error' && result.status === undefined) {
        if (!isAway)
          toast.error('You’re offline. Your text is safe and will be sent later.', {
            id: key,
            duration: Infinity,
          });
        isAway = true;
        keep();
        timer = setTimeout(again, AGAIN);
        return;
      }
      if (isAway) {
        toast.dismiss(key);
        if (result.type === 'success' || result.type === 'redirect') toast.success('Sent.');
      }
      isAway = false;
      if (result.type === 'success' || result.type === 'redirect') forget();
      if (typeof after === 'function') await after(answer);
      else await answer.update();
    };
  });
  return {
    destroy() {
      clearTimeout(timer);
      form.removeEventListener('input', keep);
      removeEventListener('beforeunload', warn);
      removeEventListener('online', again);
      enhanced.destroy();
    },
  };
};
