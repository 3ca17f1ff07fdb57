/** Which requests are not taken at all, and what is said of them. */
import { MOST_BYTES } from '$core/io/limits';
import { nameOf } from './hosts';

export interface Refusal {
  readonly status: 400 | 403 | 409 | 413;
  readonly message: string;
}

/** Kinds of bodies that our own pages send. */
const BODIES = [
  'application/json',
  'application/x-www-form-urlencoded',
  'multipart/form-data',
  // A copy of a studio: no form of another site can send it.
  'application/vnd.sqlite3',
];

/**
 * The largest body, in bytes: a score with the form around it, where pieces are brought; elsewhere what a person can have typed or
 * decided at once. Only a copy of a studio is larger.
 */
const MOST_BODY = { bringing: MOST_BYTES + 1024 * 1024, elsewhere: 2 * 1024 * 1024 };
const BRINGING = '/pieces';
const isCopy = (kind: string | undefined): boolean => kind === 'application/vnd.sqlite3';

const reads = (method: string): boolean => ['GET', 'HEAD', 'OPTIONS'].includes(method);

/**
 * Undefined where a request is taken. What changes anything is only taken from our own pages: an origin has to be ours, and the
 * browser must not say that another site sent it. Hosts are compared rather than whole origins, since the server does not know under
 * which scheme it is reached.
 */
export function refusalOf(
  { method, headers, url }: Pick<Request, 'method' | 'headers' | 'url'>,
  answered: ReadonlySet<string>,
): Refusal | undefined {
  const host = headers.get('host') ?? '';
  if (!answered.has(nameOf(host)))
    return {
      status: 403,
      message: `Key Path does not answer to the name “${nameOf(host).slice(0, 100)}”. Names besides this computer's own are listed in KEYPATH_HOSTS.`,
    };
  if (reads(method)) return undefined;
  const foreign: Refusal = { status: 403, message: 'This form was sent from another site.' };
  const origin = headers.get('origin');
  if (origin === 'null') return foreign;
  if (origin !== null) {
    if (!URL.canParse(origin))
      return { status: 400, message: 'This request says no origin that can be read.' };
    if (new URL(origin).host !== host.toLowerCase()) return foreign;
  }
  if (!['same-origin', 'none', null].includes(headers.get('sec-fetch-site'))) return foreign;
  const kind = headers.get('content-type')?.split(';')[0]!.trim().toLowerCase();
  const length = Number(headers.get('content-length') ?? 0);
  // A browser always says how much it sends.
  const most = new URL(url).pathname === BRINGING ? MOST_BODY.bringing : MOST_BODY.elsewhere;
  if (!isCopy(kind) && (length > most || headers.has('transfer-encoding')))
    return {
      status: 413,
      message: `That’s too much at once. The limit is ${Math.floor(most / 1024 / 1024)} MB here.`,
    };
  const hasBody = kind !== undefined || length > 0;
  return hasBody && !BODIES.includes(kind ?? '')
    ? { status: 400, message: 'This request is of no kind that a page of Key Path sends.' }
    : undefined;
}
