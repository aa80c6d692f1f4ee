import {
  add,
  boxMesh,
  convexHull,
  cross,
  posedMesh,
  prismMesh,
  rodMesh,
  scale,
  shiftBy,
  type Axis,
  type ClosedMesh,
  type Point2,
  type Vec3,
} from '../geometry';
import type { MountDocument } from '../plan/schema';
import { AXES } from '../shapes';
import { FACE_OF_SIDE, SIDE_WAYS } from './axes';
import { axesAcross, RUN_AXIS, strapWay } from './compileMounts';
import { wallAt } from './portSeat';
import { grown } from './grown';

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
  }
}

type Made<K extends MountDocument['kind']> = NonNullable<Extract<MountDocument, { kind: K }>['made']>;

/** A box that spans two corners, whichever way they lie. */
function boxBetween(a: Vec3, b: Vec3): ClosedMesh {
  const low = a.map((value, k) => Math.min(value, b[k]!)) as unknown as Vec3;
  const size = a.map((value, k) => Math.max(1e-4, Math.abs(value - b[k]!))) as unknown as Vec3;
  return posedMesh(boxMesh(...size), shiftBy(low));
}

function band(outer: ClosedMesh, place: Vec3, made: Made<'strap'>): ClosedMesh[] {
  const way = strapWay(outer, place, made);
  if (!way) return [];
  const axis: Axis = RUN_AXIS[made.runs];
  const [u, v] = ([0, 1, 2] as const).filter((k) => k !== axis) as [Axis, Axis];
  const outline = grown(
    convexHull(way.map((p): Point2 => [p[u], p[v]])),
    made.thickness_m.value + made.pad.thickness_m.value,
  );
  const width = made.width_m.value;
  const from = [0, 0, 0] as [number, number, number];
  from[axis] = place[axis] - width / 2;
  const prism = prismMesh(outline, AXES[axis], width);
  return prism.ok ? [posedMesh(prism.value, shiftBy(from))] : [];
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

function cradle(outer: ClosedMesh, place: Vec3, made: Made<'cradle'>): ClosedMesh[] {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  if (!wall) return [];
  const [a, b] = axesAcross(made.side);
  const down = SIDE_WAYS[made.side];
  const [length, width, t] = [made.length_m.value, made.width_m.value, made.thickness_m.value];
  const top = add(wall.point_m, scale(down, made.pad.thickness_m.value));
  const corner = add(add(top, scale(a, -length / 2)), scale(b, -width / 2));
  const pieces = [spanned(corner, [a, length], [b, width], [down, t])];
  if (made.lip_m.value > 0)
    for (const [at, way, along, size] of [
      [corner, a, b, width],
      [add(corner, scale(a, length)), scale(a, -1), b, width],
      [corner, b, a, length],
      [add(corner, scale(b, width)), scale(b, -1), a, length],
    ] as const)
      pieces.push(spanned(at, [along, size], [way, -t], [down, -made.lip_m.value]));
  return pieces;
}

function stop(outer: ClosedMesh, place: Vec3, made: Made<'stop'>): ClosedMesh[] {
  const wall = wallAt(outer, { face: FACE_OF_SIDE[made.side] }, place);
  if (!wall) return [];
  const out = SIDE_WAYS[made.side];
  const along: Vec3 = out[2] === 0 ? cross([0, 0, 1], out) : [0, 1, 0];
  const up: Vec3 = out[2] === 0 ? [0, 0, 1] : [1, 0, 0];
  const [arm, t] = [made.arm_m.value, made.thickness_m.value];
  const near = add(
    add(add(wall.point_m, scale(out, made.pad.thickness_m.value)), scale(along, -made.width_m.value / 2)),
    scale(up, -arm),
  );
  return [
    spanned(near, [along, made.width_m.value], [up, arm + TOP_M], [out, t]),
    spanned(near, [along, made.width_m.value], [up, t], [out, 2 * made.bolts.edge_m.value]),
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
