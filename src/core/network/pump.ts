import { failure, success, type Outcome } from '../outcome';
import type { Loss, LossLaw } from './laws';

export type PumpPoint = { readonly flow_m3PerS: number; readonly rise_Pa: number };

export type PumpCode = 'too-few-points' | 'curve-rises' | 'negative-point' | 'no-voltage' | 'voltage-unsteady';

/** A pump's curve at its rated voltage, ordered by flow, falling. */
export type PumpCurve = { readonly points: readonly PumpPoint[] };

/**
 * Checks a pump curve: at least shut-off and free flow, pressure falling as
 * flow grows.
 */
export function parsePumpCurve(points: readonly PumpPoint[], name: string): Outcome<PumpCurve, PumpCode> {
  if (points.length < 2)
    return failure(
      'too-few-points',
      name,
      `The curve of ${name} needs at least two points: flow against no pressure, and pressure against no flow.`,
    );
  const ordered = [...points].sort((a, b) => a.flow_m3PerS - b.flow_m3PerS);
  if (ordered.some((point) => !(point.flow_m3PerS >= 0) || !(point.rise_Pa >= 0))) {
    return failure('negative-point', name, `A point of the curve of ${name} is below zero.`);
  }
  const rising = ordered.findIndex(
    (point, i) =>
      i > 0 && (point.rise_Pa >= ordered[i - 1]!.rise_Pa || point.flow_m3PerS === ordered[i - 1]!.flow_m3PerS),
  );
  if (rising > 0)
    return failure(
      'curve-rises',
      `${name}, point ${rising + 1}`,
      `The curve of ${name} must fall as flow grows; point ${rising + 1} does not.`,
    );
  return success({ points: ordered });
}

/**
 * The curve at another voltage: flow goes with speed and pressure with its
 * square, and a small DC motor's speed goes about with its voltage.
 * @param voltageRatio actual over rated, > 0
 * @source affinity laws of pumps
 */
export const atVoltage = (curve: PumpCurve, voltageRatio: number): PumpCurve => ({
  points: curve.points.map((point) => ({
    flow_m3PerS: point.flow_m3PerS * voltageRatio,
    rise_Pa: point.rise_Pa * voltageRatio * voltageRatio,
  })),
});

/**
 * A running pump as a link law: minus its pressure rise. Straight between
 * points, and straight on beyond both ends at the curve's mean slope, so that
 * backward flow and overrun are seen and reported, not hidden.
 */
export function pumpLaw(curve: PumpCurve): LossLaw {
  const { points } = curve;
  const first = points[0]!;
  const last = points.at(-1)!;
  const mean = (first.rise_Pa - last.rise_Pa) / (last.flow_m3PerS - first.flow_m3PerS);
  return (flow) => {
    if (flow <= first.flow_m3PerS) return along(first, mean, flow);
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1]!, points[i]!];
      if (flow <= b.flow_m3PerS) return along(a, (a.rise_Pa - b.rise_Pa) / (b.flow_m3PerS - a.flow_m3PerS), flow);
    }
    return along(last, mean, flow);
  };
}

const along = (from: PumpPoint, slope: number, flow: number): Loss => ({
  pressure_Pa: slope * (flow - from.flow_m3PerS) - from.rise_Pa,
  slope_PaSPerM3: slope,
});

/** A straight piece of a curve at rated voltage: what it would give at no flow, and how fast it falls. */
type Piece = { readonly from: number; readonly to: number; readonly atNone_Pa: number; readonly fall_PaSPerM3: number };

function piecesOf({ points }: PumpCurve): Piece[] {
  const [first, last] = [points[0]!, points.at(-1)!];
  const mean = (first.rise_Pa - last.rise_Pa) / (last.flow_m3PerS - first.flow_m3PerS);
  const piece = (through: PumpPoint, fall: number, from: number, to: number): Piece => ({
    from,
    to,
    atNone_Pa: through.rise_Pa + fall * through.flow_m3PerS,
    fall_PaSPerM3: fall,
  });
  return [
    piece(first, mean, -Infinity, first.flow_m3PerS),
    ...points.slice(1).map((b, i) => {
      const a = points[i]!;
      const fall = (a.rise_Pa - b.rise_Pa) / (b.flow_m3PerS - a.flow_m3PerS);
      return piece(a, fall, a.flow_m3PerS, b.flow_m3PerS);
    }),
    piece(last, mean, last.flow_m3PerS, Infinity),
  ];
}

/**
 * A pump whose wires take of its voltage by what it works against: its drive goes straight from what it has against no
 * pressure to what it has against the curve's largest, and no further either way. At each flow it gives the rise that
 * leaves it just the drive that gives this rise.
 *
 * @param free    voltage over rated against no pressure, > 0
 * @param shutOff the same against the curve's largest pressure; at or below zero where its wires would take all
 * @source affinity laws on a straight piece of the curve: the drive u that leaves itself is the root of
 * s a u² + (1 − s b q) u − u₀ = 0, with the piece a − b q and the drive's fall s with pressure
 */
export function wiredPumpLaw(
  curve: PumpCurve,
  free: number,
  shutOff: number,
  name: string,
): Outcome<LossLaw, PumpCode> {
  const most_Pa = curve.points[0]!.rise_Pa;
  const pieces = piecesOf(curve);
  const sag = (free - shutOff) / most_Pa;
  if (sag < 0 && pieces.some((piece) => gainsPast(piece, most_Pa, free, shutOff)))
    return failure(
      'voltage-unsteady',
      name,
      `The voltage at ${name} does not settle: its wires lose so much, and it takes so much less current under pressure, that it could rest at more than one. Thicker or shorter wire mends it.`,
    );
  const [atFree, atShutOff] = [free, shutOff].map((ratio) =>
    ratio > 0 ? pumpLaw(atVoltage(curve, ratio)) : undefined,
  );
  return success((flow) => {
    const hardest = atShutOff?.(flow);
    if (hardest && -hardest.pressure_Pa >= most_Pa) return hardest;
    const easiest = atFree!(flow);
    if (-easiest.pressure_Pa <= 0) return easiest;
    let [best, drive, off] = [pieces[0]!, free, Infinity];
    for (const piece of pieces) {
      const ratio = driveOn(piece, flow, sag, free);
      const at = flow / ratio;
      const outside = Math.max(piece.from - at, at - piece.to, 0);
      if (outside < off) [best, drive, off] = [piece, ratio, outside];
      if (outside === 0) break;
    }
    const { atNone_Pa, fall_PaSPerM3: fall } = best;
    return {
      pressure_Pa: -drive * (drive * atNone_Pa - fall * flow),
      slope_PaSPerM3: (fall * drive) / (1 + sag * (2 * drive * atNone_Pa - fall * flow)),
    };
  });
}

/**
 * Whether a drive that gains with pressure gains more, somewhere on a piece of the curve, than that pressure needs:
 * then a flow has no one drive that leaves itself. It is most so where the piece is highest.
 */
function gainsPast(piece: Piece, most_Pa: number, free: number, shutOff: number): boolean {
  const gain = (shutOff - free) / most_Pa;
  const { from, to, atNone_Pa, fall_PaSPerM3: fall } = piece;
  // Of the curve at rated voltage, above which it works against its largest pressure and gains no more.
  const top_Pa = Math.min(atNone_Pa - fall * from, most_Pa / shutOff ** 2);
  if (top_Pa <= Math.max(0, atNone_Pa - fall * to)) return false;
  const inside = 1 - 4 * gain * free * top_Pa;
  const drive = (2 * free) / (1 + Math.sqrt(Math.max(0, inside)));
  return inside < 0 || shutOff >= 2 * free || gain * drive * (top_Pa + atNone_Pa) >= 1;
}

/** The drive that leaves itself on a piece of the curve, however far that goes. */
function driveOn({ atNone_Pa, fall_PaSPerM3 }: Piece, flow: number, sag: number, free: number): number {
  const square = sag * atNone_Pa;
  const linear = 1 - sag * fall_PaSPerM3 * flow;
  const root = Math.sqrt(Math.max(0, linear * linear + 4 * square * free));
  // Whichever way does not take nearly equal numbers from each other.
  return linear >= 0 ? (2 * free) / (linear + root) : (root - linear) / (2 * square);
}
