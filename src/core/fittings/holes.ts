import { HOLE_TOOLS, PILOT, THREAD_DEPTH, type HoleToolKind } from '../reference/holeTools';
import type { PortPartRow } from '../reference/portParts';
import { THREADS } from '../reference/threads';

/** How a hole of a size is made in a sheet of a thickness. */
export type HolePlan = {
  readonly hole_m: number;
  readonly pilot_m: number;
  readonly tool: HoleToolKind;
  /** Size of the tool; the hole itself where it is cut to a line [m]. */
  readonly size_m: number;
  /** Left to file out on the diameter [m]. */
  readonly file_m: number;
};

export type TapPlan = {
  readonly thread: string;
  readonly count: number;
  readonly drill_m: number;
  /** Name of the drill where it has one. */
  readonly drill?: string;
  /** That the sheet alone gives. */
  readonly turns: number;
  /** Full threads wanted, as a depth [m]. */
  readonly depth_m: number;
  /** Whether the sheet alone is as thick as that. */
  readonly inSheet: boolean;
};

/** A tool may leave so much to file, in a hole that a shoulder or a weld covers [m]. Common practice. */
const MOST_FILED_M = 0.0012;
/** No tool cuts over the hole. */
const ROUNDING_M = 1e-9;
const PILOTED: ReadonlySet<HoleToolKind> = new Set(['hole-saw']);

/**
 * The first tool of the table, in its order from drill to saw, that cuts the
 * hole or a little under it in a sheet so thick; a jigsaw to a line where none does.
 *
 * @param hole_m  > 0
 * @param sheet_m > 0
 */
export function holePlan(hole_m: number, sheet_m: number): HolePlan {
  for (const { kind, sizes, mostSheet } of HOLE_TOOLS) {
    if (sheet_m > mostSheet + ROUNDING_M) continue;
    const size_m = sizes.findLast((size) => size <= hole_m + ROUNDING_M);
    if (size_m === undefined || hole_m - size_m > MOST_FILED_M) continue;
    const pilot_m = PILOTED.has(kind) ? PILOT.saw : PILOT.twist;
    return { hole_m, tool: kind, size_m, file_m: Math.max(0, hole_m - size_m), pilot_m: Math.min(pilot_m, size_m) };
  }
  return { hole_m, tool: 'jigsaw', size_m: hole_m, file_m: 0, pilot_m: Math.min(PILOT.saw, hole_m) };
}

/** What is tapped for a part: the screws of a ring, or the hole itself. A bung brings its own thread. */
export function tapPlan(part: PortPartRow | undefined, sheet_m: number, soft: boolean): TapPlan | undefined {
  const tapped = part?.join === 'tapped' ? part.thread : part?.bolts?.thread;
  const thread = THREADS.find(({ name }) => name === tapped);
  if (!thread) return undefined;
  const depth_m = part?.bolts ? thread.major_m * THREAD_DEPTH[soft ? 'soft' : 'hard'].diameters : thread.engagement_m;
  return {
    thread: thread.name,
    count: part?.bolts?.count ?? 1,
    turns: sheet_m / thread.pitch_m,
    drill_m: thread.tapDrill_m,
    depth_m,
    inSheet: sheet_m >= depth_m - ROUNDING_M,
    ...(thread.drill ? { drill: thread.drill } : {}),
  };
}
