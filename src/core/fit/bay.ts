import {
  fillProfile,
  parseProfile,
  parseMesh,
  scale,
  unitVector,
  type ClosedMesh,
  type Point2,
  type Vec3,
} from '../geometry';
import { failure, success, unwrap, type Outcome } from '../outcome';
import { adjust, type Adjusted, type How, type Reading, type SurveyPoint } from './adjust';
import type { Panel, WallKind } from './scene';

/** A number read off, with its standard deviation. */
export type Measurement = { readonly value_m: number; readonly sigma_m: number; readonly assumed: boolean };

/** The way in which the stations follow each other: fore and aft, or to port. */
export type BayAxis = 'x' | 'y';

/**
 * A bay as people measure it: outlines at stations along it, tape lengths
 * between their corners, offsets of curved sides from a straight edge.
 */
export type BayPlan = {
  readonly axis: BayAxis;
  /** Where the survey's zero lies in the vehicle [m]. */
  readonly origin_m: Vec3;
  /**
   * Side k runs from corner k to corner k + 1, counter-clockwise: the floor from starboard to port, up the port side,
   * and back.
   */
  readonly sides: readonly { readonly id: string; readonly name: string; readonly kind: WallKind }[];
  readonly nearEnd: { readonly name: string; readonly kind: WallKind };
  readonly farEnd: { readonly name: string; readonly kind: WallKind };
  readonly stations: readonly {
    readonly id: string;
    readonly name: string;
    readonly at: Measurement;
    readonly corners: readonly { readonly across: Measurement; readonly up: Measurement }[];
  }[];
  readonly measures: readonly {
    readonly id: string;
    readonly from: StationCorner;
    readonly to: StationCorner;
    readonly how: How;
    readonly length: Measurement;
  }[];
  /** How far the real side lies behind a straight edge held from corner to corner, where along it. */
  readonly curves: readonly {
    readonly station: number;
    readonly side: number;
    readonly points: readonly { readonly along_m: number; readonly behind_m: number }[];
  }[];
};
export type StationCorner = { readonly station: number; readonly corner: number };

export type BayCode = 'crosses-itself' | 'out-of-order' | 'no-solution' | 'undetermined' | 'not-closed' | 'no-stations';

export type Bay = {
  readonly panels: readonly Panel[];
  readonly space: ClosedMesh;
  /** Present where the bay was measured: what the readings gave, and how each point of the walls hangs on them. */
  readonly survey?: Survey;
};

export type Survey = {
  readonly adjusted: Adjusted;
  readonly readings: readonly Reading[];
  /** Corners as adjusted, in vehicle axes, by station. */
  readonly corners_m: readonly (readonly Vec3[])[];
  /** The unknowns that move each vertex of the space along the vehicle's axes, and by how much. */
  readonly hangsOn: readonly (readonly {
    readonly axis: 0 | 1 | 2;
    readonly unknown: number;
    readonly share: number;
  }[])[];
};

/** Ids under which the survey's own readings are filed beside those of its measures. */
export const readingOf = {
  at: (station: string) => `${station}:at`,
  corner: (station: string, corner: number, way: 'across' | 'up') => `${station}:${corner}:${way}`,
};

/** Places the corners by what was measured and builds the walls between them. */
export function surveyedBay(plan: BayPlan): Outcome<Bay, BayCode> {
  if (plan.stations.length < 2)
    return failure('no-stations', 'stations', 'A bay needs an outline at both of its ends.');
  const readings = readingsOf(plan);
  const start = plan.stations.flatMap(({ at, corners }) => [
    at.value_m,
    ...corners.flatMap(({ across, up }) => [across.value_m, up.value_m]),
  ]);
  const adjusted = adjust(start, readings);
  if (!adjusted.ok) return adjusted;
  return wallsOf(plan, adjusted.value, readings);
}

const pointOf = (plan: BayPlan, { station, corner }: StationCorner): SurveyPoint => {
  const first = station * (1 + 2 * plan.sides.length);
  return [first, first + 1 + 2 * corner, first + 2 + 2 * corner];
};

function readingsOf(plan: BayPlan): Reading[] {
  const own = (id: string, unknown: number, { value_m, sigma_m, assumed }: Measurement): Reading => ({
    id,
    of: { unknown },
    value_m,
    sigma_m,
    assumed,
  });
  return [
    ...plan.stations.flatMap(({ id, at, corners }, station) => [
      own(readingOf.at(id), pointOf(plan, { station, corner: 0 })[0], at),
      ...corners.flatMap(({ across, up }, corner) => {
        const [, u, v] = pointOf(plan, { station, corner });
        return [own(readingOf.corner(id, corner, 'across'), u, across), own(readingOf.corner(id, corner, 'up'), v, up)];
      }),
    ]),
    ...plan.measures.map(({ id, from, to, how, length }): Reading => ({
      id,
      of: { from: pointOf(plan, from), to: pointOf(plan, to), how },
      value_m: length.value_m,
      sigma_m: length.sigma_m,
      assumed: length.assumed,
    })),
  ];
}

/** A point of an outline: on side `side`, at a share of the way along it. */
type RingPlace = { readonly side: number; readonly share: number };

function wallsOf(plan: BayPlan, adjusted: Adjusted, readings: readonly Reading[]): Outcome<Bay, BayCode> {
  const { values_m } = adjusted;
  const ats = plan.stations.map((_, station) => values_m[pointOf(plan, { station, corner: 0 })[0]]!);
  const late = ats.findIndex((at, s) => s > 0 && at <= ats[s - 1]!);
  if (late >= 0)
    return failure(
      'out-of-order',
      plan.stations[late]!.name,
      `It lies no further along than ${plan.stations[late - 1]!.name}; stations follow each other along the bay.`,
    );
  const corner = (station: number, k: number): Point2 => {
    const [, u, v] = pointOf(plan, { station, corner: k % plan.sides.length });
    return [values_m[u]!, values_m[v]!];
  };
  const ring = ringPlaces(plan, corner);
  const outlines = plan.stations.map((_, station) => ring.map((place) => ringPoint(plan, station, place, corner)));
  for (const [station, outline] of outlines.entries()) {
    const profile = parseProfile(outline);
    if (!profile.ok || profile.value.length !== outline.length || profile.value[0] !== outline[0])
      return failure(
        'crosses-itself',
        plan.stations[station]!.name,
        `The outline there ${profile.ok ? 'runs the wrong way round or has two corners in one place' : 'does not close as drawn'}: ${profile.ok ? 'its corners go along the floor from starboard to port, then up, and back.' : profile.error.detail}`,
      );
  }
  return build(plan, adjusted, readings, ats, ring, outlines);
}

/** Corners and, on a side that is curved anywhere, all the places at which it was held. */
function ringPlaces(plan: BayPlan, corner: (station: number, k: number) => Point2): RingPlace[] {
  return plan.sides.flatMap((_, side) => {
    const shares = plan.curves
      .filter((curve) => curve.side === side)
      .flatMap(({ station, points }) => {
        const [a, b] = [corner(station, side), corner(station, side + 1)];
        const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
        return points.map(({ along_m }) => along_m / length).filter((share) => share > 0.001 && share < 0.999);
      });
    return [0, ...[...new Set(shares)].sort((p, q) => p - q)].map((share) => ({ side, share }));
  });
}

function ringPoint(
  plan: BayPlan,
  station: number,
  { side, share }: RingPlace,
  corner: (station: number, k: number) => Point2,
): Point2 {
  const [a, b] = [corner(station, side), corner(station, side + 1)];
  const [du, dv] = [b[0] - a[0], b[1] - a[1]];
  const length = Math.hypot(du, dv);
  const behind = behindAt(plan, station, side, share * length, length);
  return [a[0] + share * du + (behind * dv) / length, a[1] + share * dv - (behind * du) / length];
}

/** How far a side lies behind its straight edge, straight between the places where that was measured. */
function behindAt(plan: BayPlan, station: number, side: number, along_m: number, length_m: number): number {
  const curve = plan.curves.find((other) => other.station === station && other.side === side);
  if (!curve) return 0;
  const points = [
    { along_m: 0, behind_m: 0 },
    ...[...curve.points].sort((p, q) => p.along_m - q.along_m),
    { along_m: length_m, behind_m: 0 },
  ];
  const next = points.findIndex((point) => point.along_m >= along_m - 1e-12);
  if (next <= 0) return 0;
  const [p, q] = [points[next - 1]!, points[next]!];
  return q.along_m === p.along_m
    ? q.behind_m
    : p.behind_m + ((along_m - p.along_m) / (q.along_m - p.along_m)) * (q.behind_m - p.behind_m);
}

/** The axes of the vehicle along which the survey's along, across and up run. */
const AXES_OF: Readonly<Record<BayAxis, readonly [0 | 1, 0 | 1, 2]>> = { x: [0, 1, 2], y: [1, 0, 2] };

function build(
  plan: BayPlan,
  adjusted: Adjusted,
  readings: readonly Reading[],
  ats: readonly number[],
  ring: readonly RingPlace[],
  outlines: readonly (readonly Point2[])[],
): Outcome<Bay, BayCode> {
  const axes = AXES_OF[plan.axis];
  const place = (at: number, [u, v]: Point2): Vec3 => {
    const point: [number, number, number] = [...plan.origin_m];
    [at, u, v].forEach((value, k) => (point[axes[k]!]! += value));
    return point;
  };
  const n = ring.length;
  const onRings = outlines.map((outline, s) => outline.map((point) => place(ats[s]!, point)));
  // Sides that twist are fans about their middles: as much over the ruled surface as under it.
  const middles = ats
    .slice(1)
    .map((_, s) =>
      ring.map((__, i) =>
        meanOf([onRings[s]![i]!, onRings[s]![(i + 1) % n]!, onRings[s + 1]![(i + 1) % n]!, onRings[s + 1]![i]!]),
      ),
    );
  const positions = Float64Array.from([...onRings.flat(2), ...middles.flat(2)]);
  const middle = (s: number, i: number): number => (ats.length + s) * n + i;
  // Along y the outline's (x, z) runs against the right hand, so its faces turn.
  const turnedRound = plan.axis === 'y';
  const face = (list: number[]): number[] => (turnedRound ? list.reverse() : list);
  const sides = plan.sides.map((_, side) =>
    face(
      ring.flatMap((place, i) =>
        place.side !== side
          ? []
          : ats.slice(1).flatMap((_, s) => {
              const [a, b] = [s * n + i, s * n + ((i + 1) % n)];
              const m = middle(s, i);
              return [a, b, m, b, b + n, m, b + n, a + n, m, a + n, a, m];
            }),
      ),
    ),
  );
  const cap = (station: number): number[] => capOf(outlines[station]!, ring).map((i) => station * n + i);
  const [near, far] = [face(cap(0).reverse()), face(cap(ats.length - 1))];
  const space = parseMesh(positions, Uint32Array.from([...sides.flat(), ...near, ...far]));
  if (!space.ok) return failure('not-closed', 'stations', `The walls do not close: ${space.error.detail}`);
  const panel = (id: string, name: string, kind: WallKind, triangles: number[]): Panel => ({
    id,
    name,
    kind,
    surface: { positions, triangles: Uint32Array.from(triangles) },
    inward: inwardOf(positions, triangles),
  });
  const ringsHang = outlines.flatMap((_, station) =>
    ring.map(({ side, share }) => {
      const [a, b] = [
        pointOf(plan, { station, corner: side }),
        pointOf(plan, { station, corner: (side + 1) % plan.sides.length }),
      ];
      return [
        { axis: axes[0], unknown: a[0], share: 1 },
        ...([1, 2] as const).flatMap((k) => [
          { axis: axes[k]!, unknown: a[k], share: 1 - share },
          { axis: axes[k]!, unknown: b[k], share },
        ]),
      ];
    }),
  );
  const hangsOn = [
    ...ringsHang,
    ...middles.flatMap((row, s) =>
      row.map((_, i) =>
        [s * n + i, s * n + ((i + 1) % n), (s + 1) * n + ((i + 1) % n), (s + 1) * n + i].flatMap((vertex) =>
          ringsHang[vertex]!.map((on) => ({ ...on, share: on.share / 4 })),
        ),
      ),
    ),
  ];
  return success({
    panels: [
      ...plan.sides.map(({ id, name, kind }, side) => panel(id, name, kind, sides[side]!)),
      panel('near-end', plan.nearEnd.name, plan.nearEnd.kind, near),
      panel('far-end', plan.farEnd.name, plan.farEnd.kind, far),
    ],
    space: space.value,
    survey: {
      adjusted,
      readings,
      hangsOn,
      corners_m: plan.stations.map((_, station) =>
        plan.sides.map((__, k) =>
          place(ats[station]!, [
            adjusted.values_m[pointOf(plan, { station, corner: k })[1]]!,
            adjusted.values_m[pointOf(plan, { station, corner: k })[2]]!,
          ]),
        ),
      ),
    },
  });
}

const meanOf = (points: readonly Vec3[]): Vec3 =>
  [0, 1, 2].map((k) => points.reduce((sum, point) => sum + point[k]!, 0) / points.length) as unknown as Vec3;

/**
 * Points within a straight side are pushed out by this share of its length before filling, so that none is left out as
 * needless.
 */
const BULGE_REL = 1e-6;

/** Triangles that fill an outline known to be sound, with every one of its points. */
function capOf(outline: readonly Point2[], ring: readonly RingPlace[]): number[] {
  const bulged = outline.map((point, i): Point2 => {
    if (ring[i]!.share === 0) return point;
    const [before, after] = [outline[(i + outline.length - 1) % outline.length]!, outline[(i + 1) % outline.length]!];
    return [point[0] + BULGE_REL * (after[1] - before[1]), point[1] - BULGE_REL * (after[0] - before[0])];
  });
  return fillProfile(unwrap(parseProfile(bulged)));
}

/** Mean direction into the bay, weighed by area. */
function inwardOf(positions: Float64Array, triangles: readonly number[]): Vec3 {
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [3 * triangles[i]!, 3 * triangles[i + 1]!, 3 * triangles[i + 2]!];
    const [ux, uy, uz] = [
      positions[b]! - positions[a]!,
      positions[b + 1]! - positions[a + 1]!,
      positions[b + 2]! - positions[a + 2]!,
    ];
    const [vx, vy, vz] = [
      positions[c]! - positions[a]!,
      positions[c + 1]! - positions[a + 1]!,
      positions[c + 2]! - positions[a + 2]!,
    ];
    sum[0] -= uy * vz - uz * vy;
    sum[1] -= uz * vx - ux * vz;
    sum[2] -= ux * vy - uy * vx;
  }
  return unitVector(sum);
}

/** The six sides of a bay that is drawn as a closed mesh, by the way their wall faces out of it. */
export const MESH_SIDES = ['fore', 'aft', 'port', 'starboard', 'top', 'floor'] as const;
export type MeshSide = (typeof MESH_SIDES)[number];
const OUTWARD: Readonly<Record<MeshSide, Vec3>> = {
  fore: [1, 0, 0],
  aft: [-1, 0, 0],
  port: [0, 1, 0],
  starboard: [0, -1, 0],
  top: [0, 0, 1],
  floor: [0, 0, -1],
};

/** A bay whose free space is a closed mesh in vehicle axes. */
export function drawnBay(space: ClosedMesh, kinds: Readonly<Record<MeshSide, WallKind>>): Bay {
  const { positions, triangles } = space;
  const bySide = new Map<MeshSide, number[]>();
  for (let i = 0; i < triangles.length; i += 3) {
    const corners = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const outward = scale(inwardOf(positions, corners), -1);
    const along = (side: MeshSide): number => outward.reduce((sum, value, k) => sum + value * OUTWARD[side][k]!, 0);
    const side = MESH_SIDES.reduce((best, other) => (along(other) > along(best) ? other : best));
    bySide.set(side, [...(bySide.get(side) ?? []), ...corners]);
  }
  return {
    space,
    panels: MESH_SIDES.flatMap((side) => {
      const of = bySide.get(side);
      return of
        ? [
            {
              id: `bay-${side}`,
              name: `${side} side of the bay`,
              kind: kinds[side],
              surface: { positions, triangles: Uint32Array.from(of) },
              inward: inwardOf(positions, of),
            },
          ]
        : [];
    }),
  };
}
