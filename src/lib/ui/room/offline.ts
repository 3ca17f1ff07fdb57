/** The room works without the network once it was opened: its worker keeps the page, its script and its sounds. */

/** Registers the worker and hands it what the page has loaded already. It needs a secure page; without one the room works online. */
export async function openOffline(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    const registration = await navigator.serviceWorker.register('/service-worker.js', {
      scope: '/room/',
      type: 'module',
    });
    const { active } = registration.active ? registration : await navigator.serviceWorker.ready;
    const loaded = performance
      .getEntriesByType('resource')
      .map(({ name }) => name)
      .filter((name) => name.startsWith(location.origin));
    active?.postMessage({ keep: [location.pathname, ...loaded] });
  } catch (error) {
    console.warn('This page can’t be kept for offline use:', error);
  }
}
