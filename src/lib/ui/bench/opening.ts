/** What comes with a version's page before anything is computed in it: enough to be seen and read. */
import type { Form } from '$core/analysis/form';
import type { Key } from '$core/theory/key';

export interface Opening {
  readonly form: Form;
  readonly numbers: readonly string[];
  readonly difficulty: readonly number[];
  readonly level: number;
  readonly levelName: string;
  readonly key: Key;
  readonly accountText: string;
}
