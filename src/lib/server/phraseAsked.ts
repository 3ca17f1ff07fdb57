/** The phrase that an address asks for, by its place; the first where it names none. */
import { z } from 'zod';

const place = z.coerce.number().int().min(0).catch(0);

export const phraseAsked = (url: URL): number => place.parse(url.searchParams.get('phrase') ?? 0);
