// The package ships no types; these are the few calls we use.
declare module 'verovio/wasm' {
  const createVerovioModule: () => Promise<unknown>;
  export default createVerovioModule;
}
declare module 'verovio/esm' {
  export class VerovioToolkit {
    constructor(module: unknown);
    setOptions(options: Record<string, unknown>): void;
    loadData(data: string): number;
    getPageCount(): number;
    renderToSVG(page: number): string;
    getLog(): string;
  }
}
