/** Two windows that change the same things at random: what either was told is saved is there, or the other was told of it. */
import { seeded } from '../mixedUse';
import { must, windowOn } from './client';

interface Saved {
  readonly edit: number;
  readonly refused?: string;
}

/** Lesson notes and fingers, so many rounds. What was seen comes back in a sentence. */
export async function windows(url: string, lesson: string, version: string, rounds = 60): Promise<string> {
  const random = seeded(5);
  const both = ['window-one', 'window-two'].map((name) => ({
    window: windowOn(url, name),
    note: '',
    edit: 0,
  }));
  let refused = 0;
  let undone = 0;
  let saved = '';
  const first = both[0]!.window;
  await first.json(`/lessons/${lesson}/record`, { kind: 'change', note: '' });
  for (const one of both)
    one.edit = ((await one.window.get(`/versions/${version}/edits`)).body as Saved).edit;
  const since = both[0]!.edit;
  for (let round = 0; round < rounds; round++) {
    const one = both[random() < 0.5 ? 0 : 1]!;
    const note = `Said in round ${round}.`;
    const answer = await one.window.json(`/lessons/${lesson}/record`, {
      kind: 'change',
      note,
      was: { note: one.note },
    });
    if (answer.status === 200) {
      must(one.note === saved, 'A note was overwritten that this window had not seen', [one.note, saved]);
      [saved, one.note] = [note, note];
    } else {
      refused += 1;
      const there = (answer.body as { there?: { note?: string } }).there?.note;
      must(answer.status === 409 && there === saved, 'What is there is not what was said', answer);
      one.note = there!;
    }
    const finger = `m${Math.floor(random() * 4)}n0`;
    const edit = await one.window.json(`/versions/${version}/edits`, {
      basedOn: one.edit,
      since,
      patches: [
        {
          op: 'add',
          path: ['decisions', `finger ${finger}`],
          value: { kind: 'finger', at: { note: finger }, value: 1 + (round % 5) },
        },
      ],
    });
    must(edit.status === 200, 'A finger was not taken', edit);
    const state = edit.body as Saved;
    if (state.refused) refused += 1;
    one.edit = state.edit;
    if (round % 7 === 6) {
      const step = await one.window.json(`/versions/${version}/edits`, { step: 'undo', since });
      must(step.status === 200, 'Undo failed', step);
      one.edit = (step.body as Saved).edit;
      undone += 1;
    }
  }
  return `two windows, ${rounds} rounds: ${refused} changes met another and were told so, ${undone} times undo, nothing overwritten.`;
}
