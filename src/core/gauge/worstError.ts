import { dot, vertex, type ClosedMesh, type Vec3 } from '../geometry';
import type { Gauge, Scale } from './needle';
import { lawOf, shareAt, type Sender } from './sender';
import type { FreeRun } from './senderLaw';

const HALVINGS = 60;
/** Of the depth: two places nearer than this are one, and just beside a place means so far from it. */
const BESIDE_REL = 1e-9;
/** A faceted round wall has corners everywhere and breaks nowhere: more levels than this are no breaks. */
const MOST_LEVELS = 60;
/** So many of the places where the samples show most are searched between their neighbours. */
const SEARCHED = 4;
const SECTIONS = 28;
/** Shares nearer than this are one. */
const SAME = 1e-12;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * Surfaces between two at which the error's slope breaks or the error jumps:
 * where the sender meets an end of its free run, where a contact of it closes,
 * where the needle meets an end of its scale or a point that it was taught, and
 * where the tank has a corner.
 */
export function breaks(
  mesh: ClosedMesh,
  sender: Sender,
  free: FreeRun,
  gauge: Gauge,
  output: Scale,
  up: Vec3,
  low: number,
  full: number,
): number[] {
  const shares = [
    free.low_share,
    free.high_share,
    ...contacts(sender, free),
    ...readings(gauge).map((reading) => (reading - output.empty) / (output.full - output.empty)),
  ];
  const [from, to] = [shareAt(sender, free, up, low), shareAt(sender, free, up, full)];
  const near = BESIDE_REL * (full - low);
  const inner = [
    ...shares
      .filter((share) => share >= from && share <= to)
      .flatMap((share) => [
        lowestPassing((at) => shareAt(sender, free, up, at) >= share - SAME, low, full),
        lowestPassing((at) => shareAt(sender, free, up, at) > share + SAME, low, full),
      ]),
    ...levels(mesh, up),
  ]
    .filter((at) => at > low + near && at < full - near)
    .sort((a, b) => a - b);
  return [low, ...inner.filter((at, i) => i === 0 || at - inner[i - 1]! > near), full];
}

function contacts(sender: Sender, free: FreeRun): number[] {
  const step = lawOf(sender).contact_share(sender);
  if (!(step > 0)) return [];
  return Array.from(
    { length: Math.max(0, Math.floor((free.high_share - free.low_share) / step) + 2) },
    (_, i) => step * (Math.floor(free.low_share / step) + i),
  );
}

const readings = (gauge: Gauge): number[] =>
  gauge.kind === 'calibrated' ? gauge.points.map(({ reading }) => reading) : [gauge.empty, gauge.full];

/** Heights of the tank's corners; none where it has so many that it is round. */
function levels(mesh: ClosedMesh, up: Vec3): number[] {
  const heights = Array.from({ length: mesh.positions.length / 3 }, (_, v) => dot(up, vertex(mesh, v))).sort(
    (a, b) => a - b,
  );
  const near = BESIDE_REL * (heights.at(-1)! - heights[0]!);
  const apart = heights.filter((height, i) => i === 0 || height - heights[i - 1]! > near);
  return apart.length > MOST_LEVELS ? [] : apart;
}

/** The lowest surface that passes a test which, once passed, all higher ones pass. */
export function lowestPassing(passes: (offset_m: number) => boolean, low: number, full: number): number {
  let [before, after] = [low, full];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (before + after) / 2;
    if (passes(middle)) after = middle;
    else before = middle;
  }
  return after;
}

/**
 * Where |error| is largest: looked at just beside every break and at the
 * places between, and where these show most searched on by golden sections.
 *
 * @param breaks rising; the error is smooth between two of them
 * @param places looked at besides, such as even steps
 */
export function worstPlace(
  error: (offset_m: number) => number,
  breaks: readonly number[],
  places: readonly number[],
): number {
  const near = BESIDE_REL * (breaks.at(-1)! - breaks[0]!);
  const spans: { readonly low: number; readonly high: number; readonly error: number; readonly at: number }[] = [];
  let worst = { at: breaks[0]!, error: 0 };
  const look = (at: number): number => {
    const found = error(at);
    if (Math.abs(found) > Math.abs(worst.error)) worst = { at, error: found };
    return found;
  };
  for (let b = 1; b < breaks.length; b++) {
    const [low, high] = [breaks[b - 1]! + near, breaks[b]! - near];
    const within = [low, ...places.filter((at) => at > low && at < high), high];
    const found = within.map(look);
    for (let i = 0; i < within.length; i++) {
      const [before, after] = [found[i - 1], found[i + 1]];
      const size = Math.abs(found[i]!);
      // A peak of what was looked at, or an end that it may lie beside.
      if ((before === undefined || Math.abs(before) <= size) && (after === undefined || Math.abs(after) <= size))
        spans.push({
          low: within[Math.max(0, i - 1)]!,
          high: within[Math.min(within.length - 1, i + 1)]!,
          error: found[i]!,
          at: within[i]!,
        });
    }
  }
  for (const { low, high, error: peak } of spans
    .sort((a, b) => Math.abs(b.error) - Math.abs(a.error))
    .slice(0, SEARCHED))
    section((at) => Math.sign(peak || 1) * look(at), low, high);
  return worst.at;
}

/** Golden sections towards a peak; every place looked at is noted by who is asked. */
function section(value: (at: number) => number, from: number, to: number): void {
  let [low, high] = [from, to];
  let [a, b] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)];
  let [atA, atB] = [value(a), value(b)];
  for (let i = 0; i < SECTIONS; i++) {
    if (atA > atB) {
      [high, b, atB] = [b, a, atA];
      a = high - GOLDEN * (high - low);
      atA = value(a);
    } else {
      [low, a, atA] = [a, b, atB];
      b = low + GOLDEN * (high - low);
      atB = value(b);
    }
  }
}
