import { NUMBER_KEYS, type NumberKey, type Numbers } from '@/core/answers';
import { formatQuantity, type Reader } from '@/core/units';
import { NUMBER_LABELS } from '../numbers/labels';

/** A number before and after a change, in words. */
export type Moved = { readonly key: NumberKey; readonly label: string; readonly was: string; readonly is: string };

/** How far each number may be off, as far as that is known. */
type Spreads = Readonly<Partial<Record<NumberKey, number>>>;

/** A number with as many digits as it has where it stands. */
function text(number: Numbers[NumberKey] | undefined, spread: number | undefined, reader: Reader): string {
  if (!number?.ok) return 'none';
  const { value, role } = number.value;
  return formatQuantity(value, role, { reader, ...(spread ? { spread: spread / 2 } : {}) }).text;
}

/** Which of the numbers a change moved: those that read otherwise than before. */
export const movesBetween = (
  before: Numbers | undefined,
  after: Numbers | undefined,
  reader: Reader,
  spreads: Spreads = {},
  labels: Readonly<Record<NumberKey, string>> = NUMBER_LABELS,
): readonly Moved[] =>
  NUMBER_KEYS.flatMap((key) => {
    const [was, is] = [text(before?.[key], spreads[key], reader), text(after?.[key], spreads[key], reader)];
    return was === is ? [] : [{ key, label: labels[key], was, is }];
  });

/** A move as it is said: the unit once where both have it. */
export function movedText({ label, was, is }: Moved): string {
  const unit = /^[^ ]+ (.+)$/.exec(is)?.[1];
  const first = unit !== undefined && was.endsWith(` ${unit}`) ? was.slice(0, -unit.length - 1) : was;
  return `${label} ${first} → ${is}`;
}
