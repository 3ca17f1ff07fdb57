/** The sheet of styles for music in another light than day's. */
import href from './dark.css?url';

export const DARK = href;

/** The page has the sheet from now on. */
export function loadDark(): void {
  if (document.querySelector('link[data-dark]')) return;
  const link = document.createElement('link');
  link.rel = 'stylesheet';
  link.href = DARK;
  link.dataset.dark = '';
  document.head.append(link);
}
