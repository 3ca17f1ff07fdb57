/** The shortcuts of each screen, as the help shows them. */
import { KEYS as BENCH } from '$ui/bench/keys';
import { COMPOSE_KEYS, PAGE_KEYS } from '$ui/compose/keys';
import { LESSON_KEYS } from '$ui/lesson/keys';

export interface Shortcut {
  readonly press: string;
  readonly does: string;
}
export interface Screen {
  readonly name: string;
  /** Which pages it is. */
  readonly path: RegExp;
  readonly shortcuts: readonly Shortcut[];
}

const EVERYWHERE: Screen = {
  name: 'Everywhere',
  path: /^/,
  shortcuts: [
    { press: '?', does: 'help' },
    { press: 'Ctrl+k', does: 'search students, pieces, versions, pages and actions' },
    { press: 'Escape', does: 'close what is open' },
  ],
};

const WALKED: readonly Shortcut[] = [
  { press: 'ArrowLeft', does: 'previous note' },
  { press: 'ArrowRight', does: 'next note' },
  { press: 'ArrowUp', does: 'up through a chord, then to the right hand' },
  { press: 'ArrowDown', does: 'down through a chord, then to the left hand' },
];

export const SCREENS: readonly Screen[] = [
  { name: 'Bench', path: /^\/versions\/[^/]+$/, shortcuts: BENCH },
  { name: 'Lesson', path: /^\/lessons\/[^/]+$/, shortcuts: LESSON_KEYS },
  { name: 'Writing a piece', path: /^\/pieces\/new$/, shortcuts: [...COMPOSE_KEYS, ...PAGE_KEYS] },
  {
    name: 'Music on other pages',
    path: /^\/(versions\/[^/]+\/(levels|compare|handout)|lessons\/[^/]+\/line)$/,
    shortcuts: WALKED,
  },
  EVERYWHERE,
];

/** The screens whose shortcuts work on a page, its own first. */
export const screensAt = (pathname: string): Screen[] => SCREENS.filter((s) => s.path.test(pathname));
