import type { PortDocument, SystemDocument } from './schema';

/** What a system is in. */
export type VehicleKind = SystemDocument['vehicle']['kind'];

/**
 * Our own words name sides as in boats; in road vehicles, on sleds, trailers and benches they are left and right, front
 * and rear. Whole phrases, longest first, since *port* is a hole too: what is not among these stays as it is.
 */
const ON_LAND: readonly (readonly [RegExp, string])[] = (
  [
    ['fore and aft', 'front to rear'],
    ['to port', 'to the left'],
    ['to starboard', 'to the right'],
    ['from port', 'from the left'],
    ['from starboard', 'from the right'],
    ['from aft', 'from the rear'],
    ['port (side|face|wall|end|down)', 'left $1'],
    ['(lower|upper) port', '$1 left'],
    ['starboard', 'right'],
    ['aft (side|face|wall|end)', 'rear $1'],
    ['(lower|upper) aft', '$1 rear'],
    ['aft', 'rearward'],
    ['fore', 'front'],
  ] as const
).map(([words, on]) => [new RegExp(`\\b${words}\\b`, 'gi'), on]);

const AFLOAT = /\b(fore|aft|port|starboard)\b/i;

/**
 * A text of ours with its sides named as in such a vehicle. Never for names that builders gave.
 *
 * @param text with sides as in boats: fore, aft, port, starboard
 */
export const sideText = (kind: VehicleKind, text: string): string =>
  kind === 'boat' || !AFLOAT.test(text)
    ? text
    : ON_LAND.reduce(
        (done, [words, on]) =>
          done.replace(words, (found, ...groups: unknown[]) => {
            const put = on.replace('$1', () => (typeof groups[0] === 'string' ? groups[0] : ''));
            return /^[A-Z]/.test(found) ? put[0]!.toUpperCase() + put.slice(1) : put;
          }),
        text,
      );

/** What the sides at the ends of an axis are called, least coordinate first. */
const AXIS_ENDS = { x: ['aft', 'fore'], y: ['starboard', 'port'], z: ['lower', 'upper'] } as const;

/** Faces as sides of a tank, in words as in boats. */
export const FACE_SIDES: Readonly<Record<PortDocument['face'], string>> = {
  lid: 'lid',
  floor: 'floor',
  fore: 'fore side',
  aft: 'aft side',
  port: 'port side',
  starboard: 'starboard side',
};

/** The side at one end of an axis, in such a vehicle: rear, front, right, left, lower or upper. */
export const endWord = (kind: VehicleKind, axis: keyof typeof AXIS_ENDS, end: 'lower' | 'higher'): string => {
  const word = AXIS_ENDS[axis][end === 'lower' ? 0 : 1];
  return sideText(kind, `${word} side`).replace(/ side$/, '');
};
