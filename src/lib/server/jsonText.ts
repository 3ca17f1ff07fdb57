import { z } from 'zod';

/** A field of a form that holds JSON. */
export const jsonText = z.string().transform((text, context) => {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    context.addIssue({ code: 'custom', message: 'This isn’t JSON.' });
    return z.NEVER;
  }
});
