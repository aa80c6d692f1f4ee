import { PLAIN_NAME } from '@/core/formats';
import type { EntryVerdict } from './TextEntry';

const LONGEST = 80;

/** Takes a typed name as the format takes names, and hands it on; or says what a name has. */
export function readName(text: string, put: (name: string) => void): EntryVerdict {
  const name = text.trim();
  if (name.length < 1 || name.length > LONGEST) return { ok: false, message: `A name has 1 to ${LONGEST} characters.` };
  if (!PLAIN_NAME.test(name))
    return {
      ok: false,
      message: 'A name is plain text with a letter, figure or sign, and without control or direction characters.',
    };
  put(name);
  return { ok: true };
}
