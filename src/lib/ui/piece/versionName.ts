/** What a version is called: its own name, else its level and key. */
import { levelText } from '$core/arrange/levels';
import { keyName, parseKey } from '$core/theory/key';

interface NamedVersion {
  readonly name: string | null;
  readonly level: number;
  readonly style: 'solo' | 'sing-along';
  /** The key that was chosen, as a code. */
  readonly key: string | null;
}

export function versionName({ name, level, style, key }: NamedVersion): string {
  if (name) return name;
  const chosen = key === null ? undefined : parseKey(key);
  return `Level ${levelText(level)}${chosen ? ` in ${keyName(chosen)}` : ''}${style === 'sing-along' ? ', sing-along' : ''}`;
}
