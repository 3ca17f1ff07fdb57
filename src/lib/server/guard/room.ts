/** Who may enter a practice room: whoever has its link, and says its PIN where it has one. */
import { db } from '$server/db';
import { doorKey, roomByToken } from '$server/studio/room';
import { error, type Cookies } from '@sveltejs/kit';
import { sessionCookie } from './cookie';

const WITHDRAWN = 'This link doesn’t work any more. Ask your teacher for a new one.';

type Found = NonNullable<ReturnType<typeof roomByToken>>;

const cookieOf = (token: string): string => `keypath_room_${token.slice(0, 6)}`;

/** The room of a link; undefined where it asks for a PIN that this browser has not said. Throws 404 where there is no such room. */
export function roomAt(token: string, cookies: Cookies): { readonly found: Found; readonly isOpen: boolean } {
  const found = roomByToken(db(), token);
  if (!found) error(404, WITHDRAWN);
  const isOpen = found.room.pin === null || cookies.get(cookieOf(token)) === doorKey(found.room);
  return { found, isOpen };
}

/** The browser has said the PIN. */
export function openDoor({ room }: Found, event: { cookies: Cookies; request: Request }): void {
  event.cookies.set(cookieOf(room.token), doorKey(room), {
    ...sessionCookie(event),
    path: `/room/${room.token}`,
  });
}
