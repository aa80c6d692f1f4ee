import { memoized } from '../memo';
import { levelForVolume, offsetRange, volumesAlong, type ClosedMesh, type Vec3 } from '../geometry';
import { failure, success, unwrap, type Outcome } from '../outcome';
import { needleAt, type Gauge, type NeedleCode, type Scale } from './needle';
import { freeRun, lawOf, readingOf, shareAt, type Sender } from './sender';
import type { FreeRun, Hindrance, SenderCode } from './senderLaw';
import { straight } from './straight';
import { taughtFrom } from './correction';
import { breaks, lowestPassing, worstPlace } from './worstError';

/** A sender with what it gives and how truly, and the gauge that shows it. */
export type Instrument = {
  readonly sender: Sender;
  readonly output: Scale;
  /** Half-width of what it gives wrongly, of its span. */
  readonly tolerance_ratio: number;
  readonly gauge: Gauge;
};

/** Where the sender stands: its compartment, and what else is in it. */
export type Surround = { readonly room: ClosedMesh; readonly round: readonly Hindrance[] };

export type GaugePoint = {
  readonly volume_m3: number;
  /** How far along its travel the sender stands. */
  readonly share: number;
  /** [ohm or V] */
  readonly reading: number;
  /** What the needle says and what it should say, as shares of what the tank holds. */
  readonly needle_ratio: number;
  readonly true_ratio: number;
  /** Where the needle may stand with the tolerances of sender and gauge. */
  readonly needleLow_ratio: number;
  readonly needleHigh_ratio: number;
};

export type GaugeCurve = {
  readonly points: readonly GaugePoint[];
  readonly free: FreeRun;
  /** As taught, where the gauge is one that is taught. */
  readonly gauge: Gauge;
  /** Largest |needle - truth| over all fillings, with its sign, and where. */
  readonly worst: { readonly error_ratio: number; readonly at: GaugePoint };
  /** Liquid below and above which the sender no longer moves [m³]. */
  readonly unseenLow_m3: number;
  readonly unseenHigh_m3: number;
};

export type GaugeCode = SenderCode | NeedleCode | 'no-volume';

/**
 * What the needle says against what the tank holds, from empty to the fill
 * limit, at one attitude.
 *
 * @param holds_m3 the volume that should read full
 * @param up       unit vector against effective gravity, tank frame
 * @param steps    equal steps of depth
 */
export function gaugeCurve(
  mesh: ClosedMesh,
  instrument: Instrument,
  holds_m3: number,
  up: Vec3,
  steps: number,
  surround: Surround = { room: mesh, round: [] },
): Outcome<GaugeCurve, GaugeCode> {
  const { sender } = instrument;
  const bad = unfit(instrument, holds_m3);
  if (bad) return bad;
  const free = freeRun(sender, surround.room, surround.round);
  if (!free) {
    const { code, detail } = lawOf(sender).stuck;
    return failure(code, 'sender', detail);
  }
  const below = volumesAlong(mesh, up);
  const [low] = offsetRange(mesh, up);
  const full = unwrap(levelForVolume(mesh, up, holds_m3)).offset_m;
  const surfaces = Array.from({ length: steps + 1 }, (_, i) => {
    const offset_m = low + ((full - low) * i) / steps;
    return { offset_m, volume_m3: i === steps ? holds_m3 : below(offset_m) };
  });
  const standing = (offset_m: number, volume_m3: number) => {
    const share = shareAt(sender, free, up, offset_m);
    return { volume_m3, share, reading: readingOf(instrument.output, share), true_ratio: volume_m3 / holds_m3 };
  };
  const gauge = taughtFrom(
    instrument.gauge,
    surfaces.map(({ offset_m, volume_m3 }) => standing(offset_m, volume_m3)),
  );
  if (!gauge.ok) return gauge;
  const pointAt = (offset_m: number, volume_m3 = Math.min(holds_m3, below(offset_m))): GaugePoint => {
    const stood = standing(offset_m, volume_m3);
    return { ...stood, ...needleBand(gauge.value, instrument, stood.reading) };
  };
  const kinks = breaks(mesh, sender, free, gauge.value, instrument.output, up, low, full);
  const worst = pointAt(
    worstPlace(
      (offset_m) => {
        const { needle_ratio, true_ratio } = pointAt(offset_m);
        return needle_ratio - true_ratio;
      },
      kinks,
      surfaces.map(({ offset_m }) => offset_m),
    ),
  );
  const even = surfaces.map(({ offset_m, volume_m3 }) => pointAt(offset_m, volume_m3));
  // What is drawn of it has the worst in it, and turns where the sender does.
  const turns = turnsOf(sender, free, up, low, full);
  const points = [...even, worst, ...turns.map((offset_m) => pointAt(offset_m))]
    .sort((p, q) => p.volume_m3 - q.volume_m3)
    .filter((point, i, all) => i === 0 || point.volume_m3 > all[i - 1]!.volume_m3);
  return success({
    points,
    free,
    gauge: gauge.value,
    worst: { error_ratio: worst.needle_ratio - worst.true_ratio, at: worst },
    ...unseen(below, turns, holds_m3),
  });
}

/** Surfaces at which the sender leaves its low end and comes to its high one. */
function turnsOf(sender: Sender, free: FreeRun, up: Vec3, low: number, full: number): [number, number] {
  const [from, to] = [shareAt(sender, free, up, low), shareAt(sender, free, up, full)];
  return [
    lowestPassing((at) => shareAt(sender, free, up, at) > from + LEFT_SHARE, low, full),
    lowestPassing((at) => shareAt(sender, free, up, at) >= to - LEFT_SHARE, low, full),
  ];
}

function unfit(
  { sender, output, gauge }: Instrument,
  holds_m3: number,
): ReturnType<typeof failure<GaugeCode>> | undefined {
  const wrong = lawOf(sender).contradiction(sender);
  if (wrong) return failure(wrong.code, 'sender', wrong.detail);
  if (output.empty === output.full)
    return failure('no-range', 'sender', 'What the sender gives at empty and at full must differ.');
  if (gauge.kind !== 'calibrated' && gauge.empty === gauge.full)
    return failure('no-range', 'gauge', "The gauge's empty and full ends must differ.");
  return holds_m3 > 0 ? undefined : failure('no-volume', 'tank', 'The tank holds nothing.');
}

/** The needle, and where it may stand: the two tolerances are independent, so their squares add. */
export function needleBand(
  gauge: Gauge,
  { output, tolerance_ratio }: Pick<Instrument, 'output' | 'tolerance_ratio'>,
  reading: number,
): Pick<GaugePoint, 'needle_ratio' | 'needleLow_ratio' | 'needleHigh_ratio'> {
  const needle_ratio = needleAt(gauge, reading);
  const off = tolerance_ratio * Math.abs(output.full - output.empty);
  const others = [needleAt(gauge, reading - off), needleAt(gauge, reading + off)];
  const reach = (by: number): number => Math.hypot(by, gauge.tolerance_ratio);
  return {
    needle_ratio,
    needleLow_ratio: Math.max(0, needle_ratio - reach(needle_ratio - Math.min(...others))),
    needleHigh_ratio: Math.min(1, needle_ratio + reach(Math.max(...others) - needle_ratio)),
  };
}

/** Of its travel: what counts as having left an end. */
const LEFT_SHARE = 1e-9;

/** Volumes at which the sender leaves its low end, and that are left when it reaches its high end. */
const unseen = (
  below: (offset_m: number) => number,
  [left, reached]: readonly [number, number],
  holds_m3: number,
): { unseenLow_m3: number; unseenHigh_m3: number } => ({
  unseenLow_m3: Math.min(holds_m3, below(left)),
  unseenHigh_m3: holds_m3 - Math.min(holds_m3, below(reached)),
});

/** What the needle shows at one surface. */
export function readingAt(
  instrument: Instrument,
  gauge: Gauge,
  free: FreeRun,
  up: Vec3,
  offset_m: number,
): { share: number; reading: number; needle_ratio: number } {
  const share = shareAt(instrument.sender, free, up, offset_m);
  const reading = readingOf(instrument.output, share);
  return { share, reading, needle_ratio: needleAt(gauge, reading) };
}

/** The volumes between which the tank may hold when the needle stands at a share, with what is likeliest [m³]. */
export type VolumeSpan = { readonly volume_m3: number; readonly least_m3: number; readonly most_m3: number };

/** Points of a curve, each with the least and most the needle may show. */
type Banded = Pick<GaugePoint, 'volume_m3' | 'needle_ratio' | 'needleLow_ratio' | 'needleHigh_ratio'>;

/**
 * What is in the tank when the needle stands there: rising through it; and the least and most that would still let it.
 */
export function volumesAt(points: readonly Banded[], needle: number): VolumeSpan {
  const first = (value: (point: Banded) => number): number => {
    const after = points.findIndex((point) => value(point) >= needle);
    if (after < 0) return points.at(-1)!.volume_m3;
    if (after === 0) return points[0]!.volume_m3;
    const [a, b] = [points[after - 1]!, points[after]!];
    return a.volume_m3 + ((b.volume_m3 - a.volume_m3) * (needle - value(a))) / (value(b) - value(a));
  };
  return {
    volume_m3: first((point) => point.needle_ratio),
    least_m3: first((point) => point.needleHigh_ratio),
    most_m3: first((point) => point.needleLow_ratio),
  };
}

/** Heights at which a tank's volume is worked out for each attitude. */
const HEIGHTS = 48;

/** The curve's points with where the needle may stand at another attitude, with as much in the tank. */
export function bandAt(mesh: ClosedMesh, instrument: Instrument, curve: GaugeCurve, up: Vec3): GaugePoint[] {
  const surface = surfaceTable(mesh, up, HEIGHTS);
  return curve.points.map((point) => ({
    ...point,
    ...needleBand(
      curve.gauge,
      instrument,
      readingOf(instrument.output, shareAt(instrument.sender, curve.free, up, surface(point.volume_m3))),
    ),
  }));
}

/** The curve's band widened by what the needle does at other attitudes. */
export const withSlopes = (curve: GaugeCurve, bands: readonly (readonly GaugePoint[])[]): GaugePoint[] =>
  curve.points.map((point, i) => ({
    ...point,
    needleLow_ratio: Math.min(point.needleLow_ratio, ...bands.map((band) => band[i]!.needleLow_ratio)),
    needleHigh_ratio: Math.max(point.needleHigh_ratio, ...bands.map((band) => band[i]!.needleHigh_ratio)),
  }));

/** Height of the surface by volume, straight between so many even heights; held at floor and brim. */
export const surfaceTable = memoized(
  'surface table',
  (mesh: ClosedMesh, up: Vec3, heights: number): ((volume_m3: number) => number) => {
    const [low, high] = offsetRange(mesh, up);
    const offsets = Float64Array.from({ length: heights + 1 }, (_, i) => low + ((high - low) * i) / heights);
    const volumes = offsets.map(volumesAlong(mesh, up));
    return (volume_m3) => straight(volumes, offsets, volume_m3);
  },
  96,
);
