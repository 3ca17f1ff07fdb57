/** An empty studio in a folder of its own, and what tests put into it. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeMusicXml } from '$core/io/musicxml/write';
import { scoreFrom } from '$core/test/shorthand';
import { openDatabase, type OpenDb } from '../db/open';
import type { LearnerInput } from '../studio/learners';

export interface TestStudio {
  readonly folder: string;
  readonly db: OpenDb;
  /** Closes it and takes everything away. */
  readonly end: () => void;
}

export function testStudio(): TestStudio {
  const folder = mkdtempSync(join(tmpdir(), 'keypath-'));
  const db = openDatabase(folder, 'drizzle');
  return {
    folder,
    db,
    end: () => {
      db.$client.close();
      rmSync(folder, { recursive: true });
    },
  };
}

/** A piece of two measures as it would be brought. */
export const MELODY = {
  name: 'melody.musicxml',
  bytes: new TextEncoder().encode(
    writeMusicXml(
      scoreFrom({
        title: 'Melody',
        key: 'C',
        time: { beats: 4, beatType: 4 },
        right: 'C5:4 | D5:4',
        left: 'C3:4 | G2:4',
      }),
    ),
  ),
};

export const NORA: LearnerInput = {
  name: 'Nora',
  weekday: 2,
  time: '16:00',
  level: 1,
  reachRight: 7,
  reachLeft: 8,
  keyboard: 49,
  hasPedal: false,
  school: null,
  voiceLow: null,
  voiceHigh: null,
  minutesADay: 15,
  about: '',
};
