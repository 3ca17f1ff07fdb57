/** Hands a file to the browser to be kept. */
export function keepFile(bytes: Uint8Array<ArrayBuffer>, name: string, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes], { type }));
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  // The browser has taken it by then.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
