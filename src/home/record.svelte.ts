/** What was done in a practice room that is one file: kept in this browser, to be given to the teacher. */
import { roomSentSchema, type RoomSent } from '$core/lessons/record';
import { practisedIn } from '$core/lessons/home';
import { daysAfter } from '$core/lessons/calendar';
import type { RoomRecord } from '$ui/room/room.svelte';
import { z } from 'zod';

/** Days that are kept: longer no teacher waits for them. */
const DAYS = 60;

/** The day here, of an instant. */
const dayOf = (at: string | undefined): string => {
  const date = at === undefined ? new Date() : new Date(at);
  return [date.getFullYear(), date.getMonth() + 1, date.getDate()]
    .map((n) => String(n).padStart(2, '0'))
    .join('-');
};

export class HomeRecord implements RoomRecord {
  sent = $state.raw<readonly RoomSent[]>([]);
  refused = $state('');
  readonly says = '';
  readonly #key: string;
  /** Minutes of today that were practised before the file was opened. */
  readonly minutesToday: number;

  constructor(id: string) {
    this.#key = `keypath home ${id}`;
    const since = daysAfter(dayOf(undefined), -DAYS);
    this.sent = this.#read().filter(({ at }) => dayOf(at) >= since);
    this.minutesToday = Math.floor(practisedIn(this.kept) / 60);
  }

  /** What was done today. */
  get kept(): readonly RoomSent[] {
    const today = dayOf(undefined);
    return this.sent.filter(({ at }) => dayOf(at) === today);
  }

  push(sent: RoomSent): void {
    // Another window with the same file may have kept something as well.
    const others = this.#read().filter(({ token }) => !this.sent.some((s) => s.token === token));
    this.sent = [...this.sent, ...others, sent];
    try {
      localStorage.setItem(this.#key, JSON.stringify(this.sent));
      this.refused = '';
    } catch (error) {
      console.warn('This browser can’t store anything:', error);
      this.refused = 'This browser can’t store what you do. Save your results before you close this page.';
    }
  }

  close(): void {
    // Everything is kept as it comes.
  }

  #read(): RoomSent[] {
    try {
      return z.array(roomSentSchema).parse(JSON.parse(localStorage.getItem(this.#key) ?? '[]'));
    } catch (error) {
      console.warn('What was kept here can’t be read:', error);
      return [];
    }
  }
}
