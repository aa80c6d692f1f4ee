import {
  add,
  cross,
  dot,
  norm,
  offsetRange,
  scale,
  subtract,
  turned,
  unitVector,
  type Pose,
  type Vec3,
} from '../geometry';
import { alignments, alike, edgesOf, edgeWays, framesAmong, lengthOfEdge, type Edge, type Frame } from './axes';
import type { Blocker, Part } from './moves';

/**
 * Two edges that run side by side, as the rim of a hole or the mouth of a corridor: how wide, how long side by side,
 * and where.
 */
type Rim = { readonly frame: Frame; readonly middle_m: Vec3; readonly sizes_m: readonly [number, number] };

/** Of what stands round it, so many of the longest edges are looked at. */
const MOST_EDGES = 160;
/** A rim is worth trying where it is no more than so many times as wide as the part. */
const WIDE = 3;
/** Edges run side by side where they turn by less than this from each other (sine of 0.5°). */
const PARALLEL = 0.009;
/** So many positions are given, the tightest first. */
const MOST_POSES = 400;

/**
 * Positions in which a part lies along the rim of a hole, in the middle of it, so that it might go through: the
 * tightest first, among alike those that turn it least.
 */
export function poseInRims(part: Part, blockers: readonly Blocker[]): Pose[] {
  const frames = framesAmong(
    edgeWays(part.surface)
      .slice(0, MOST_WAYS)
      .map(({ way }) => way),
    2,
  );
  const spans = frames.map((frame) => frame.map((way) => offsetRange(part.surface, way)));
  const lengths = spans.flat().map(([low, high]) => high - low);
  const [least, most] = [Math.min(...lengths), WIDE * Math.max(...lengths)];
  const edges = blockers
    .flatMap(({ surface }): readonly Edge[] => edgesOf(surface))
    .filter((edge) => lengthOfEdge(edge) > least)
    .sort((a, b) => lengthOfEdge(b) - lengthOfEdge(a))
    .slice(0, MOST_EDGES);
  const rims = edges.flatMap((one, i) => edges.slice(i + 1).flatMap((other) => rimBetween(one, other, least, most)));
  const found = rims.flatMap((rim) =>
    frames.flatMap((frame, f) =>
      alignments(frame, rim.frame).flatMap((axes) => fitted(rim, axes, frame, spans[f]!, part)),
    ),
  );
  return found
    .sort((a, b) => a.spare - b.spare)
    .slice(0, MOST_POSES)
    .map(({ pose }) => pose);
}
const MOST_WAYS = 10;

function rimBetween(one: Edge, other: Edge, least: number, most: number): Rim[] {
  const along = unitVector(subtract(one.to, one.from));
  const otherWay = unitVector(subtract(other.to, other.from));
  if (norm(cross(along, otherWay)) > PARALLEL) return [];
  const at = (point: Vec3): number => dot(subtract(point, one.from), along);
  const ends = [at(other.from), at(other.to)].sort((a, b) => a - b);
  const [low, high] = [Math.max(0, ends[0]!), Math.min(lengthOfEdge(one), ends[1]!)];
  const between = subtract(subtract(other.from, one.from), scale(along, at(other.from)));
  const width = norm(between);
  if (high - low < least || width < least || width > most) return [];
  const across = scale(between, 1 / width);
  return [
    {
      frame: [along, across, cross(along, across)],
      middle_m: add(one.from, add(scale(along, (low + high) / 2), scale(between, 0.5))),
      sizes_m: [high - low, width],
    },
  ];
}

/** The part turned so, its middle in that of the rim, where it goes through and is not much smaller. */
function fitted(
  { frame, middle_m, sizes_m }: Rim,
  axes: Frame,
  own: Frame,
  spans: readonly (readonly [number, number])[],
  part: Part,
): { readonly pose: Pose; readonly spare: number }[] {
  const seen = own.map((way) => turned({ axes, origin_m: [0, 0, 0] }, way));
  const spares = sizes_m.map((size, k) => {
    const [low, high] = spans[seen.findIndex((way) => Math.abs(dot(way, frame[k]!)) > 0.9)]!;
    return size - (high - low);
  });
  if (spares[0]! <= 0 || spares[1]! <= 0 || spares[1]! > ((WIDE - 1) / WIDE) * sizes_m[1]) return [];
  const middle = own.reduce(
    (sum: Vec3, _, k) => add(sum, scale(seen[k]!, (spans[k]![0] + spans[k]![1]) / 2)),
    [0, 0, 0],
  );
  return [
    {
      pose: { axes, origin_m: subtract(middle_m, middle) },
      spare: Math.min(spares[0]!, spares[1]!) * (1 + TURNING * (3 - alike(axes, part.at.axes))),
    },
  ];
}
/** A half turn, whose axes are less alike by four, counts as as much room to spare again. */
const TURNING = 0.25;
