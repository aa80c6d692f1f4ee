import { failure, success, type Outcome } from '../outcome';
import { INCH_M, parseNumber } from '../units';

/** Beyond this a bare number is turns an inch: no thread of pipe or fitting has a pitch of so many millimetres [mm]. */
const MOST_PITCH_MM = 5;

export const PITCH_EXAMPLE = '1.5 mm, 18 tpi or 11 1/2 tpi';

/**
 * A pitch as it is read off a gauge: millimetres a turn, or turns an inch.
 * A bare number up to 5 is millimetres, a larger one turns an inch.
 * @returns pitch [m]
 */
export function parsePitch(
  text: string,
): Outcome<{ readonly pitch_m: number; readonly reading: string }, 'not-a-pitch'> {
  const [, numberText, unit] = /^\s*([\d.,/ ]*\d)\s*(mm|tpi|turns(?: an inch)?|per inch)?\s*$/i.exec(text) ?? [];
  const number = numberText === undefined ? undefined : parseNumber(numberText);
  if (!number?.ok || !(number.value > 0))
    return failure(
      'not-a-pitch',
      text,
      `This is no pitch; enter millimetres a turn or turns an inch, such as ${PITCH_EXAMPLE}.`,
    );
  const inMm = unit ? unit.toLowerCase() === 'mm' : number.value <= MOST_PITCH_MM;
  return success(
    inMm
      ? { pitch_m: number.value / 1000, reading: `${number.value} mm a turn` }
      : { pitch_m: INCH_M / number.value, reading: `${number.value} turns an inch` },
  );
}
