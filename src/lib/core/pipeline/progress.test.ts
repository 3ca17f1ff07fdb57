import { describe, expect, it } from 'vitest';
import { stage } from './memo';
import { listening, tell } from './progress';

describe('long work', () => {
  it('tells whoever listens what it is at, stage by stage, and nobody else', () => {
    const double = stage('double', (n: number): { n: number } => ({ n: 2 * n }));
    const heard: string[] = [];
    tell('before');
    listening(
      (what, share) => heard.push(share === undefined ? what : `${what} ${share}`),
      () => {
        tell('read', 0.5);
        double(21);
        double(21);
      },
    );
    tell('after');
    expect(heard).toEqual(['read 0.5', 'double']);
  });
  it('is listened to until what was promised is there', async () => {
    const heard: string[] = [];
    await listening(
      (what) => heard.push(what),
      async () => {
        await Promise.resolve();
        tell('engrave');
      },
    );
    tell('after');
    expect(heard).toEqual(['engrave']);
  });
  it('fails as it would unheard', () => {
    expect(() =>
      listening(
        () => undefined,
        () => {
          throw new Error('no');
        },
      ),
    ).toThrow('no');
  });
});
