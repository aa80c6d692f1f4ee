import { portSeat, rimOf, standsOn, wallAt } from '../../model/compileFit';
import { OUTWARD } from '../../model/axes';
import type { PortDocument, TankDocument } from '../../plan/schema';
import {
  add,
  AT_HOME,
  depthInside,
  dot,
  frameAlong,
  insideOutline,
  scale,
  separation,
  subtract,
  toStretch,
  treeOf,
  type ClosedMesh,
  type FaceFrame,
  type Point2,
  type Vec3,
} from '../../geometry';
import type { TapPlan } from '../../fittings';
import { ALLOYS } from '../../reference/alloys';
import { HOLE_RULES } from '../../reference/holeTools';
import type { PortPartRow } from '../../reference/portParts';
import type { FittedPlate } from '../../tank';

export const SHEET_CHECKS = [
  'neighbour',
  'inside-neighbour',
  'hose-end',
  'edge',
  'bend',
  'seam',
  'baffle',
  'inside',
  'outside',
  'not-flat',
  'too-thick',
  'few-turns',
  'off-sheet',
] as const;
export type SheetCheckKind = (typeof SHEET_CHECKS)[number];

/** Something about a hole that will not do: what is there, and what is wanted [m]. */
export type SheetCheck = {
  readonly kind: SheetCheckKind;
  readonly with: string;
  readonly have_m: number;
  readonly want_m: number;
};

/** The centre of a hole from an edge, as a square laid to it finds it. */
export type FromEdge = {
  readonly from: number;
  readonly to: number;
  readonly distance_m: number;
  readonly foot: Point2;
};

/** A sheet before its ports are laid on it. */
export type Bare = {
  readonly name: string;
  readonly kind: 'flat' | 'projected';
  readonly face: PortDocument['face'];
  readonly frame: FaceFrame;
  readonly loops: readonly (readonly Point2[])[];
};

/** What is under a sheet and over it. */
export type Inside = {
  readonly shell: ClosedMesh;
  readonly plates: readonly FittedPlate[];
  /** What stands on the tank, by the port it stands on. */
  readonly pieces: readonly { readonly port: string; readonly name: string; readonly surface: ClosedMesh }[];
  /** Solid obstacles of the space, in the tank's frame. */
  readonly round: readonly { readonly name: string; readonly surface: ClosedMesh }[];
};

/** A port on its sheet, with all that its checks look at. */
export type Looked = {
  readonly port: PortDocument;
  readonly part: PortPartRow | undefined;
  readonly tap: TapPlan | undefined;
  readonly at_m: Point2;
  readonly hole_m: number;
  readonly cover_m: number;
  readonly below_m: readonly [number, number];
  readonly fromEdges: readonly FromEdge[];
  readonly sag_m: number;
  readonly seal: 'seals' | 'boss' | 'unknown';
  readonly point_m: Vec3;
};

/**
 * What stands against a hole and its part where they are on a sheet: edges, other holes, plates behind, what stands
 * over it.
 */
export function checksOf(
  tank: TankDocument,
  sheet: Bare,
  one: Looked,
  outer: ClosedMesh,
  inside: Inside,
): SheetCheck[] {
  // A hole that is there already is as it is; only what is put into it can foul.
  const cut = one.port.existing !== true;
  return [
    ...(cut ? edgeChecks(tank, sheet, one) : []),
    ...baffleChecks(tank, one, inside),
    ...insideChecks(one, inside, outer, tank.material.thickness_m.value),
    ...outsideChecks(one, outer),
    ...hoseChecks(one, inside),
    ...(one.seal === 'boss'
      ? [{ kind: 'not-flat' as const, with: one.part!.seal, have_m: one.sag_m, want_m: one.part!.takesUp }]
      : []),
    ...(one.part?.join === 'tapped' && one.tap && !one.tap.inSheet
      ? [
          {
            kind: 'few-turns' as const,
            with: `${one.tap.turns.toFixed(1)} turns of ${one.tap.thread}`,
            have_m: tank.material.thickness_m.value,
            want_m: one.tap.depth_m,
          },
        ]
      : []),
    ...(one.part?.mostSheet !== undefined && tank.material.thickness_m.value > one.part.mostSheet
      ? [
          {
            kind: 'too-thick' as const,
            with: one.part.name,
            have_m: tank.material.thickness_m.value,
            want_m: one.part.mostSheet,
          },
        ]
      : []),
  ];
}

function edgeChecks(tank: TankDocument, { kind, loops }: Bare, { at_m, hole_m, cover_m, part }: Looked): SheetCheck[] {
  if (kind === 'projected') return [];
  const t = tank.material.thickness_m.value;
  const outline = loops[0]!;
  const edges = loops.flatMap((loop, l) =>
    loop.map((a, i) => ({
      from: l === 0 ? i : -1,
      to: l === 0 ? (i + 1) % loop.length : -1,
      ...toStretch(at_m, a, loop[(i + 1) % loop.length]!),
    })),
  );
  const nearest = edges.reduce((best, edge) => (edge.distance_m < best.distance_m ? edge : best));
  const name = nearest.from < 0 ? 'the edge of a recess' : `edge ${nearest.from}-${nearest.to}`;
  const checks: SheetCheck[] = [];
  if (!insideOutline([outline], at_m) || nearest.distance_m < cover_m / 2)
    return [{ kind: 'off-sheet', with: name, have_m: nearest.distance_m - cover_m / 2, want_m: 0 }];
  const metal = ALLOYS[tank.material.alloy].isMetal;
  if (metal) {
    const bend = HOLE_RULES.bend.thicknesses * t;
    if (nearest.distance_m - hole_m / 2 < bend)
      checks.push({ kind: 'bend', with: name, have_m: nearest.distance_m - hole_m / 2, want_m: bend });
    if (part?.join === 'weld' && nearest.distance_m - cover_m / 2 < HOLE_RULES.weld.least)
      checks.push({
        kind: 'seam',
        with: name,
        have_m: nearest.distance_m - cover_m / 2,
        want_m: HOLE_RULES.weld.least,
      });
  } else {
    const edge = HOLE_RULES.edge.diameters * hole_m;
    if (nearest.distance_m - hole_m / 2 < edge)
      checks.push({ kind: 'edge', with: name, have_m: nearest.distance_m - hole_m / 2, want_m: edge });
  }
  return checks;
}

const DEPTHS = 4;

/**
 * What stands under the sheet against the baffles behind it: as deep as it reaches, over as much of it as they stand
 * under.
 */
function baffleChecks(
  tank: TankDocument,
  { port, point_m, below_m, hole_m }: Looked,
  { plates }: Inside,
): SheetCheck[] {
  const inward = scale(OUTWARD[port.face], -1);
  const t = tank.material.thickness_m.value;
  const depth = Math.max(below_m[1], LEAST_DEPTH_M);
  return plates.flatMap((plate): SheetCheck[] => {
    const name = tank.plates.find(({ id }) => id === plate.id)?.name ?? 'a baffle';
    const [u, v] = ([0, 1, 2] as const).filter((axis) => axis !== plate.axis) as [0 | 1 | 2, 0 | 1 | 2];
    const top = Math.max(...plate.outline.flat().map((point) => point[1])) - plate.topGap_m;
    let least = Infinity;
    for (let k = 1; k <= DEPTHS; k++) {
      const point = add(point_m, scale(inward, t + (depth * k) / DEPTHS));
      const off = point[plate.axis] - plate.at_m;
      // The plate reaches under the part where the point beside it lies within its outline and below its gap.
      const beside: Point2 = [point[u], point[v]];
      if (insideOutline(plate.outline, beside) && (plate.axis === 2 || point[2] < top))
        least = Math.min(
          least,
          Math.abs(off) - plate.thickness_m / 2 - (k === 1 ? Math.max(hole_m, below_m[0]) : below_m[0]) / 2,
        );
    }
    return least < HOLE_RULES.neighbour.least
      ? [{ kind: 'baffle', with: name, have_m: least, want_m: HOLE_RULES.neighbour.least }]
      : [];
  });
}
/** A hole without a part is looked behind so far: a baffle's edge would stand in it [m]. */
const LEAST_DEPTH_M = 0.004;
/** Rims of a part that lie on a wall's own rounding do not foul it [m]. */
const ROUNDING_M = 5e-4;
const AROUND = 16;

/**
 * Whether what is under the sheet runs into another wall of the tank: a nut in
 * a recess. It goes in square to the wall, and under each place of its rim from
 * where the wall is there: a neck in a round tank follows its own rounding.
 */
function insideChecks(
  { port, part, point_m, below_m }: Looked,
  { shell }: Inside,
  outer: ClosedMesh,
  sheet_m: number,
): SheetCheck[] {
  const wall = wallAt(outer, port, point_m);
  if (!part || below_m[1] <= 0 || !wall) return [];
  const { axes } = frameAlong(point_m, wall.normal);
  let worst = 0;
  for (let i = 0; i < AROUND; i++) {
    const angle = (2 * Math.PI * i) / AROUND;
    const rim = add(
      scale(axes[0], (below_m[0] / 2) * Math.cos(angle)),
      scale(axes[1], (below_m[0] / 2) * Math.sin(angle)),
    );
    const there = wallAt(outer, port, add(point_m, rim));
    const sag_m = there ? Math.max(0, dot(wall.normal, subtract(point_m, there.point_m))) : 0;
    const onward = sag_m <= below_m[0] / 2 ? sag_m : 0;
    for (let k = 1; k <= DEPTHS; k++) {
      worst = Math.max(
        worst,
        -depthInside(
          shell,
          add(add(point_m, rim), scale(wall.normal, -(sheet_m + onward + (below_m[1] * k) / DEPTHS))),
        ),
      );
    }
  }
  return worst > ROUNDING_M && worst > sagAllowance(below_m[1])
    ? [{ kind: 'inside', with: 'another wall', have_m: -worst, want_m: 0 }]
    : [];
}
/** The crown of a curved wall takes a little of the rim near the sheet. */
const sagAllowance = (depth_m: number): number => depth_m / DEPTHS / 2;

/** Whether what stands on the sheet runs into the tank's own walls: a fitting in a recess. */
function outsideChecks({ port }: Looked, outer: ClosedMesh): SheetCheck[] {
  const seat = portSeat(outer, port);
  if (!seat) return [];
  const { height_m, diameter_m } = standsOn(port);
  let worst = 0;
  for (let k = 1; k <= DEPTHS; k++) {
    for (const rim of rimOf(port, seat.seat_m, diameter_m / 2, AROUND)) {
      // Square to the wall: rims of a leaning fitting lean with it.
      const flat = subtract(rim, scale(seat.out, dot(seat.out, subtract(rim, seat.seat_m))));
      worst = Math.max(worst, depthInside(outer, add(flat, scale(seat.out, (height_m * k) / DEPTHS))));
    }
  }
  return worst > ROUNDING_M ? [{ kind: 'outside', with: 'a wall of the tank', have_m: -worst, want_m: 0 }] : [];
}

/** What stands on this port against what stands on the others, hose ends at their real angle. */
function hoseChecks({ port }: Looked, { pieces }: Inside): SheetCheck[] {
  const own = pieces.filter((piece) => piece.port === port.id);
  const others = new Map<string, number>();
  for (const piece of own) {
    for (const other of pieces) {
      if (other.port === port.id) continue;
      const apart = separation(
        treeOf(piece.surface),
        treeOf(other.surface),
        AT_HOME,
        HOLE_RULES.neighbour.least,
      )?.distance_m;
      if (apart !== undefined && apart < HOLE_RULES.neighbour.least)
        others.set(other.name, Math.min(others.get(other.name) ?? Infinity, apart));
    }
  }
  return [...others].map(([name, have_m]) => ({
    kind: 'hose-end' as const,
    with: name,
    have_m,
    want_m: HOLE_RULES.neighbour.least,
  }));
}
