/** Rows as comma-separated values (RFC 4180): read by any spreadsheet, and never taken for a formula there. */

const BEGINS_FORMULA = /^[=+\-@\t\r]/;

const cell = (value: string | number | null): string => {
  const text = value === null ? '' : String(value);
  const safe = typeof value === 'string' && BEGINS_FORMULA.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
};

export const csvOf = (rows: readonly (readonly (string | number | null)[])[]): string =>
  rows.map((row) => `${row.map(cell).join(',')}\r\n`).join('');
