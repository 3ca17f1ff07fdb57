/** What the search offers: pages and actions, and everything of the studio that has a name. */
import { z } from 'zod';

const named = z.object({ id: z.string(), name: z.string() });
export const foundSchema = z.object({
  students: z.array(named),
  classes: z.array(named),
  pieces: z.array(z.object({ id: z.string(), title: z.string(), composer: z.string() })),
  versions: z.array(named),
});
type Found = z.infer<typeof foundSchema>;

export interface Entry {
  readonly name: string;
  readonly note?: string;
  readonly href?: string;
  readonly act?: 'help' | 'metronome' | 'lesson';
  /** Whose, for an act about a student. */
  readonly student?: string;
}
export interface Group {
  readonly name: string;
  readonly entries: readonly Entry[];
}

const ACTIONS: readonly Entry[] = [
  { name: 'Add a piece', href: '/pieces' },
  { name: 'Write a new piece', href: '/pieces/new' },
  { name: 'Add a student', href: '/learners/new' },
  { name: 'New class', href: '/classes/new' },
  { name: 'Print today’s handouts', href: '/today/handout' },
  { name: 'Metronome', act: 'metronome' },
  { name: 'Help', act: 'help' },
];
const PAGES: readonly Entry[] = [
  { name: 'Today', href: '/' },
  { name: 'Week and month', href: '/week' },
  { name: 'Students', href: '/learners' },
  { name: 'Pieces', href: '/pieces' },
  { name: 'Levels', href: '/settings/levels' },
  { name: 'Fingering preferences', href: '/settings/hand' },
  { name: 'Studio: backups, language, passphrase, trash', href: '/settings/studio' },
];

/** Everything, in groups: actions and pages first where nothing is sought yet, else as it comes. */
export const groupsOf = ({ students, classes, pieces, versions }: Found): Group[] => [
  {
    name: 'Students',
    entries: [
      ...students.map(({ id, name }) => ({ name, href: `/learners/${id}` })),
      ...students.map(({ id, name }) => ({
        name: `Start lesson: ${name}`,
        act: 'lesson' as const,
        student: id,
      })),
    ],
  },
  { name: 'Classes', entries: classes.map(({ id, name }) => ({ name, href: `/classes/${id}` })) },
  {
    name: 'Pieces',
    entries: pieces.map(({ id, title, composer }) => ({
      name: title,
      note: composer,
      href: `/pieces/${id}`,
    })),
  },
  { name: 'Versions', entries: versions.map(({ id, name }) => ({ name, href: `/versions/${id}` })) },
  { name: 'Actions', entries: ACTIONS },
  { name: 'Pages', entries: PAGES },
];

/** Most entries of a group that are listed at once. */
const MOST = 8;

/** The entries that hold every word that is sought; without a word actions and pages. */
export function sought(groups: readonly Group[], text: string): Group[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const wanted =
    words.length > 0 ? groups : groups.filter(({ name }) => name === 'Actions' || name === 'Pages');
  return wanted
    .map(({ name, entries }) => ({
      name,
      entries: entries
        .map((entry) => ({ entry, text: `${entry.name} ${entry.note ?? ''} ${name}`.toLowerCase() }))
        .filter(({ text: at }) => words.every((word) => at.includes(word)))
        // What begins with the words comes first.
        .sort((a, b) => Number(b.text.startsWith(words[0] ?? '')) - Number(a.text.startsWith(words[0] ?? '')))
        .slice(0, MOST)
        .map(({ entry }) => entry),
    }))
    .filter(({ entries }) => entries.length > 0);
}
