import { readJson } from '@/core/formats';
import { readerOf, type Reader } from '@/core/units';

/** Where the browser tells the server what units its reader has. */
export const READER_COOKIE = 'gasline-reader';

/** The units that a request asks for; the usual ones where it says nothing that is known. */
export function readerOfCookie(value: string | undefined): Reader {
  const kept = readJson(value ?? 'null');
  return readerOf(kept.ok ? kept.value : undefined);
}
