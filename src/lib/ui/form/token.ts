/** A name for one filling in of a form. Works on pages without TLS as well. */
export const formToken = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(18)), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  );
