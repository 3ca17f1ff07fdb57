/** The computer's clock goes back an hour while people work: nothing that was said is lost, refused or told in another order. */
import { must, windowOn } from './client';

/** What was seen comes back in a sentence. */
export async function clock(
  url: string,
  goBack: () => void,
  { learner, version }: { readonly learner: string; readonly version: string },
): Promise<string> {
  const window = windowOn(url, 'clock-window');
  const edit = async (finger: number): Promise<number> => {
    const now = (await window.get(`/versions/${version}/edits`)).body as { edit: number };
    const answer = await window.json(`/versions/${version}/edits`, {
      basedOn: now.edit,
      patches: [
        {
          op: 'add',
          path: ['decisions', 'finger m9n0'],
          value: { kind: 'finger', at: { note: 'm9n0' }, value: finger },
        },
      ],
    });
    must(answer.status === 200, 'An edit was refused', answer);
    return (answer.body as { edit: number }).edit;
  };
  const note = (text: string) =>
    window.form(`/learners/${learner}?/lesson`, {
      date: '2026-03-02',
      note: text,
      once: `${text} ${'x'.repeat(20)}`,
    });
  await note('Before the hour.');
  const first = await edit(2);
  goBack();
  await new Promise((resolve) => setTimeout(resolve, 300));
  const second = await edit(4);
  must(second === first + 1, 'Edits are not in their order', [first, second]);
  for (let twice = 0; twice < 2; twice++) await note('After the hour.');
  const page = String((await window.get(`/learners/${learner}?find=hour`)).body);
  for (const said of ['Before the hour.', 'After the hour.']) must(page.includes(said), `“${said}” is lost`);
  must(page.split('After the hour.').length <= 3, 'A form that was sent twice made two');
  const state = (await window.json(`/versions/${version}/edits`, { step: 'undo' })).body as { edit: number };
  must(state.edit === second + 1, 'Undo takes something else', state);
  return 'the clock an hour back: edits, notes and undo in their order, nothing twice.';
}
