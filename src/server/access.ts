import { createHmac, randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import { database, deviceKey, isLetIn, letIn } from '@/db';

/**
 * Other devices: one is let in by a code that is shown on this machine and
 * works once; it then carries a cookie that is signed, and counts only while
 * the device stands on the list.
 */

/** No letters that are read for figures. */
const LETTERS = 'ABCDEFGHJKMNPQRTUVWXYZ2346789';
const CODE_LENGTH = 8;
const CODE_LASTS_MS = 10 * 60_000;
/** After so many wrong tries a code is void, whoever tried. */
const WRONG_TRIES = 10;

type Waiting = { readonly wrong: number; readonly until_ms: number };
type State = {
  code: { readonly text: string; readonly until_ms: number; readonly wrong: number } | undefined;
  readonly waiting: Map<string, Waiting>;
};
const shared = globalThis as typeof globalThis & { gaslineAccess?: State };
/** One for the whole server: each bundle's own copy of this module would have its own. */
const state = (shared.gaslineAccess ??= { code: undefined, waiting: new Map() });

/** A new code; the one before it no longer works. */
export function newCode(now_ms: number): { readonly code: string; readonly until_ms: number } {
  const text = Array.from({ length: CODE_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');
  state.code = { text, until_ms: now_ms + CODE_LASTS_MS, wrong: 0 };
  return { code: text, until_ms: state.code.until_ms };
}

export type Tried =
  | { readonly ok: true; readonly cookie: string }
  | { readonly ok: false; readonly code: 'slow' | 'wrong' | 'none'; readonly detail: string; readonly wait_s?: number };

/** Each wrong code makes whoever tried wait twice as long, up to a minute. */
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 60_000;
const MOST_WAITING = 200;

/** Lets a device in by the code, once. */
export function tryCode(typed: string, name: string, from: string, now_ms: number): Tried {
  const waiting = state.waiting.get(from);
  if (waiting && now_ms < waiting.until_ms) {
    const wait_s = Math.ceil((waiting.until_ms - now_ms) / 1000);
    return { ok: false, code: 'slow', wait_s, detail: `Too many wrong codes; try again in ${wait_s} s.` };
  }
  const { code } = state;
  if (!code || now_ms > code.until_ms)
    return {
      ok: false,
      code: 'none',
      detail: 'No code works at the moment. Ask for a new one on the machine that Gas Line runs on, under “Your data”.',
    };
  if (!isSame(typed.trim().toUpperCase(), code.text)) return wrongTry(from, now_ms, code);
  state.code = undefined;
  state.waiting.delete(from);
  const id = randomBytes(16).toString('hex');
  letIn(database(), id, name, now_ms);
  return { ok: true, cookie: signed(id) };
}

function wrongTry(from: string, now_ms: number, code: NonNullable<State['code']>): Tried {
  const wrong = (state.waiting.get(from)?.wrong ?? 0) + 1;
  if (state.waiting.size >= MOST_WAITING) state.waiting.delete(state.waiting.keys().next().value!);
  state.waiting.set(from, { wrong, until_ms: now_ms + Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong - 1)) });
  state.code = code.wrong + 1 >= WRONG_TRIES ? undefined : { ...code, wrong: code.wrong + 1 };
  return {
    ok: false,
    code: 'wrong',
    detail: state.code
      ? 'That is not the code.'
      : 'That is not the code, and it no longer works after so many wrong ones. Ask for a new one on the machine that Gas Line runs on.',
  };
}

const isSame = (a: string, b: string): boolean =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

export const COOKIE = 'gasline-device';
/** A device that is not sent away stays for so long. */
const COOKIE_LASTS_S = 90 * 86_400;

const signatureOf = (id: string): string => createHmac('sha256', deviceKey(database())).update(id).digest('hex');
const signed = (id: string): string =>
  `${COOKIE}=${id}.${signatureOf(id)}; HttpOnly; SameSite=Strict; Path=/; Max-Age=${COOKIE_LASTS_S}`;

/** The device that a request's cookies stand for, where it is let in. */
export function deviceOf(cookies: string | undefined, now_ms: number): string | undefined {
  const value = cookies
    ?.split(';')
    .map((one) => one.trim())
    .find((one) => one.startsWith(`${COOKIE}=`))
    ?.slice(COOKIE.length + 1);
  const [id, signature] = value?.split('.') ?? [];
  if (!id || !signature || !/^[0-9a-f]{32}$/.test(id) || !isSame(signature, signatureOf(id))) return undefined;
  return isLetIn(database(), id, now_ms) ? id : undefined;
}

/**
 * What may be asked for by a device that is not let in yet: the page that lets it in, and what that page is made of.
 */
const OPEN_TO_ALL = /^\/(pair$|api\/pair$|_next\/static\/|icon\.svg$|favicon\.ico$)/;
/** What stays with the machine that Gas Line runs on. */
const ONLY_HERE = /^\/(data|api\/data|api\/devices)(?![\w-])/i;

export type Entry =
  { readonly enters: true } | { readonly enters: false; readonly status: 401 | 403 | 303; readonly detail: string };

/**
 * Whether a request from the network comes in: 303 leads a page to where the code is asked for.
 * @param path as `plainPath` reads it
 */
export function fromNetwork(path: string, cookies: string | undefined, now_ms: number): Entry {
  if (OPEN_TO_ALL.test(path)) return { enters: true };
  if (deviceOf(cookies, now_ms) === undefined)
    return path.startsWith('/api/')
      ? {
          enters: false,
          status: 401,
          detail: 'This device is not let in, or was sent away. Open Gas Line’s first page to enter a code.',
        }
      : { enters: false, status: 303, detail: '/pair' };
  return ONLY_HERE.test(path)
    ? { enters: false, status: 403, detail: 'That can be done only on the machine that Gas Line runs on.' }
    : { enters: true };
}
