/** Letters as packages have them (WOFF 1.0, a W3C recommendation) unpacked into the font they were made of: OpenType's tables one after the other. */
import { inflateSync } from 'node:zlib';

const WOFF = { header: 44, entry: 20 } as const;
const SFNT = { header: 12, entry: 16 } as const;
const aligned = (length: number): number => (length + 3) & ~3;

/** Throws where the bytes are no WOFF. */
export function unpackedWoff(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('This is no file of letters.');
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = WOFF.header + i * WOFF.entry;
    const [offset, packed, length] = [4, 8, 12].map((of) => woff.readUInt32BE(at + of)) as [
      number,
      number,
      number,
    ];
    const bytes = woff.subarray(offset, offset + packed);
    return {
      tag: woff.subarray(at, at + 4),
      checksum: woff.readUInt32BE(at + 16),
      bytes: packed < length ? inflateSync(bytes) : bytes,
    };
  });
  const begin = SFNT.header + count * SFNT.entry;
  const font = Buffer.alloc(tables.reduce((sum, t) => sum + aligned(t.bytes.length), begin));
  woff.copy(font, 0, 4, 8);
  const log = Math.floor(Math.log2(count));
  [count, 16 * 2 ** log, log, 16 * (count - 2 ** log)].forEach((n, i) => font.writeUInt16BE(n, 4 + 2 * i));
  let offset = begin;
  tables.forEach(({ tag, checksum, bytes }, i) => {
    const at = SFNT.header + i * SFNT.entry;
    tag.copy(font, at);
    font.writeUInt32BE(checksum, at + 4);
    font.writeUInt32BE(offset, at + 8);
    font.writeUInt32BE(bytes.length, at + 12);
    bytes.copy(font, offset);
    offset += aligned(bytes.length);
  });
  return font;
}
