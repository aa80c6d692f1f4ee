import {
  boxMesh,
  combine,
  composed,
  poseOf,
  posedMesh,
  shiftBy,
  type ClosedMesh,
  type Pose,
  type Vec3,
} from '@/core/geometry';
import type { Blocker, Part } from '@/core/fit';
import { unwrap } from '@/core/outcome';
import { seeded, type Chance } from '@/core/seeded';

/** A part in a place with one way out, known from how the place was made. */
export type WayScene = { readonly name: string; readonly part: Part; readonly blockers: readonly Blocker[] };

const box = (size: Vec3, at: Vec3): ClosedMesh => posedMesh(boxMesh(...size), shiftBy(at));
const blocker = (id: string, surface: ClosedMesh): Blocker => ({ id, name: id, surface, removable: false });
const between = (chance: Chance, low: number, high: number): number => low + (high - low) * chance.uniform();
const degrees = (angle: number): number => (angle * Math.PI) / 180;

/** A box that stands with its middle at a point, turned. */
const standing = (id: string, size: Vec3, middle: Vec3, yaw_deg = 0, pitch_deg = 0, roll_deg = 0): Part => ({
  id,
  name: id,
  surface: boxMesh(...size),
  middle_m: [size[0] / 2, size[1] / 2, size[2] / 2],
  at: composed(
    poseOf(middle, { yaw_rad: degrees(yaw_deg), pitch_rad: degrees(pitch_deg), roll_rad: degrees(roll_deg) }),
    shiftBy([-size[0] / 2, -size[1] / 2, -size[2] / 2]),
  ),
});

const WALL_M = 0.02;

/** A closed box of six walls round a room from its least corner; one wall may have a hole cut by a body. */
function closedRoom(low: Vec3, size: Vec3, cut?: { readonly wall: string; readonly by: ClosedMesh }): Blocker[] {
  const [x, y, z] = low;
  const [l, w, h] = size;
  const walls: [string, ClosedMesh][] = [
    ['rear wall', box([WALL_M, w, h], [x - WALL_M, y, z])],
    ['front wall', box([WALL_M, w, h], [x + l, y, z])],
    ['right wall', box([l, WALL_M, h], [x, y - WALL_M, z])],
    ['left wall', box([l, WALL_M, h], [x, y + w, z])],
    ['floor', box([l + 2 * WALL_M, w + 2 * WALL_M, WALL_M], [x - WALL_M, y - WALL_M, z - WALL_M])],
    ['roof', box([l + 2 * WALL_M, w + 2 * WALL_M, WALL_M], [x - WALL_M, y - WALL_M, z + h])],
  ];
  return walls.map(([id, mesh]) => blocker(id, cut?.wall === id ? unwrap(combine(mesh, cut.by, 'take')) : mesh));
}

/** To one side, turned by an angle, and lowered through a hole with a gap all round. */
function throughTurnedHole(chance: Chance, gap_m: number, turn_deg: number): WayScene {
  const size: Vec3 = [between(chance, 0.4, 0.6), between(chance, 0.2, 0.35), between(chance, 0.12, 0.25)];
  const hole = posedMesh(
    box([size[0] + 2 * gap_m, size[1] + 2 * gap_m, 0.1], [-size[0] / 2 - gap_m, -size[1] / 2 - gap_m, -0.06]),
    poseOf([between(chance, 0.3, 0.4), between(chance, 0.1, 0.2), 0], {
      yaw_rad: degrees(turn_deg),
      pitch_rad: 0,
      roll_rad: 0,
    }),
  );
  return {
    name: `turned ${Math.round(turn_deg)}° and lowered`,
    part: standing('tank', size, [-0.35, -0.2, size[2] / 2 + 0.003]),
    blockers: closedRoom([-0.8, -0.6, 0], [1.6, 1.2, size[2] + 0.2], { wall: 'floor', by: hole }),
  };
}

/** Raised, rolled by a quarter and slid out through a slot with a gap all round. */
function throughRaisedSlot(chance: Chance, gap_m: number): WayScene {
  const size: Vec3 = [between(chance, 0.4, 0.6), between(chance, 0.28, 0.35), between(chance, 0.1, 0.15)];
  const slot = box([0.1, size[2] + 2 * gap_m, size[1] + 2 * gap_m], [0.45, -size[2] / 2 - gap_m, 0.3]);
  return {
    name: 'raised, rolled and slid',
    part: standing('tank', size, [-0.1, 0, size[2] / 2 + 0.003]),
    blockers: closedRoom([-0.5, -0.35, 0], [1, 0.7, 0.75], { wall: 'front wall', by: slot }),
  };
}

/** Straight out of a slanted sleeve with a gap all round. */
export function outOfSleeve(chance: Chance, gap_m: number): WayScene {
  const size: Vec3 = [between(chance, 0.3, 0.5), between(chance, 0.15, 0.25), between(chance, 0.1, 0.2)];
  const [yaw, pitch, roll] = [between(chance, 15, 75), between(chance, 10, 50), between(chance, -30, 30)];
  const sleeve = unwrap(
    combine(
      box([1, size[1] + 0.1, size[2] + 0.1], [-0.5, -size[1] / 2 - 0.05, -size[2] / 2 - 0.05]),
      box([0.97, size[1] + 2 * gap_m, size[2] + 2 * gap_m], [-0.46, -size[1] / 2 - gap_m, -size[2] / 2 - gap_m]),
      'take',
    ),
  );
  const part = standing('tank', size, [0, 0, 0]);
  const pose = poseOf([0, 0, 0], { yaw_rad: degrees(yaw), pitch_rad: degrees(pitch), roll_rad: degrees(roll) });
  return {
    name: `straight out of a slanted sleeve, ${Math.round(gap_m * 1e4) / 10} mm`,
    part: { ...part, at: composed(pose, part.at) },
    blockers: [blocker('sleeve', posedMesh(sleeve, pose))],
  };
}

/**
 * The longest box of a width that goes round a square corner between two corridors. @source the moving-ladder problem
 * with a width: least over the angle of (a cos t + b sin t - w) / (sin t cos t)
 */
export function longestRound(a_m: number, b_m: number, width_m: number): number {
  let least = Infinity;
  for (let t = 0.001; t < Math.PI / 2; t += 0.0005)
    least = Math.min(least, (a_m * Math.cos(t) + b_m * Math.sin(t) - width_m) / (Math.sin(t) * Math.cos(t)));
  return least;
}

/** Round a square corner, a share of the longest box that goes. */
function roundCorner(chance: Chance, share: number): WayScene {
  const [a, b, w] = [between(chance, 0.35, 0.6), between(chance, 0.35, 0.6), between(chance, 0.05, 0.2)];
  const height = 0.12;
  const length = share * longestRound(a, b, w);
  const far = length + 0.4;
  // One corridor along x, 0 < y < a; the other along y from it, 0 < x < b; open at its far end.
  const blockers = [
    blocker('floor', box([far + 0.1, far + 0.1, WALL_M], [-0.1, -0.1, -WALL_M])),
    blocker('roof', box([far + 0.1, far + 0.1, WALL_M], [-0.1, -0.1, height + 0.006])),
    blocker('outer wall', box([far + 0.1, 0.1, height], [-0.1, -0.1, 0])),
    blocker('outer side', box([0.1, far, height], [-0.1, 0, 0])),
    blocker('inner corner', box([far - b, far - a, height], [b, a, 0])),
    blocker('end', box([0.05, a, height], [far - 0.05, 0, 0])),
  ];
  return {
    name: `round a corner, ${Math.round(100 * share)} % of the longest`,
    part: standing('tank', [length, w, height - 0.004], [far - 0.06 - length / 2, a / 2, height / 2 + 0.003]),
    blockers,
  };
}

/** Through two square corners, one to the left and one to the right. */
function roundS(chance: Chance, share: number): WayScene {
  const [a, w] = [between(chance, 0.35, 0.5), between(chance, 0.06, 0.15)];
  const [height, mid] = [0.12, between(chance, 0.9, 1.2)];
  const length = share * longestRound(a, a, w);
  const leg = length + 0.3;
  // In along x at 0 < y < a, across along y at 0 < x < a, out along -x at mid < y < mid + a.
  const blockers = [
    blocker('floor', box([2 * leg + a, mid + a + 0.2, WALL_M], [-leg, -0.1, -WALL_M])),
    blocker('roof', box([2 * leg + a, mid + a + 0.2, WALL_M], [-leg, -0.1, height + 0.006])),
    blocker('first wall', box([leg + a, 0.1, height], [-0.1, -0.1, 0])),
    blocker('first side', box([0.1, mid, height], [-0.1, 0, 0])),
    blocker('second block', box([leg - 0.1, 0.1, height], [-leg, mid - 0.1, 0])),
    blocker('first block', box([leg, 0.1, height], [a, a, 0])),
    blocker('second side', box([0.1, mid, height], [a, a, 0])),
    blocker('second wall', box([leg + a + 0.1, 0.1, height], [-leg, mid + a, 0])),
    blocker('end', box([0.05, a, height], [leg + a - 0.05, 0, 0])),
  ];
  return {
    name: `an S, ${Math.round(100 * share)} % of the longest`,
    part: standing('tank', [length, w, height - 0.004], [leg + a - 0.06 - length / 2, a / 2, height / 2 + 0.003]),
    blockers,
  };
}

/** An S of three straight moves through a slit with a gap. */
function stepped(chance: Chance, gap_m: number): WayScene {
  const size: Vec3 = [between(chance, 0.3, 0.4), between(chance, 0.2, 0.3), between(chance, 0.1, 0.15)];
  const [l, w, h] = size;
  const g = 2 * gap_m;
  // A lower cell as wide as the part, a step to the side in the middle, and a shaft upward from there.
  const solid = box([l + g + 0.2, 2 * w + g + 0.3, 2 * h + g + 0.4], [-0.1, -0.1, -0.1]);
  const cell = box([l + g, 2 * w + g + 0.02, h + g], [0, 0, 0]);
  const shaft = box([l + g, w + g, 2 * h + 1], [0, w + 0.02, 0]);
  const surface = unwrap(combine(unwrap(combine(solid, cell, 'take')), shaft, 'take'));
  return {
    name: 'to the side and up a shaft',
    part: standing('tank', size, [l / 2 + gap_m, w / 2 + gap_m, h / 2 + gap_m]),
    blockers: [blocker('block', surface)],
  };
}

/**
 * A bay open to the front but for a lip along its floor; under a roof that leaves less than the lip's height over the
 * tank.
 */
export function behindLip(lip_m: number, over_m: number): WayScene {
  const size: Vec3 = [0.5, 0.4, 0.3];
  const blockers = [
    ...closedRoom([0, 0, 0], [0.52, 0.42, size[2] + over_m]).filter(({ id }) => id !== 'front wall'),
    blocker('lip', box([0.02, 0.42, lip_m], [0.52, 0, 0])),
  ];
  return { name: 'behind a lip', part: standing('tank', size, [0.26, 0.21, size[2] / 2 + 0.002]), blockers };
}

/** The whole place turned and moved, the part with it: what is true of it stays so. */
const turnedScene = ({ name, part, blockers }: WayScene, pose: Pose): WayScene => ({
  name: `${name}, turned`,
  part: { ...part, at: composed(pose, part.at) },
  blockers: blockers.map((one) => ({ ...one, surface: posedMesh(one.surface, pose) })),
});

/** Every kind of place with a known way, its sizes drawn by a seed; every other one turned anyhow. */
export function wayScenes(seed: number): WayScene[] {
  const chance = seeded(seed);
  const scenes = [
    throughTurnedHole(chance, 0.01, 35),
    throughTurnedHole(chance, 0.006, between(chance, 15, 75)),
    throughRaisedSlot(chance, 0.015),
    outOfSleeve(chance, 0.004),
    outOfSleeve(chance, 0.0007),
    roundCorner(chance, 0.9),
    roundCorner(chance, 0.95),
    roundCorner(chance, 0.97),
    roundS(chance, 0.85),
    roundS(chance, 0.93),
    stepped(chance, 0.004),
  ];
  const anyhow = (): Pose =>
    poseOf([between(chance, -2, 2), between(chance, -2, 2), between(chance, -1, 1)], {
      yaw_rad: between(chance, -3, 3),
      pitch_rad: between(chance, -1.2, 1.2),
      roll_rad: between(chance, -3, 3),
    });
  return [...scenes, ...scenes.map((scene) => turnedScene(scene, anyhow()))];
}
