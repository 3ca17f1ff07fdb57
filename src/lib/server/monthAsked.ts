/** The month that an address asks for; the one of today where it names none. */
import { z } from 'zod';

export const monthAsked = (url: URL, today: string): string =>
  z
    .string()
    .regex(/^20\d\d-(0[1-9]|1[0-2])$/)
    .catch(today.slice(0, 7))
    .parse(url.searchParams.get('of') ?? '');
