/** A backup is taken, the studio goes on, and the backup is given back: every view then shows what was in it, and open pages are told. */
import { must, windowOn } from './client';

/** What is shown, without what differs from one look to the next: data for scripts, whose order is free, and names of forms and of the file. */
const plain = (page: unknown): string =>
  String(page)
    .replace(/<script[\s\S]*?<\/script>/g, '')
    .replace(/data-generation="\d+"/g, '')
    .replace(/name="once" value="[^"]*"/g, '')
    .replace(/nonce="[^"]*"|DTSTAMP:\w+/g, '');

/** Where two texts begin to differ. */
function differing(one: string, other: string): readonly string[] {
  let at = 0;
  while (one[at] === other[at]) at += 1;
  return [one, other].map((text) => text.slice(Math.max(0, at - 60), at + 60));
}

/** What was seen comes back in a sentence. */
export async function restoring(url: string, views: readonly string[], version: string): Promise<string> {
  const window = windowOn(url, 'restoring-window');
  // Twice, so that everything is derived.
  for (const view of views) await window.get(view);
  const before = await Promise.all(views.map(async (view) => plain((await window.get(view)).body)));
  const copy = new Uint8Array(await (await fetch(`${url}/settings/studio/copy`)).arrayBuffer());
  const now = (await window.get(`/versions/${version}/edits`)).body as { edit: number };
  for (const level of [5, 3])
    await window.json(`/versions/${version}/edits`, {
      basedOn: now.edit + (level === 5 ? 0 : 1),
      patches: [{ op: 'replace', path: ['recipe', 'level'], value: level }],
    });
  await window.form('/learners/new', {
    name: 'Came Later',
    level: '2',
    reachRight: '8',
    reachLeft: '8',
    keyboard: '61',
  });
  for (const view of views) await window.get(view);
  const old = windowOn(url, 'left-open-window');
  await old.get('/');
  const given = await window.put('/settings/studio/restore?name=C1.db', copy);
  must(given.status === 200, 'The backup was not taken', given);
  const late = await old.json(`/versions/${version}/edits`, {
    basedOn: now.edit,
    patches: [{ op: 'replace', path: ['recipe', 'level'], value: 6 }],
  });
  must(late.status === 409, 'A page of before wrote into what was given back', late);
  window.reload();
  const after = await Promise.all(views.map(async (view) => plain((await window.get(view)).body)));
  const other = views.filter((_, i) => before[i] !== after[i]);
  const [first] = views.flatMap((view, i) =>
    before[i] === after[i] ? [] : [differing(before[i]!, after[i]!)],
  );
  must(other.length === 0, 'Views show something else than the backup holds', [other, first]);
  const state = (await window.get(`/versions/${version}/edits`)).body as { edit: number };
  must(state.edit === now.edit, 'The version is not what it was', state);
  return `a backup given back over other work: ${views.length} of ${views.length} views agree, and a page of before is refused.`;
}
