import {
  add,
  boxMesh,
  cross,
  dot,
  norm,
  posedMesh,
  rodMesh,
  scale,
  shiftBy,
  signedArea_m2,
  subtract,
  toStretch,
  type Axis,
  type ClosedMesh,
  type Point2,
  type Vec3,
} from '../geometry';
import type { MountDocument } from '../plan/schema';
import { FACE_OF_SIDE, SIDE_WAYS } from './axes';
import { axesAcross, lipsOf, RUN_AXIS, strapWay } from './compileMounts';
import { wallAt } from './portSeat';

/**
 * What a mount looks like, in the tank’s axes: a few boxes, a band round the tank; nothing where it is not at the tank.
 */
export function mountBodies(outer: ClosedMesh, place: Vec3, mount: MountDocument): ClosedMesh[] {
  if (!mount.made) return [];
  switch (mount.kind) {
    case 'strap':
      return band(outer, place, mount.made);
    case 'tab':
      return tab(outer, place, mount.made);
    case 'cradle':
      return cradle(outer, place, mount.made);
    case 'stop':
      return stop(outer, place, mount.made);
    case 'flange':
      return ring(outer, place, mount.made);
    case 'guard':
      return plate(outer, place, mount.made);
  }
}

type Made<K extends MountDocument['kind']> = NonNullable<Extract<MountDocument, { kind: K }>['made']>;

/** A box that spans two corners, whichever way they lie. */
function boxBetween(a: Vec3, b: Vec3): ClosedMesh {
  const low = a.map((value, k) => Math.min(value, b[k]!)) as unknown as Vec3;
  const size = a.map((value, k) => Math.max(1e-4, Math.abs(value - b[k]!))) as unknown as Vec3;
  return posedMesh(boxMesh(...size), shiftBy(low));
}

/** A strap over the tank as wide as it is, and its feet; open where it is held. */
function band(outer: ClosedMesh, place: Vec3, made: Made<'strap'>): ClosedMesh[] {
  const way = strapWay(outer, place, made);
  if (!way) return [];
  const axis: Axis = RUN_AXIS[made.runs];
  const [u, v] = ([0, 1, 2] as const).filter((k) => k !== axis) as [Axis, Axis];
  const flat = thinned(way.map((p): Point2 => [p[u], p[v]]));
  const { width_m, thickness_m, pad } = made;
  // Its pad ends with the tank.
  const outside = laidOut(flat, thickness_m.value + pad.thickness_m.value, thickness_m.value);
  const across = scale(AXIS_WAYS[axis], width_m.value);
  const edge = (line: readonly Point2[]): Vec3[] =>
    line.map((p) => {
      const point = [0, 0, 0] as [number, number, number];
      [point[axis], point[u], point[v]] = [place[axis] - width_m.value / 2, p[0], p[1]];
      return point;
    });
  const [inner, beyond] = [edge(flat), edge(outside)];
  const pieces = inner.slice(1).map((to, i) => {
    const [low, high] = [
      [inner[i]!, to],
      [beyond[i]!, beyond[i + 1]!],
    ] as const;
    return sixSided((x, y, z) => add((z === 0 ? low : high)[x], scale(across, y)));
  });
  return [...pieces, ...strapFeet(way, made)];
}

/** Without corners that stand out by less than a pad gives: a round wall’s facets are many. */
function thinned(line: readonly Point2[]): Point2[] {
  const kept: Point2[] = [];
  for (const [i, p] of line.entries()) {
    const [before, next] = [kept.at(-1), line[i + 1]];
    if (before && next && toStretch(p, before, next).distance_m < BEND_M) continue;
    kept.push(p);
  }
  return kept;
}

/** A body between eight corners, each where three of its ends meet. */
function sixSided(cornerAt: (x: 0 | 1, y: 0 | 1, z: 0 | 1) => Vec3): ClosedMesh {
  const box = boxMesh(1, 1, 1);
  const from = cornerAt(0, 0, 0);
  const [along, across, up] = [cornerAt(1, 0, 0), cornerAt(0, 1, 0), cornerAt(0, 0, 1)].map((p) =>
    subtract(p, from),
  ) as [Vec3, Vec3, Vec3];
  const isTurned = dot(cross(along, across), up) < 0;
  const end = (value: number): 0 | 1 => (value > 0.5 ? 1 : 0);
  const positions = new Float64Array(box.positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const y = end(box.positions[i + 1]!);
    positions.set(cornerAt(end(box.positions[i]!), isTurned ? (y === 0 ? 1 : 0) : y, end(box.positions[i + 2]!)), i);
  }
  return { ...box, positions };
}

/** A bent line set off by so much to its hollow side’s back: away from where its ends see each other. */
function laidOut(line: readonly Point2[], by_m: number, endsBy_m: number): Point2[] {
  const turn = Math.sign(signedArea_m2(line)) || 1;
  const normals = line.slice(1).map(([x, y], i): Point2 => {
    const [dx, dy] = [x - line[i]![0], y - line[i]![1]];
    const length = Math.max(1e-12, Math.hypot(dx, dy));
    return [(turn * dy) / length, (-turn * dx) / length];
  });
  return line.map(([x, y], i) => {
    const [a, b] = [normals[Math.max(0, i - 1)]!, normals[Math.min(normals.length - 1, i)]!];
    // A mitre: as far off both stretches; a sharp corner is cut short.
    const reach = (i === 0 || i === line.length - 1 ? endsBy_m : by_m) / Math.max(0.3, 1 + a[0] * b[0] + a[1] * b[1]);
    return [x + reach * (a[0] + b[0]), y + reach * (a[1] + b[1])];
  });
}

/** Which way a strap’s end goes on past where it is held, along what it is held to. */
export function strapEnds(way: readonly Vec3[], { runs, side }: Pick<Made<'strap'>, 'runs' | 'side'>) {
  const axis = RUN_AXIS[runs];
  const down = SIDE_WAYS[side];
  const along = cross(AXIS_WAYS[axis], down);
  const [first, last] = [way[0]!, way.at(-1)!];
  const sign = dot(subtract(last, first), along) > 0 ? 1 : -1;
  return [
    { at_m: first, on: scale(along, -sign) },
    { at_m: last, on: scale(along, sign) },
  ] as const;
}
const AXIS_WAYS: readonly [Vec3, Vec3, Vec3] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** A strap’s bolts stand so far past its bend, and its foot goes on as far again. */
function strapFeet(way: readonly Vec3[], made: Made<'strap'>): ClosedMesh[] {
  const across = AXIS_WAYS[RUN_AXIS[made.runs]];
  const [width, edge, t] = [made.width_m.value, made.bolts.edge_m.value, made.thickness_m.value];
  return strapEnds(way, made).map(({ at_m, on }) =>
    spanned(add(at_m, scale(across, -width / 2)), [across, width], [on, 2 * edge], [SIDE_WAYS[made.side], -t]),
  );
}

/** From one corner along ways by so much each. */
const spanned = (from: Vec3, ...by: readonly (readonly [way: Vec3, length_m: number])[]): ClosedMesh =>
  boxBetween(
    from,
    by.reduce<Vec3>((at, [way, length]) => add(at, scale(way, length)), from),
  );

function tab(outer: ClosedMesh, place: Vec3, made: Made<'tab'>): ClosedMesh[] {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.wall] }, place);
  if (!wall) return [];
  const [out, down] = [SIDE_WAYS[made.wall], SIDE_WAYS[made.side]];
  const t = made.thickness_m.value;
  const width = made.width_m.value;
  if (Math.abs(out[0] * down[0] + out[1] * down[1] + out[2] * down[2]) > 0.5) {
    const [a, b] = axesAcross(made.side);
    const corner = add(add(wall.point_m, scale(a, -width / 2)), scale(b, -width / 2));
    return [spanned(corner, [a, width], [b, width], [down, t])];
  }
  const along = cross(out, down);
  const leg = made.leg_m.value;
  const edge = add(add(wall.point_m, scale(along, -width / 2)), scale(down, leg / 2));
  return [
    spanned(edge, [along, width], [down, -leg], [out, t]),
    spanned(edge, [along, width], [down, -t], [out, made.arm_m.value + made.bolts.edge_m.value]),
  ];
}

/** Across a bearer its top is felt for at so many places, the middle one of them. */
const FELT = 33;

/** A bearer follows the tank from below; where none of it lies over, it goes on level. */
function cradle(outer: ClosedMesh, place: Vec3, made: Made<'cradle'>): ClosedMesh[] {
  const [a, b] = axesAcross(made.side);
  const down = SIDE_WAYS[made.side];
  const t = made.thickness_m.value;
  const [near, far] = [-0.5, 0.5].map((end) => restLine(outer, place, made, end));
  if (!near || !far) return [];
  const kept = keptShares(near, far);
  const thick = scale(down, t);
  const bars = kept.slice(1).map((to, i) => {
    const ends = [kept[i]!, to] as const;
    return sixSided((x, y, z) => add((x === 0 ? near : far)[ends[y]]!, scale(thick, z)));
  });
  // From its underside, to which it is bent, up beside the tank.
  const lips = lipsOf(outer, place, made).map(({ way, across, out_m, wide_m }) => {
    const corner = add(add(place, scale(way, out_m + HAIR_M)), scale(across, -wide_m / 2));
    const line =
      dot(way, a) > 0.5
        ? far
        : dot(way, a) < -0.5
          ? near
          : dot(way, b) > 0
            ? [near.at(-1)!, far.at(-1)!]
            : [near[0]!, far[0]!];
    return spanned(
      atHeight(corner, lowestOf(line, down) + t, down),
      [across, wide_m],
      [way, t],
      [down, -(t + offTank_m(made) + made.lip_m.value)],
    );
  });
  const low = lowestOf([...near, ...far], down);
  return [...bars, ...lips, ...runners(made, atHeight(place, low + t, down), a, b)];
}

const lowestOf = (line: readonly Vec3[], down: Vec3): number => Math.max(...line.map((p) => dot(p, down)));
const atHeight = (p: Vec3, by_m: number, down: Vec3): Vec3 => add(p, scale(down, by_m - dot(p, down)));

/** What the top of a bearer follows, at one of its ends; nothing where the tank is nowhere over it. */
export function restLine(
  outer: ClosedMesh,
  place: Vec3,
  made: Pick<Made<'cradle'>, 'side' | 'length_m' | 'width_m' | 'pad'>,
  end: number,
): Vec3[] | undefined {
  const [a, b] = axesAcross(made.side);
  const down = SIDE_WAYS[made.side];
  const face = { face: FACE_OF_SIDE[made.side] };
  const [length, width] = [made.length_m.value, made.width_m.value];
  const across = Array.from({ length: FELT }, (_, i) => i / (FELT - 1) - 0.5);
  // A hair in from its ends, which may be the tank’s own.
  const at = (along: number, share: number, inset: number): Vec3 =>
    add(place, add(scale(a, along * length * inset), scale(b, share * width * inset)));
  const feel = (along: number): (number | undefined)[] =>
    across.map((share) => {
      const wall = wallAt(outer, face, at(along, share, INSET));
      return wall && dot(wall.point_m, down) + offTank_m(made);
    });
  // Where the tank does not reach its end, as further in.
  const heights = feel(end);
  for (const along of [end / 2, 0]) {
    if (!heights.includes(undefined)) break;
    feel(along).forEach((height, i) => (heights[i] ??= height));
  }
  const known = heights.flatMap((height) => height ?? []);
  if (known.length === 0) return undefined;
  const nearest = (i: number): number => {
    for (let k = 0; k < FELT; k++) {
      const height = heights[i - k] ?? heights[i + k];
      if (height !== undefined) return height;
    }
    return known[0]!;
  };
  return across.map((share, i) => atHeight(at(end, share, 1), nearest(i), down));
}
const INSET = 0.999;

/** Of the places across, those where either line bends. */
function keptShares(near: readonly Vec3[], far: readonly Vec3[]): number[] {
  const bends = (line: readonly Vec3[], i: number): boolean => {
    const [p, q, r] = [line[i - 1]!, line[i]!, line[i + 1]!];
    return norm(subtract(add(p, r), scale(q, 2))) > BEND_M;
  };
  return near.map((_, i) => i).filter((i) => i === 0 || i === FELT - 1 || bends(near, i) || bends(far, i));
}
/** What a bearer bends by less is straight: a pad takes that up [m]. */
const BEND_M = 2e-4;

/** What stands beside the tank without a pad stands this much off it: it is fitted there [m]. */
const HAIR_M = 5e-4;

/** How far what a mount is made of stands off the tank: its pad lies between [m]. */
export const offTank_m = ({ pad }: Pick<Made<'stop'>, 'pad'>): number => Math.max(HAIR_M, pad.thickness_m.value);

/** Under a skid, what leaves room for the forks: three runners, two pockets between them. */
function runners({ pockets, length_m, width_m, side }: Made<'cradle'>, under: Vec3, a: Vec3, b: Vec3): ClosedMesh[] {
  if (!pockets) return [];
  // Forks go in along one way; the runners lie beside them.
  const [run, aside, long, wide] =
    pockets.runs === 'along' ? [a, b, length_m.value, width_m.value] : [b, a, width_m.value, length_m.value];
  const [half, gap] = [pockets.width_m.value / 2, pockets.apart_m.value / 2];
  const spans = [
    [-wide / 2, -gap - half],
    [-gap + half, gap - half],
    [gap + half, wide / 2],
  ] as const;
  return spans.flatMap(([from, to]) =>
    to - from < 1e-3
      ? []
      : [
          spanned(
            add(under, add(scale(run, -long / 2), scale(aside, from))),
            [run, long],
            [aside, to - from],
            [SIDE_WAYS[side], pockets.height_m.value],
          ),
        ],
  );
}

function stop(outer: ClosedMesh, place: Vec3, made: Made<'stop'>): ClosedMesh[] {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  if (!wall) return [];
  const out = SIDE_WAYS[made.side];
  const along: Vec3 = out[2] === 0 ? cross([0, 0, 1], out) : [0, 1, 0];
  const up: Vec3 = out[2] === 0 ? [0, 0, 1] : [1, 0, 0];
  const [arm, t] = [made.arm_m.value, made.thickness_m.value];
  const near = add(
    add(add(wall.point_m, scale(out, offTank_m(made))), scale(along, -made.width_m.value / 2)),
    scale(up, -arm),
  );
  return [
    spanned(near, [along, made.width_m.value], [up, arm + TOP_M], [out, t]),
    spanned(near, [along, made.width_m.value], [up, t], [out, t + 2 * made.bolts.edge_m.value]),
  ];
}
/** A stop stands so far over where the tank meets it [m]. */
const TOP_M = 0.02;

function ring(outer: ClosedMesh, place: Vec3, made: Made<'flange'>): ClosedMesh[] {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  return wall
    ? [
        rodMesh(
          wall.point_m,
          add(wall.point_m, scale(SIDE_WAYS[made.side], made.thickness_m.value)),
          made.circle_m.value / 2 + made.bolts.edge_m.value,
          RING_SIDES,
        ),
      ]
    : [];
}
const RING_SIDES = 24;

/** A guard is a plate that stands off the wall. */
function plate(outer: ClosedMesh, place: Vec3, made: Made<'guard'>): ClosedMesh[] {
  const at = guardPlate(outer, place, made);
  return at
    ? [spanned(at.corner_m, [at.a, made.length_m.value], [at.b, made.width_m.value], [at.out, made.thickness_m.value])]
    : [];
}

/** Where the inner face of a guard lies: its corner, and the ways along its length, its width and out of it. */
export function guardPlate(outer: ClosedMesh, place: Vec3, made: Made<'guard'>) {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  if (!wall) return undefined;
  const [a, b] = axesAcross(made.side);
  const out = SIDE_WAYS[made.side];
  const middle = add(wall.point_m, scale(out, made.off_m.value));
  const corner_m = add(middle, add(scale(a, -made.length_m.value / 2), scale(b, -made.width_m.value / 2)));
  return { corner_m, a, b, out };
}
