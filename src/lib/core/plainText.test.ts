import { describe, expect, it } from 'vitest';
import { linesText, lineText, plainLine, plainLines } from './plainText';

describe('what is typed', () => {
  it('has nothing in it that cannot be seen', () => {
    expect(plainLine('No\u0000ra\u001b[31m \u202eB.\r\n')).toBe('No ra [31m B.');
    expect(plainLine('\ufeffAn\u200bna')).toBe('An na');
  });
  it('keeps what other scripts need, and the letters of all of them', () => {
    expect(plainLine('می‌خواهم Zoë 李')).toBe('می‌خواهم Zoë 李');
  });
  it('keeps its lines where it has several', () => {
    expect(plainLines('one\r\ntwo\u0007\n\tthree')).toBe('one\ntwo\n\tthree');
  });
  it('is judged after it was cleaned', () => {
    expect(lineText().min(1).safeParse('\u0000\u0001').success).toBe(false);
    expect(linesText().max(3).parse(' a\nb ')).toBe('a\nb');
  });
});
