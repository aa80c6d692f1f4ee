import {
  add,
  cross,
  dot,
  frameAlong,
  scale,
  subtract,
  unitVector,
  type ClosedMesh,
  type Pose,
  type Vec3,
} from '../geometry';
import type { MountDocument } from '../plan/schema';
import { BOLTS } from '../reference/bolts';
import { FACE_OF_SIDE, SIDE_WAYS } from './axes';
import { axesAcross, RUN_AXIS, rowOf, strapWay } from './compileMounts';
import { guardPlate, offTank_m, restLine, strapEnds } from './mountBodies';
import { wallAt } from './portSeat';

/** Where the head of a bolt sits and which way it faces: z of its pose; where it may be put in from, one of several. */
export type BoltSite = { readonly heads: readonly Pose[]; readonly flats_m: number };

type Made<K extends MountDocument['kind']> = NonNullable<Extract<MountDocument, { kind: K }>['made']>;
type Bolts = Made<'strap'>['bolts'];

/**
 * Where every bolt of a mount has its head, in the tank’s axes; nothing where it has none, or is not at the tank.
 * Bolts of a bearer or a guard stand in one row, or in two where it is wide.
 */
export function boltSites(outer: ClosedMesh, place: Vec3, mount: MountDocument): BoltSite[] {
  if (!mount.made) return [];
  switch (mount.kind) {
    case 'strap':
      return strap(outer, place, mount.made);
    case 'tab':
      return tab(outer, place, mount.made);
    case 'cradle':
      return cradle(outer, place, mount.made);
    case 'stop':
      return stop(outer, place, mount.made);
    case 'flange':
      return flange(outer, place, mount.made);
    case 'guard':
      return guard(outer, place, mount.made);
  }
}

const site = ({ size }: Bolts, ...heads: readonly (readonly [at_m: Vec3, out: Vec3])[]): BoltSite => ({
  heads: heads.map(([at_m, out]) => frameAlong(at_m, out)),
  flats_m: BOLTS[size].flats_m,
});
const back = (way: Vec3): Vec3 => scale(way, -1);

function strap(outer: ClosedMesh, place: Vec3, made: Made<'strap'>): BoltSite[] {
  const way = strapWay(outer, place, made);
  if (!way) return [];
  const [down, axis] = [SIDE_WAYS[made.side], RUN_AXIS[made.runs]];
  const across: Vec3 = [Number(axis === 0), Number(axis === 1), Number(axis === 2)];
  const { count, edge_m } = made.bolts;
  return strapEnds(way, made).flatMap(({ at_m, on }) =>
    rowOf(count, made.width_m.value, edge_m.value).map((share) => {
      const hole = add(add(at_m, scale(on, edge_m.value)), scale(across, share));
      return site(made.bolts, [add(hole, scale(down, -made.thickness_m.value)), back(down)]);
    }),
  );
}

function tab(outer: ClosedMesh, place: Vec3, made: Made<'tab'>): BoltSite[] {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.wall] }, place);
  if (!wall) return [];
  const [out, down] = [SIDE_WAYS[made.wall], SIDE_WAYS[made.side]];
  const leans = dot(out, down);
  const t = made.thickness_m.value;
  const row = rowOf(made.bolts.count, made.width_m.value, made.bolts.edge_m.value);
  // Under the tank it is bolted from beneath, through what it stands on.
  if (Math.abs(leans) > 0.5)
    return row.map((share) =>
      site(made.bolts, [
        add(
          add(wall.point_m, scale(axesAcross(made.side)[1], share)),
          scale(out, leans > 0 ? t + made.bears.thickness_m.value : t),
        ),
        out,
      ]),
    );
  const along = cross(out, down);
  const foot = add(add(wall.point_m, scale(out, made.arm_m.value)), scale(down, made.leg_m.value / 2 - t));
  return row.map((share) => site(made.bolts, [add(foot, scale(along, share)), back(down)]));
}

/** Wider than so many edge distances a plate has two rows. */
const TWO_ROWS_EDGES = 5;

/** In a plate, from its middle: one row along its longer side, or two where it is wide. */
function plateRows({ count, edge_m }: Bolts, length_m: number, width_m: number): (readonly [number, number])[] {
  const edge = edge_m.value;
  const [long, wide] = [Math.max(length_m, width_m), Math.min(length_m, width_m)];
  const rows = count >= 4 && wide > TWO_ROWS_EDGES * edge ? 2 : 1;
  const each = Array.from({ length: rows }, (_, r) => Math.floor((count + rows - 1 - r) / rows));
  const places = each.flatMap((n, r) =>
    rowOf(n, long, edge).map((share) => [share, rows === 1 ? 0 : (r === 0 ? -1 : 1) * (wide / 2 - edge)] as const),
  );
  return length_m >= width_m ? places : places.map(([x, y]) => [y, x] as const);
}

function cradle(outer: ClosedMesh, place: Vec3, made: Made<'cradle'>): BoltSite[] {
  const { bolts } = made;
  if (!bolts || !wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place)) return [];
  const [a, b] = axesAcross(made.side);
  const down = SIDE_WAYS[made.side];
  const line = restLine(outer, place, made, 0);
  if (!line) return [];
  return plateRows(bolts, made.length_m.value, made.width_m.value).map(([x, y]) => {
    const share = (y / made.width_m.value + 0.5) * (line.length - 1);
    const i = Math.min(line.length - 2, Math.max(0, Math.floor(share)));
    const along = unitVector(subtract(line[i + 1]!, line[i]!));
    const at = add(line[i]!, scale(subtract(line[i + 1]!, line[i]!), share - i));
    const on = add(place, add(scale(a, x), scale(b, y)));
    // Square to the bearer where it slopes.
    const out = unitVector(subtract(back(down), scale(along, -dot(down, along))));
    return site(bolts, [add(on, scale(down, dot(at, down) - dot(on, down))), out]);
  });
}

function stop(outer: ClosedMesh, place: Vec3, made: Made<'stop'>): BoltSite[] {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  if (!wall) return [];
  const out = SIDE_WAYS[made.side];
  const up: Vec3 = out[2] === 0 ? [0, 0, 1] : [1, 0, 0];
  const along: Vec3 = out[2] === 0 ? cross([0, 0, 1], out) : [0, 1, 0];
  const { edge_m, count } = made.bolts;
  const off = offTank_m(made) + made.thickness_m.value + edge_m.value;
  const foot = add(add(wall.point_m, scale(out, off)), scale(up, made.thickness_m.value - made.arm_m.value));
  return rowOf(count, made.width_m.value, edge_m.value).map((share) =>
    site(made.bolts, [add(foot, scale(along, share)), up]),
  );
}

function flange(outer: ClosedMesh, place: Vec3, made: Made<'flange'>): BoltSite[] {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  if (!wall) return [];
  const [u, v] = axesAcross(made.side);
  const out = SIDE_WAYS[made.side];
  const { count } = made.bolts;
  const radius = made.circle_m.value / 2;
  // Past the tank’s edge its heads are on the tank’s side; within it they are beyond what it is bolted to.
  const beyond = made.thickness_m.value + made.bears.thickness_m.value;
  return Array.from({ length: count }, (_, k) => {
    const angle = (2 * Math.PI * k) / count;
    const at = add(wall.point_m, add(scale(u, radius * Math.cos(angle)), scale(v, radius * Math.sin(angle))));
    return site(made.bolts, [at, back(out)], [add(at, scale(out, beyond)), out]);
  });
}

function guard(outer: ClosedMesh, place: Vec3, made: Made<'guard'>): BoltSite[] {
  const at = guardPlate(outer, place, made);
  if (!at || !made.bolts) return [];
  const { bolts } = made;
  const middle = add(
    add(at.corner_m, scale(at.out, made.thickness_m.value)),
    add(scale(at.a, made.length_m.value / 2), scale(at.b, made.width_m.value / 2)),
  );
  return plateRows(bolts, made.length_m.value, made.width_m.value).map(([x, y]) =>
    site(bolts, [add(middle, add(scale(at.a, x), scale(at.b, y))), at.out]),
  );
}
