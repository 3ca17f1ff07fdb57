/** The engraver, Verovio, loaded once per thread. It only ever gets MusicXML that our own writer made. */
import { VerovioToolkit } from 'verovio/esm';
import createVerovioModule from 'verovio/wasm';

let loading: Promise<VerovioToolkit> | undefined;

/** The toolkit of this thread; the first call compiles the WebAssembly (about half a second). */
export function toolkit(): Promise<VerovioToolkit> {
  loading ??= createVerovioModule().then((module) => new VerovioToolkit(module));
  return loading;
}
