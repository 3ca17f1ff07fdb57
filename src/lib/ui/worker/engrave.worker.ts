/** A thread that engraves and does nothing else. */
import { engrave } from '$lib/engrave/engrave';
import { sheetSchema } from '$lib/engrave/sheet';
import { toolkit } from '$lib/engrave/toolkit';
import { expose } from 'comlink';

const service = {
  /** Resolves when the engraver is compiled. */
  async ready(): Promise<void> {
    await toolkit();
  },
  draw: (sheet: unknown) => engrave(sheetSchema.parse(sheet)),
};

export type EngraveService = typeof service;

expose(service);
