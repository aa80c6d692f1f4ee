/** What a file of another encoding is told. */
export const NOT_UTF8 = 'The file is not UTF-8 text, or broken. Save it as UTF-8.';

/**
 * Text from bytes, without its byte-order mark; undefined where they are not UTF-8: a character guessed at is not what
 * was written.
 */
export function utf8Text(bytes: Uint8Array): string | undefined {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
}

/**
 * Text for people: whole characters, and none that are not seen but turn what
 * stands beside them. A line may break, by LF or CR LF, and have tabs.
 * @source Unicode Standard Annex 9, directional formatting characters; general categories Cc and Cs
 */
export const PLAIN_TEXT = /^(?:[\t\r\n]|[^\p{Cc}\p{Cs}\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069])*$/u;
/** The same in one line, with something to be seen in it. */
export const PLAIN_NAME =
  /^(?=.*[\p{L}\p{N}\p{P}\p{S}])[^\p{Cc}\p{Cs}\u2028\u2029\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069]*$/u;
/**
 * What of a text from elsewhere, such as the name of a file, may stand in a document: cut between characters as they
 * are seen.
 */
export function plainName(text: string, most: number): string {
  const plain = text
    .normalize('NFC')
    .replace(/[\p{Cc}\p{Cs}\u2028\u2029\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069]+/gu, ' ')
    .trim();
  if (plain.length <= most) return plain;
  let kept = '';
  for (const { segment } of new Intl.Segmenter().segment(plain)) {
    if (kept.length + segment.length > most) break;
    kept += segment;
  }
  return kept.trim();
}
