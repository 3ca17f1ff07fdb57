/** What every answer says about itself. The policy for scripts and styles stands in svelte.config.js. */

const ALWAYS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'x-frame-options': 'DENY',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(), geolocation=(), payment=()',
} as const;

/** Answers are about people: no browser and no proxy keeps one unless it says so itself. */
export function guarded(response: Response): Response {
  for (const [name, value] of Object.entries(ALWAYS)) response.headers.set(name, value);
  if (!response.headers.has('cache-control') || isPage(response))
    response.headers.set('cache-control', 'no-store');
  if (!response.headers.has('content-security-policy'))
    response.headers.set('content-security-policy', "default-src 'none'; frame-ancestors 'none'");
  return response;
}

const isPage = (response: Response): boolean =>
  response.headers.get('content-type')?.startsWith('text/html') ?? false;
