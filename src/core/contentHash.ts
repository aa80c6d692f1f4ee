const real = new Float64Array(1);
const halves = new Uint32Array(real.buffer);

const mixed = (hash: number, value: number): number => {
  const next = Math.imul(hash ^ value, 0x9e3779b1);
  return next ^ (next >>> 15);
};

function withNumber(hash: number, value: number): number {
  // Zero is zero, whatever its sign.
  real[0] = value === 0 ? 0 : value;
  return mixed(mixed(hash, halves[0]!), halves[1]!);
}

function withText(hash: number, text: string): number {
  // Of a long text some characters tell enough.
  const step = Math.max(1, Math.floor(text.length / SAMPLES));
  let next = mixed(hash, text.length);
  for (let i = 0; i < text.length; i += step) next = mixed(next, text.charCodeAt(i));
  return next;
}

/** Of long lists of numbers and long texts, so many are looked at. */
const SAMPLES = 64;

function withNumbers(hash: number, numbers: ArrayLike<number>): number {
  const step = Math.max(1, Math.floor(numbers.length / SAMPLES));
  let next = mixed(hash, numbers.length);
  for (let i = 0; i < numbers.length; i += step) next = withNumber(next, numbers[i]!);
  return next;
}

/** What an object is mixed in by without a look into it: a number of its own, or its content’s as that was once. */
const marks = new WeakMap<object, number>();
let marked = 0;

/** From now on an object stands for itself, whatever is in it; it must not change any more. */
export function mark(value: unknown): void {
  if (typeof value === 'object' && value !== null && !marks.has(value)) marks.set(value, ++marked);
}

/**
 * From now on an object is not looked into again, since it must not change any more; it hashes like all that are equal
 * to it and were given to this.
 */
export function hashOnce<T extends object>(value: T): T {
  if (!marks.has(value)) marks.set(value, contentHash(value));
  return value;
}

/**
 * A number that is the same for what is equal by content, and mostly another
 * for what is not: to find the few of many that are worth comparing.
 */
export function contentHash(value: unknown, hash = 0): number {
  switch (typeof value) {
    case 'number':
      return withNumber(hash, value);
    case 'string':
      return withText(hash, value);
    case 'boolean':
      return mixed(hash, value ? 1 : 2);
    case 'object': {
      if (value === null) return mixed(hash, 3);
      const mine = marks.get(value);
      if (mine !== undefined) return mixed(hash, mine);
      if (Array.isArray(value))
        return value.reduce((sum: number, each) => contentHash(each, sum), mixed(hash, value.length));
      if (ArrayBuffer.isView(value)) return withNumbers(hash, value as unknown as ArrayLike<number>);
      if (value instanceof Map || value instanceof Set) return mixed(hash, value.size);
      // In whatever order the keys stand.
      let sum = 0;
      for (const key in value) sum = (sum + contentHash((value as Record<string, unknown>)[key], withText(7, key))) | 0;
      return mixed(hash, sum);
    }
    default:
      return mixed(hash, 4);
  }
}
