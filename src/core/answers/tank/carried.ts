import { convexHull, meshBounds, placedBack, type Bounds, type Point2, type Vec3 } from '../../geometry';
import { outerMesh, placeOf } from '../../model/compileFit';
import { compileMounts } from '../../model/compileMounts';
import { offTank_m } from '../../model/mountBodies';
import { wallAt } from '../../model/portSeat';
import { failure, success, type Outcome } from '../../outcome';
import type { PlanAt } from '../../plan/schema';
import { edgesOf, hangingUp, slingLeg } from '../../tank';
import { STANDARD_GRAVITY_M_PER_S2 } from '../../units';
import type { Stood } from './standing';
import {
  baseOf,
  looseOf,
  rowsOver,
  SHARES,
  TIP_FILLS,
  type Loose,
  type TipFill,
  type TipRow,
  type TipsCode,
} from './tips';

/** How it is lifted. */
export type Lifted = {
  /** Over both forks, outside to outside. */ readonly forks_m: number;
  /** The way that they run under it. */ readonly runs: 'along' | 'across';
  /** From the tank’s top up to the hook, over its middle. */ readonly hook_m: number;
};

/** How it hangs from four slings at its upper corners. */
export type Hangs = {
  /** Out of level [rad]. */ readonly tilt_rad: number;
  /** What one leg bears, of four reckoned as two, and how far it leans from plumb. */
  readonly pull_N: number;
  readonly lean_rad: number;
};

export type CarriedCode = TipsCode | 'no-feet' | 'bad-shape';
export type Carried = {
  /** Leans at which it goes over, on forks and on the feet that it is bolted by. */
  readonly forks: Outcome<readonly TipRow[], CarriedCode>;
  readonly feet: Outcome<readonly TipRow[], CarriedCode>;
  /** In the pockets of a skid or pallet under it; undefined where none has any. */
  readonly pockets: Outcome<readonly TipRow[], CarriedCode> | undefined;
  readonly hangs: Readonly<Record<TipFill, Outcome<Hangs, 'not-steady'>>>;
};

/** Forks nearer each other than this carry nothing [m]. */
const LEAST_FORKS_M = 0.02;
/** Feet that touch it higher than this over its lowest point stand on no ground [m]. */
const FEET_UP_M = 5e-3;
/** Feet on less than this are none [m]. */
const LEAST_BASE_M = 5e-3;

/** How a tank that is lifted, or stood down on its feet, keeps upright; its liquid level all the while. */
export function carriedOf(
  system: Stood & Pick<PlanAt, 'mounts'>,
  t: number,
  { forks_m, runs, hook_m }: Lifted,
): Outcome<Carried, CarriedCode> {
  const loose = looseOf(system, t);
  if (!loose.ok) return loose;
  if (!(forks_m >= LEAST_FORKS_M) || !(hook_m > 0))
    return failure('no-base', loose.value.name, 'Forks need room between them, and a hook has to be over the tank.');
  const outers = [];
  for (const { tank } of loose.value.members) {
    const outer = outerMesh(tank.document);
    if (!outer.ok) return failure('bad-shape', tank.document.name, outer.error.detail);
    outers.push(outer.value);
  }
  const bounds = outers.map((mesh) => meshBounds(mesh));
  const min = [0, 1, 2].map((k) => Math.min(...bounds.map((each) => each.min[k]!))) as unknown as Vec3;
  const max = [0, 1, 2].map((k) => Math.max(...bounds.map((each) => each.max[k]!))) as unknown as Vec3;
  return success({
    forks: onForks(loose.value, { min, max }, forks_m, runs),
    feet: onFeet(system, loose.value, outers, min[2]),
    pockets: inPockets(system, loose.value, outers),
    hangs: hangsOf(loose.value, { min, max }, hook_m),
  });
}

/**
 * On two forks under the whole of it, one way, about its middle: on as much of its floor as lies over them. A floor
 * that is not flat rests on their edges, where nobody knows.
 */
function onForks(loose: Loose, { min, max }: Bounds, forks_m: number, runs: Lifted['runs']): Carried['forks'] {
  const base = baseOf(loose.members.map(({ tank }) => tank));
  if (!base.ok)
    return failure(
      'no-base',
      loose.name,
      'Its floor is not flat: on forks it rolls, or rests on their edges. Cradle it.',
    );
  const across = runs === 'along' ? 1 : 0;
  const middle = (min[across] + max[across]) / 2;
  const over = [-1, 1].reduce<readonly Point2[]>(
    (outline, side) => cutAt(outline, across, middle + (side * forks_m) / 2, side),
    base.value.outline,
  );
  const outline = over.length < 3 ? [] : convexHull(over);
  return outline.length < 3
    ? failure('no-base', loose.name, 'None of its floor lies over the forks.')
    : rowsOver(edgesOf(outline, base.value.low_m), loose);
}

/** As much of a convex outline as lies on the near side of a line across an axis. */
function cutAt(outline: readonly Point2[], axis: 0 | 1, at: number, side: number): Point2[] {
  const past = (p: Point2): number => side * (p[axis] - at);
  return outline.flatMap((p, i): Point2[] => {
    const q = outline[(i + 1) % outline.length]!;
    const [here, next] = [past(p), past(q)];
    const kept: Point2[] = here <= 0 ? [p] : [];
    if (here * next >= 0) return kept;
    const share = here / (here - next);
    return [...kept, [p[0] + share * (q[0] - p[0]), p[1] + share * (q[1] - p[1])]];
  });
}

/** On all that bears it from below, set down with it on level ground. */
function onFeet(
  system: Pick<PlanAt, 'mounts'>,
  loose: Loose,
  outers: readonly Parameters<typeof compileMounts>[0][],
  lowest_m: number,
): Carried['feet'] {
  const points = loose.members.flatMap(({ tank: { document } }, i) => {
    const at = placeOf(document.mounting);
    const below = system.mounts.flatMap((mount, index) =>
      mount.tank === document.id && mount.made && mount.made.side === 'down' && mount.kind !== 'strap'
        ? [{ mount, index }]
        : [],
    );
    return compileMounts(outers[i]!, at, below)
      .supports.filter(({ role }) => role.what === 'rest' || role.what === 'bolt')
      .map(({ legs }) => placedBack(at, legs[0]!.at_m));
  });
  const feet = points.map(([x, y]): Point2 => [x, y]);
  const span = ([0, 1] as const).map((k) => Math.max(...feet.map((p) => p[k])) - Math.min(...feet.map((p) => p[k])));
  const outline = feet.length < 3 ? [] : convexHull(feet);
  if (outline.length < 3 || Math.min(...span) < LEAST_BASE_M)
    return failure('no-feet', loose.name, 'No feet or bearers under it are said, on which it could stand.');
  const ground_m = Math.min(...points.map(([, , z]) => z));
  return ground_m > lowest_m + FEET_UP_M
    ? failure('no-feet', loose.name, 'Its feet are higher than its floor: set down, it stands on that.')
    : rowsOver(edgesOf(outline, ground_m), loose);
}

/**
 * On forks in the pockets of a skid, the tank fast on it: on as much of the skid as lies between the middles of its
 * pockets, since forks may be narrower than they are. What the skid itself weighs is left out: it would steady it.
 */
function inPockets(
  system: Pick<PlanAt, 'mounts'>,
  loose: Loose,
  outers: readonly Parameters<typeof compileMounts>[0][],
): Carried['pockets'] {
  const skids = loose.members.flatMap(({ tank: { document } }, i) =>
    system.mounts.flatMap((mount) => {
      if (mount.tank !== document.id || mount.kind !== 'cradle' || !mount.made?.pockets) return [];
      const { pockets, length_m, width_m, side } = mount.made;
      if (side !== 'down') return [];
      const place = placedBack(placeOf(document.mounting), [mount.x_m.value, mount.y_m.value, mount.z_m.value]);
      const wall = wallAt(outers[i]!, { face: 'floor' }, place);
      if (!wall) return [];
      const half: Point2 =
        pockets.runs === 'along'
          ? [length_m.value / 2, Math.min(width_m.value, pockets.apart_m.value) / 2]
          : [Math.min(length_m.value, pockets.apart_m.value) / 2, width_m.value / 2];
      const corners = [-1, 1].flatMap((x) =>
        [-1, 1].map((y): Point2 => [place[0] + x * half[0], place[1] + y * half[1]]),
      );
      return [{ corners, under_m: wall.point_m[2] - offTank_m(mount.made) - mount.made.thickness_m.value }];
    }),
  );
  if (skids.length === 0) return undefined;
  return rowsOver(
    edgesOf(convexHull(skids.flatMap(({ corners }) => corners)), Math.min(...skids.map(({ under_m }) => under_m))),
    loose,
  );
}

function hangsOf(loose: Loose, { min, max }: Bounds, hook_m: number): Carried['hangs'] {
  const hook: Vec3 = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, max[2] + hook_m];
  const corners = ([min[0], max[0]] as const).flatMap((x) =>
    ([min[1], max[1]] as const).map((y): Vec3 => [x, y, max[2]]),
  );
  const one = (fill: TipFill): Outcome<Hangs, 'not-steady'> => {
    const standing = loose.standing(SHARES[fill]);
    const up = hangingUp(standing, hook);
    if (!up)
      return failure('not-steady', loose.name, 'It does not hang steady: its liquid runs further than it leans.');
    const mass_kg =
      standing.fixed.reduce((sum, each) => sum + each.mass_kg, 0) +
      standing.liquids.reduce((sum, { volume_m3, density_kgPerM3 }) => sum + volume_m3 * density_kgPerM3, 0);
    return success({
      tilt_rad: Math.acos(Math.min(1, up[2])),
      ...slingLeg(corners, hook, up, mass_kg * STANDARD_GRAVITY_M_PER_S2),
    });
  };
  return Object.fromEntries(TIP_FILLS.map((fill) => [fill, one(fill)])) as Carried['hangs'];
}
