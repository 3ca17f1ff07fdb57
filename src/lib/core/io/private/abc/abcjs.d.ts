// The parser of abcjs without its drawing and sound: loads in a third of the time. The package types only its whole.
declare module 'abcjs/src/parse/abc_parse.js' {
  export default class Parse {
    parse(abc: string, switches?: object, startPosition?: number): void;
    getTune(): object;
    getWarnings(): string[] | undefined;
  }
}
