import { failure, success, type Outcome } from '../outcome';
import type { Loss, LossLaw } from './laws';

export type PumpPoint = { readonly flow_m3PerS: number; readonly rise_Pa: number };

export type PumpCode = 'too-few-points' | 'curve-rises' | 'negative-point' | 'no-voltage';

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
