/**
 * Text by what its bytes are, whatever a declaration inside says: marks of UTF-16 and UTF-8 first, then the zero bytes
 * that UTF-16 without a mark has, UTF-8 where it is valid, and Latin-1 (as Windows extends it) otherwise.
 */
export function decode(bytes: Uint8Array): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  if (first !== 0 && second === 0) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0 && second !== 0) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
