/**
 * The engraver's package carries its WebAssembly as text inside its script: every page would decode and compile megabytes anew, and every
 * thread of the server would keep them as text. The bytes become a file of their own: a browser compiles it while it arrives and keeps
 * it compiled, a thread reads it when it engraves for the first time.
 */
import type { Plugin } from 'vite';

const MODULE = /verovio[\\/]dist[\\/]verovio-module\.mjs$/;
const LITERAL = "return binaryDecode('";
const INSTANTIATE = 'return instantiateArrayBuffer(binaryFile,imports)';

/** The bytes of the package's own encoding: each character is a byte, after its escapes are read. */
function decoded(literal: string): Uint8Array {
  const text = new Function(`return ${literal}`)() as string;
  // As the package's binaryDecode does.
  return Uint8Array.from(text, (character) => {
    const code = character.charCodeAt(0);
    return (~code >> 8) & code;
  });
}

/** How the bytes are had where the script runs; `binaryFile` is the address of the file. */
const FROM = {
  page: 'return WebAssembly.instantiateStreaming(fetch(binaryFile),imports)',
  server:
    "return WebAssembly.instantiate(process.getBuiltinModule('fs').readFileSync(new URL('.' + binaryFile, import.meta.url)),imports)",
};

export function separateWasm(runsIn: keyof typeof FROM = 'page'): Plugin {
  return {
    name: 'separate-wasm',
    apply: 'build',
    enforce: 'pre',
    transform(code, id) {
      if (!MODULE.test(id.split('?')[0]!)) return undefined;
      const from = code.indexOf(LITERAL);
      const start = from + LITERAL.length - 1;
      let end = start + 1;
      while (code[end] !== "'") end += code[end] === '\\' ? 2 : 1;
      if (from < 0 || !code.includes(INSTANTIATE))
        this.error('The engraver’s package is built otherwise than it was: see scripts/separateWasm.ts.');
      const bytes = decoded(code.slice(start, end + 1));
      const file = this.emitFile({ type: 'asset', name: 'engraver.wasm', source: bytes });
      const separated =
        `${code.slice(0, from)}return import.meta.ROLLUP_FILE_URL_${file}${code.slice(code.indexOf(')', end) + 1)}`.replace(
          INSTANTIATE,
          FROM[runsIn],
        );
      return { code: separated, map: null };
    },
  };
}
