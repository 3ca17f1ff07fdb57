/**
 * Under which names this server answers. A page of another site can have its own name lead to this machine (DNS rebinding); such a
 * request carries a name that is not ours.
 */
import { hostname, networkInterfaces } from 'node:os';

const LOCAL = ['localhost', '127.0.0.1', '[::1]'];

/** HOST and KEYPATH_HOSTS, as the process was started with them. */
interface HostSettings {
  /** The address that is listened on. */
  readonly host: string | undefined;
  /** Further names, with commas: those of a proxy in front, say. */
  readonly names: string | undefined;
}

export const hostSettings = (): HostSettings => ({
  host: process.env.HOST,
  names: process.env.KEYPATH_HOSTS,
});

const isLocal = (host: string): boolean => LOCAL.includes(bracketed(host)) || host.startsWith('127.');
const isEverywhere = (host: string): boolean => ['0.0.0.0', '::', '[::]'].includes(host);
const bracketed = (host: string): string =>
  host.includes(':') && !host.startsWith('[') ? `[${host}]` : host.toLowerCase();

/** The names and addresses that are answered. */
export function answeredHosts(
  { host, names }: HostSettings,
  own: readonly string[] = ownAddresses(),
): ReadonlySet<string> {
  const more = (names ?? '')
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter((name) => name !== '');
  const listened = host === undefined || isLocal(host) ? [] : isEverywhere(host) ? own : [host];
  return new Set([...LOCAL, ...listened.map(bracketed), ...more]);
}

const ownAddresses = (): string[] => [
  hostname().toLowerCase(),
  `${hostname().toLowerCase()}.local`,
  ...Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((i) => i.address)),
];

/** Whether others than this computer can get here: then the studio has a passphrase. */
export const isOpenToOthers = ({ host, names }: HostSettings): boolean =>
  (host !== undefined && !isLocal(host)) || (names ?? '').trim() !== '';

/** The name in a Host header, without its port. */
export const nameOf = (header: string): string => header.toLowerCase().replace(/:\d+$/, '');
