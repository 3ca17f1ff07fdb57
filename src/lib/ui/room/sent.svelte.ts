/** What a room that was opened by its link has done: sent to the server, and kept here until it is there. */
import { roomSentSchema, type RoomSent } from '$core/lessons/record';
import { postJson, refusalIn } from '$ui/outbox/post';
import { Queue } from '$ui/outbox/queue';
import type { RoomRecord } from './room.svelte';

export class SentRecord implements RoomRecord {
  refused = $state('');
  #left = $state(0);
  #isAway = $state(false);
  readonly #queue: Queue<RoomSent>;

  constructor(token: string) {
    this.#queue = new Queue({
      kind: 'room',
      id: token,
      schema: roomSentSchema,
      post: async (sent) => {
        const answer = await postJson(`/room/${token}/record`, sent);
        if (answer === 'taken' || answer === 'away') return answer;
        this.refused = refusalIn(answer.said);
        return 'taken';
      },
      onchange: (left, isAway) => {
        this.#left = left;
        this.#isAway = isAway;
      },
    });
  }

  /** What was done without a network and waits to be sent. */
  get kept(): readonly RoomSent[] {
    return this.#queue.left;
  }
  get says(): string {
    return this.#isAway ? 'Offline: saved here' : this.#left > 0 ? 'Saving…' : '';
  }
  push(sent: RoomSent): void {
    this.#queue.push(sent);
  }
  close(): void {
    this.#queue.close();
  }
}
