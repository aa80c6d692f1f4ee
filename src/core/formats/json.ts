import { failure, success, type Outcome } from '../outcome';

export type JsonCode = 'not-json' | 'too-deep' | 'twice';

/** Objects and lists within each other; a system has a dozen. */
export const MOST_NESTED = 40;

/**
 * A value from JSON text, with or without a byte-order mark. What JSON leaves
 * open is refused: a key that stands twice in one object, of which readers
 * take one or the other, and nesting without an end.
 *
 * @source RFC 8259, sections 4 ("names within an object SHOULD be unique") and 9 (limits of a parser)
 */
export function readJson(text: string): Outcome<unknown, JsonCode> {
  const bare = text.replace(/^\uFEFF/, '');
  let value: unknown;
  try {
    value = JSON.parse(bare);
  } catch (error) {
    return failure('not-json', 'file', (error as Error).message.slice(0, 200));
  }
  return oddIn(bare) ?? success(value);
}

/** Every string, and every mark that opens, parts or closes; all else in sound JSON says nothing of its structure. */
const MARKS = /"(?:[^"\\]|\\.)*"|[{}[\],:]/g;

/** A key that stands twice, or nesting beyond the limit, in text that is known to be JSON. */
function oddIn(text: string): ReturnType<typeof failure<JsonCode>> | undefined {
  const open: (Set<string> | undefined)[] = [];
  let last = '';
  for (const [mark] of text.matchAll(MARKS)) {
    if (mark === '{' || mark === '[') {
      if (open.push(mark === '{' ? new Set() : undefined) > MOST_NESTED)
        return failure('too-deep', 'file', `It is nested more than ${MOST_NESTED} deep.`);
    } else if (mark === '}' || mark === ']') {
      open.pop();
    } else if (mark === ':') {
      const keys = open.at(-1)!;
      const key = JSON.parse(last) as string;
      if (keys.has(key))
        return failure('twice', key.slice(0, 60), `The key "${key.slice(0, 60)}" stands twice in one object.`);
      keys.add(key);
    }
    last = mark;
  }
  return undefined;
}
