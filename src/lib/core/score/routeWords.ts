/** Words that send a player elsewhere: "D.C. al Fine", "dal segno", "To Coda", "Fine". */
import type { Route } from './score';

/** What words say of the way through a piece; empty where they say nothing of it. */
export function routeInWords(words: string): Route {
  return {
    ...(/^[\s(]*fine[\s).]*$/i.test(words) ? { fine: true } : {}),
    ...(/\bto coda\b/i.test(words) ? { toCoda: true } : {}),
    ...(/\bD\. ?C\b|\bDC\b(?= al\b|\.|$)|\bda capo\b/i.test(words)
      ? { jump: 'da capo' as const }
      : /\bD\. ?S\b|\bDS\b(?= al\b|\.|$)|\bdal segno\b/i.test(words)
        ? { jump: 'dal segno' as const }
        : {}),
  };
}

/** What stands at a jump: how far it goes is said by what the piece has. */
export const jumpText = (
  jump: NonNullable<Route['jump']>,
  { hasFine, hasCoda }: { readonly hasFine: boolean; readonly hasCoda: boolean },
): string => `${jump === 'da capo' ? 'D.C.' : 'D.S.'}${hasCoda ? ' al Coda' : hasFine ? ' al Fine' : ''}`;
