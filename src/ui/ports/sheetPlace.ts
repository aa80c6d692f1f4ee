import type { FaceSheet, SheetPort } from '@/core/answers';
import type { Point2 } from '@/core/geometry';
import { onTape, stepsNow } from '../drawing/tapeSteps';

/** Nearer than this to another centre, or to the middle of the sheet, a dragged hole lines up with it. */
const LINE_UP_M = 0.004;

export type Snapped = {
  readonly at: Point2;
  /** What it lines up with across and upward. */ readonly lines: readonly {
    readonly along: 'u' | 'v';
    readonly at_m: number;
    readonly with: string;
  }[];
};

/** Where a dragged hole comes to rest: in line with another, in the middle, or on a mark of the tape. */
export function snapped(
  sheet: Pick<FaceSheet, 'ports' | 'width_m' | 'height_m'>,
  moving: string,
  [u, v]: Point2,
  steps = stepsNow(),
): Snapped {
  const others = sheet.ports.filter(({ id }) => id !== moving);
  const pick = (k: 0 | 1, value: number, middle: number) => {
    const candidates = [
      ...others.map((port) => ({ at: port.at_m[k], with: port.name })),
      { at: middle, with: 'the middle' },
    ];
    const nearest = candidates.reduce((best, one) =>
      Math.abs(one.at - value) < Math.abs(best.at - value) ? one : best,
    );
    return Math.abs(nearest.at - value) < LINE_UP_M ? nearest : undefined;
  };
  const [across, up] = [pick(0, u, sheet.width_m / 2), pick(1, v, sheet.height_m / 2)];
  return {
    at: [across?.at ?? onTape(u, steps), up?.at ?? onTape(v, steps)],
    lines: [
      ...(across ? [{ along: 'v' as const, at_m: across.at, with: across.with }] : []),
      ...(up ? [{ along: 'u' as const, at_m: up.at, with: up.with }] : []),
    ],
  };
}

/**
 * The centre that lies so far from one of its two edges and as far as before
 * from the other; nothing where the edges do not cross.
 */
export function fromEdge(sheet: FaceSheet, port: SheetPort, which: 0 | 1, distance_m: number): Point2 | undefined {
  if (sheet.kind === 'projected') return which === 0 ? [distance_m, port.at_m[1]] : [port.at_m[0], distance_m];
  const outline = sheet.loops[0]!;
  const lines = port.fromEdges.map(({ from, to, distance_m: had }, i) => {
    const [a, b] = [outline[from]!, outline[to]!];
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const normal: Point2 = [(a[1] - b[1]) / length, (b[0] - a[0]) / length];
    const side = Math.sign((port.at_m[0] - a[0]) * normal[0] + (port.at_m[1] - a[1]) * normal[1]) || 1;
    return { normal, offset: normal[0] * a[0] + normal[1] * a[1] + side * (i === which ? distance_m : had) };
  });
  const [first, second] = lines;
  if (!first || !second) return undefined;
  const turn = first.normal[0] * second.normal[1] - first.normal[1] * second.normal[0];
  if (Math.abs(turn) < 1e-6) return undefined;
  return [
    (first.offset * second.normal[1] - second.offset * first.normal[1]) / turn,
    (second.offset * first.normal[0] - first.offset * second.normal[0]) / turn,
  ];
}
