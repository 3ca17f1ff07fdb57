/** What the attributes of our pictures say: in which face letters are set, and how a group is moved and scaled. */
import type { Face, Family } from './faces';

const FAMILY_MARKS: readonly (readonly [string, Family])[] = [
  ['Mono', 'mono'],
  ['Tinos', 'words'],
];

type Attributes = Readonly<Record<string, string>>;

/** The face of an element: what it says, over that of those around it. */
export function faceIn(
  { 'font-family': family, 'font-weight': weight, 'font-style': style }: Attributes,
  around: Face,
): Face {
  if (family === undefined && weight === undefined && style === undefined) return around;
  return {
    family: family ? (FAMILY_MARKS.find(([mark]) => family.includes(mark))?.[1] ?? 'sans') : around.family,
    isBold: weight ? weight === 'bold' || Number(weight) >= 600 : around.isBold,
    isItalic: style ? style !== 'normal' : around.isItalic,
  };
}

/** A move or a scaling along both axes. */
interface Change {
  readonly kind: 'translate' | 'scale';
  readonly x: number;
  readonly y: number;
}

/** The changes of a transform, in order; there are no others in our pictures. */
export const changesIn = ({ transform = '' }: Attributes): Change[] =>
  [...transform.matchAll(/(translate|scale)\(([^)]*)\)/g)].map(([, name, list = '']): Change => {
    const [x = 0, y] = list.split(/[ ,]+/).filter(Boolean).map(Number);
    const kind = name as Change['kind'];
    return { kind, x, y: y ?? (kind === 'scale' ? x : 0) };
  });
