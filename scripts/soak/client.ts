/** A browser window as far as the soak needs one: it names itself and the studio that it was opened on, as pages do. */

export interface Answer {
  readonly status: number;
  readonly body: unknown;
  readonly generation: string | null;
}

const parsed = (text: string): unknown => {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return text;
  }
};

/** @param name at least eight letters */
export function windowOn(url: string, name: string) {
  let generation: string | undefined;
  const ask = async (path: string, init: RequestInit = {}): Promise<Answer> => {
    const headers = new Headers(init.headers);
    headers.set('origin', url);
    headers.set('x-keypath-window', name);
    if (generation !== undefined) headers.set('x-keypath-generation', generation);
    const answer = await fetch(url + path, { ...init, headers });
    const now = answer.headers.get('x-keypath-generation');
    generation ??= now ?? undefined;
    return { status: answer.status, body: parsed(await answer.text()), generation: now };
  };
  return {
    get: (path: string) => ask(path),
    json: (path: string, value: unknown, method = 'POST') =>
      ask(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(value) }),
    form: (path: string, fields: Readonly<Record<string, string | readonly string[]>>) => {
      const body = new URLSearchParams();
      for (const [field, value] of Object.entries(fields))
        for (const one of typeof value === 'string' ? [value] : value) body.append(field, one);
      return ask(path, { method: 'POST', body, headers: { 'x-sveltekit-action': 'true' } });
    },
    file: (path: string, name: string, bytes: Uint8Array, fields: Readonly<Record<string, string>> = {}) => {
      const body = new FormData();
      body.append('file', new File([new Uint8Array(bytes)], name));
      for (const [field, value] of Object.entries(fields)) body.append(field, value);
      return ask(path, { method: 'POST', body, headers: { 'x-sveltekit-action': 'true' } });
    },
    put: (path: string, bytes: Uint8Array) =>
      ask(path, {
        method: 'PUT',
        body: new Uint8Array(bytes),
        headers: { 'content-type': 'application/vnd.sqlite3' },
      }),
    /** The page is loaded anew. */
    reload: () => void (generation = undefined),
  };
}
export type Window = ReturnType<typeof windowOn>;

export function must(isTrue: boolean, what: string, seen?: unknown): asserts isTrue {
  if (!isTrue) throw new Error(`${what}${seen === undefined ? '' : `: ${JSON.stringify(seen)}`}`);
}
