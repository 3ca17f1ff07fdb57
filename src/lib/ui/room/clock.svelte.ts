/** How long is practised: the time in which something is played, heard or pressed, told in stretches; and when to rest. */

/** Seconds without anything being done after which time no longer counts. */
const IDLE = 45;
/** Seconds that are told at once. */
const TOLD = 60;
/** Seconds of practice after which a pause is due. */
const REST_AFTER = 600;

export class Clock {
  /** Seconds practised since the room was opened. */
  seconds = $state(0);
  /** A pause is due. */
  rests = $state(false);
  readonly #tell: (seconds: number) => void;
  #untold = 0;
  #sinceRest = 0;
  #active = 0;
  #tick: ReturnType<typeof setInterval> | undefined;

  constructor(tell: (seconds: number) => void) {
    this.#tell = tell;
  }

  /** Something was done: time counts from here on. */
  begin(): void {
    this.#active = performance.now();
    this.#tick ??= setInterval(() => this.#second(), 1000);
  }

  #second(): void {
    if (document.hidden || performance.now() - this.#active > IDLE * 1000) return;
    this.seconds += 1;
    this.#untold += 1;
    this.#sinceRest += 1;
    if (this.#sinceRest >= REST_AFTER) this.rests = true;
    if (this.#untold >= TOLD) this.tellNow();
  }

  /** What was practised and not told yet is told. */
  tellNow(): void {
    if (this.#untold > 0) this.#tell(this.#untold);
    this.#untold = 0;
  }

  /** The pause is over. */
  rested(): void {
    this.rests = false;
    this.#sinceRest = 0;
    this.begin();
  }

  close(): void {
    clearInterval(this.#tick);
    this.#tick = undefined;
    this.tellNow();
  }
}
