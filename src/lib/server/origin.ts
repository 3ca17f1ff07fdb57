/** The address under which this studio was asked last: what is prepared ahead, with links on it, is then what will be asked for. */
let seen: string | null = null;

export const originSeen = (): string | null => seen;

/** The address of a request, remembered. */
export const originOf = (url: string | URL): string => (seen = new URL(url).origin);
