/**
 * Who and what is let through to Gas Line: the one check of every request,
 * whatever it asks for. `serve.ts` asks it of all that comes in; the pages and
 * routes ask it again, for when they are run by something else.
 */

/** What of a request is looked at; header names in lower case. */
export type Asked = {
  readonly method: string;
  readonly url: string;
  readonly header: (name: string) => string | undefined;
};
export type Turned = { readonly status: number; readonly code: string; readonly detail: string };

const METHODS: ReadonlySet<string> = new Set(['GET', 'HEAD', 'POST', 'PUT', 'DELETE']);
const READS: ReadonlySet<string> = new Set(['GET', 'HEAD']);
const MOST_URL = 4000;

/** Names of this machine for itself. @source RFC 6761, section 6.3; RFC 1122, section 3.2.1.3 */
const LOOPBACK: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** The other addresses that the server was told to answer at, parted by commas; none but with --lan. */
export const ownAddresses = (listed = process.env.GASLINE_LAN_ADDRESSES ?? ''): string[] =>
  listed.split(',').filter(Boolean);

/** Why a request is turned away at the door, or undefined. */
export function turnedAway(asked: Asked, addresses: readonly string[] = ownAddresses()): Turned | undefined {
  return wrongForm(asked) ?? wrongHost(asked, addresses) ?? wrongSite(asked);
}

function wrongForm({ method, url }: Asked): Turned | undefined {
  if (!METHODS.has(method))
    return { status: 405, code: 'method', detail: `Gas Line answers ${[...METHODS].join(', ')}.` };
  if (url.length > MOST_URL)
    return { status: 414, code: 'long-address', detail: `An address has up to ${MOST_URL} characters.` };
  return plainPath(url) === undefined
    ? {
        status: 400,
        code: 'address',
        detail:
          'The address is not whole: a path begins with one /, goes up by no “..”, and a % is followed by two figures of a character.',
      }
    : undefined;
}

/** The path of an address as it will be read, or undefined where two readers could read it differently. */
export function plainPath(url: string): string | undefined {
  const path = url.split('?', 1)[0]!;
  if (!path.startsWith('/') || !isDecodable(path)) return undefined;
  const plain = decodeURIComponent(path);
  return /[\0-\x1f\x7f\\]/.test(plain) ||
    plain.includes('//') ||
    plain.split('/').some((part) => part === '.' || part === '..')
    ? undefined
    : plain;
}

function isDecodable(text: string): boolean {
  try {
    decodeURIComponent(text);
    return true;
  } catch {
    return false;
  }
}

const hostName = (host: string): string => host.toLowerCase().replace(/:\d{1,5}$/, '');

function wrongHost({ header }: Asked, addresses: readonly string[]): Turned | undefined {
  const host = hostName(header('host') ?? '');
  return LOOPBACK.has(host) || addresses.includes(host)
    ? undefined
    : {
        status: 421,
        code: 'foreign-host',
        detail: 'Gas Line answers on this machine only, at 127.0.0.1 or localhost.',
      };
}

/**
 * Another site may not write here, nor read data: by its address, and by what the browser says of where a request comes
 * from. @source Fetch Metadata Request Headers, W3C
 */
function wrongSite({ method, url, header }: Asked): Turned | undefined {
  const isData = url.startsWith('/api/');
  if (READS.has(method) && !isData) return undefined;
  const site = header('sec-fetch-site');
  const origin = header('origin');
  const foreign: Turned = { status: 403, code: 'foreign-origin', detail: 'Another site may not do that here.' };
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return foreign;
  return origin !== undefined && hostOf(origin) !== header('host')?.toLowerCase() ? foreign : undefined;
}

/** Of an Origin header; none of what is no address, such as “null”. */
const hostOf = (origin: string): string | undefined => (URL.canParse(origin) ? new URL(origin).host : undefined);
