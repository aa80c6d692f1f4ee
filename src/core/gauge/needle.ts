import { failure, success, type Outcome } from '../outcome';
import { straight } from './straight';

/** What a sender gives at its low and its high stop [ohm or V]. */
export type Scale = { readonly empty: number; readonly full: number };

export type TaughtPoint = { readonly reading: number; readonly shown_ratio: number };

/**
 * How a needle follows what the sender gives. `linear`: in proportion between
 * empty and full. `cross-coil`: two crossed coils, one of them beside the
 * sender; `half` is what stands it in the middle. `calibrated`: straight
 * between points that it was taught.
 */
export type Gauge = { readonly tolerance_ratio: number } & (
  | ({ readonly kind: 'linear' } & Scale)
  | {
      readonly kind: 'cross-coil';
      readonly empty: number;
      readonly full: number;
      /** Resistance of the coil beside the sender [ohm]. */ readonly coil_ohm: number;
    }
  | {
      readonly kind: 'calibrated';
      /** None: not taught yet. */ readonly points: readonly TaughtPoint[];
      readonly mostPoints: number;
    }
);

/**
 * Direction of the field of two coils at right angles, in series with each
 * other, the second with the sender beside it: the same current I runs in the
 * first, and R / (R + R2) of it in the second.
 * @source current divider; docs/derivations/gauges.md
 */
const fieldAngle = (sender_ohm: number, coil_ohm: number): number => Math.atan2(sender_ohm, sender_ohm + coil_ohm);

const crossed = (empty: number, full: number, reading: number, coil_ohm: number): number => {
  const at = fieldAngle(empty, coil_ohm);
  return (fieldAngle(Math.max(0, reading), coil_ohm) - at) / (fieldAngle(full, coil_ohm) - at);
};

export type NeedleCode = 'no-range' | 'no-coil' | 'untaught';

const COIL_OHM = [1e-3, 1e6] as const;
const HALVINGS = 80;

/**
 * A cross-coil gauge from the three resistances at which it shows empty, half and full.
 *
 * The coil beside the sender is not printed on any gauge; it follows from
 * where half lies. A small coil answers to 1/R, a large one to R, so that half
 * must lie between the harmonic and the arithmetic mean of the ends, or nearly so.
 */
export function crossCoil(
  empty: number,
  half: number,
  full: number,
  tolerance_ratio: number,
): Outcome<Gauge, NeedleCode> {
  if (empty === full) return failure('no-range', 'gauge', "The gauge's empty and full resistances must differ.");
  const off = (coil: number): number => crossed(empty, full, half, coil) - 0.5;
  let [low, high] = COIL_OHM as readonly [number, number];
  if (off(low) * off(high) > 0) {
    return failure(
      'no-coil',
      'gauge',
      `No cross-coil gauge shows half at ${round(half)} Ω with ends at ${round(empty)} and ${round(full)} Ω; half lies between about ${round(halfFor(empty, full, low))} and ${round(halfFor(empty, full, high))} Ω.`,
    );
  }
  for (let i = 0; i < HALVINGS; i++) {
    const middle = Math.sqrt(low * high);
    if (off(low) * off(middle) <= 0) high = middle;
    else low = middle;
  }
  return success({ kind: 'cross-coil', empty, full, coil_ohm: Math.sqrt(low * high), tolerance_ratio });
}

const round = (value: number): number => Number(value.toPrecision(3));

/** Where half lies for a coil, by halving between the ends. */
function halfFor(empty: number, full: number, coil: number): number {
  let [a, b] = [empty, full];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (a + b) / 2;
    if (crossed(empty, full, middle, coil) < 0.5) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

/** Needle position, 0 empty to 1 full, held at its ends. */
export function needleAt(gauge: Gauge, reading: number): number {
  return Math.min(1, Math.max(0, unheld(gauge, reading)));
}

function unheld(gauge: Gauge, reading: number): number {
  switch (gauge.kind) {
    case 'linear':
      return (reading - gauge.empty) / (gauge.full - gauge.empty);
    case 'cross-coil':
      return crossed(gauge.empty, gauge.full, reading, gauge.coil_ohm);
    case 'calibrated':
      return taughtAt(gauge.points, reading);
  }
}

/** Straight between the points taught, held beyond the first and last. */
export function taughtAt(points: readonly TaughtPoint[], reading: number): number {
  const way = Math.sign(points.at(-1)!.reading - points[0]!.reading);
  return straight(
    points.map((point) => way * point.reading),
    points.map((point) => point.shown_ratio),
    way * reading,
  );
}
