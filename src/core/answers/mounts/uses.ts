import {
  add,
  dot,
  isInOutline,
  norm,
  onFace,
  scale,
  subtract,
  toStretch,
  type FlatFace,
  type Vec3,
} from '../../geometry';
import { SIDE_WAYS } from '../../model/axes';
import type { MountSide, MountSupport } from '../../model/compileMounts';
import {
  armBends_N,
  bearing_N,
  boltProof_N,
  boltUse_ratio,
  pressed_Pa,
  pullThrough_N,
  strapHolds_N,
  threadHolds_N,
  weld_N,
} from '../../mounts';
import type { MountDocument } from '../../plan/schema';
import { BOLTS } from '../../reference/bolts';
import { MOUNT_STOCKS, PAD_ROWS, type MountStock } from '../../reference/mountStock';

/** What of a mount may give. */
export type MountPart =
  'strap' | 'bolt' | 'thread' | 'washer' | 'bolt-hole' | 'own-hole' | 'arm' | 'weld' | 'tank-wall' | 'pad';

/**
 * What one part of a mount is asked to bear in one case, and what it bears:
 * undefined where no table says.
 */
export type PartUse = { readonly part: MountPart; readonly demand_N: number; readonly capacity_N: number | undefined };

/** The forces of one mount's supports in one case, in vehicle axes. */
export type MountForces = {
  readonly supports: readonly MountSupport[];
  readonly forces_N: readonly number[];
  readonly frictions_N: readonly Vec3[];
};

/** The tank’s wall where a mount is on it, in the tank’s axes. */
export type Wall = {
  readonly thickness_m: number;
  readonly yield_Pa: number | undefined;
  /** The same beside a weld. */ readonly besideYield_Pa: number | undefined;
  readonly faces: readonly FlatFace[];
};

type Made<K extends MountDocument['kind']> = NonNullable<Extract<MountDocument, { kind: K }>['made']>;
type Bolts = Made<'strap'>['bolts'];
type Bears = { readonly stock: MountStock; readonly thickness_m: { readonly value: number } };

/** Sums that are below this are rounding [N]. */
const NOTHING_N = 1e-3;

/** What one bolt of a foot bears, and its thread, its washer and the holes that it goes through. */
function boltUses(bolts: Bolts, bears: Bears, own: Bears | undefined, pull_N: number, shear_N: number): PartUse[] {
  const { size, class: of, held, edge_m } = bolts;
  const thickness = bears.thickness_m.value;
  const together_N = Math.hypot(Math.max(0, pull_N), shear_N);
  const use = boltUse_ratio(size, of, pull_N, shear_N);
  const pulled = Math.max(0, pull_N);
  // Wood is held by its washers and screws by their threads: which of them goes is told apart.
  const thread = threadHolds_N(held, size, bears.stock, thickness);
  return [
    { part: 'bolt', demand_N: together_N, capacity_N: use > 0 ? together_N / use : boltProof_N(size, of) },
    ...(thread === Infinity ? [] : [{ part: 'thread' as const, demand_N: pulled, capacity_N: thread }]),
    ...(held === 'nut'
      ? [{ part: 'washer' as const, demand_N: pulled, capacity_N: pullThrough_N(bears.stock, thickness, size) }]
      : []),
    { part: 'bolt-hole', demand_N: shear_N, capacity_N: bearing_N(bears.stock, thickness, size, edge_m.value) },
    ...(own
      ? [
          {
            part: 'own-hole' as const,
            demand_N: shear_N,
            capacity_N: bearing_N(own.stock, own.thickness_m.value, size, edge_m.value),
          },
        ]
      : []),
  ];
}

/** Webbing is hooked, not drilled. */
const isWeb = (stock: MountStock): boolean => stock === 'polyester-web';

/** What each part of a mount bears in a case; nothing of one of which it is not said how it is made. */
export function usesOf(
  mount: MountDocument,
  forces: MountForces,
  wall: Wall,
  toTank: (point: Vec3) => Vec3,
  axisOf: (mount: MountDocument) => Vec3,
): PartUse[] {
  if (!mount.made || forces.supports.length === 0) return [];
  switch (mount.kind) {
    case 'strap':
      return strapUses(mount.made, forces, axisOf(mount));
    case 'tab':
      return tabUses(mount.made, forces, wall, toTank);
    case 'cradle':
      return cradleUses(mount.made, forces, wall, toTank);
    case 'stop':
      return stopUses(mount.made, forces);
    case 'flange':
      return flangeUses(mount.made, forces);
    case 'guard':
      return [];
  }
}

/** What rubber mounts that are bought carry, whichever way. */
const rubberUse = ({ own }: Made<'tab'>['pad'], force_N: number): PartUse[] =>
  own ? [{ part: 'pad', demand_N: force_N, capacity_N: own.most_N.value }] : [];

function strapUses(made: Made<'strap'>, { supports, forces_N }: MountForces, axis: Vec3): PartUse[] {
  const [support] = supports;
  if (support?.role.what !== 'strap') return [];
  const tension = forces_N[0]!;
  const { hole_m } = BOLTS[made.bolts.size];
  const own = isWeb(made.stock) ? undefined : { stock: made.stock, thickness_m: made.thickness_m };
  return [
    {
      part: 'strap',
      demand_N: tension,
      capacity_N: strapHolds_N(made.stock, made.width_m.value, made.thickness_m.value, own ? hole_m : 0),
    },
    ...support.role.ends.flatMap(({ way }) => {
      // A strap that goes round what holds it hangs on no bolt there: its bolt joins its ends.
      const along = Math.abs(dot(way, axis));
      const each = tension / made.bolts.count;
      return boltUses(made.bolts, made.bears, own, each * along, each * Math.sqrt(Math.max(0, 1 - along ** 2)));
    }),
  ];
}

/** The forces of each bolt of a mount: what pulls it, and what shears it. */
function boltsOf({ supports, forces_N }: MountForces) {
  const bolts = new Map<number, { along: number; across: number[]; force: Vec3; at_m: Vec3 }>();
  for (const [i, { role, legs }] of supports.entries()) {
    if (role.what !== 'bolt') continue;
    const bolt = bolts.get(role.bolt) ?? { along: 0, across: [], force: [0, 0, 0] as Vec3, at_m: legs[0]!.at_m };
    const force = forces_N[i]!;
    bolts.set(role.bolt, {
      ...bolt,
      ...(role.along ? { along: force } : { across: [...bolt.across, force] }),
      force: add(bolt.force, scale(legs[0]!.way, force)),
    });
  }
  return [...bolts.values()].map(({ along, across, force, at_m }) => ({
    // What draws the tank towards what it is bolted to pulls the bolt.
    pull_N: Math.max(0, along),
    along_N: along,
    shear_N: Math.hypot(...across),
    force_N: force,
    at_m,
  }));
}

function flangeUses(made: Made<'flange'>, forces: MountForces): PartUse[] {
  const bolts = boltsOf(forces);
  return [
    ...bolts.flatMap(({ pull_N, shear_N }) =>
      boltUses(made.bolts, made.bears, { stock: made.stock, thickness_m: made.thickness_m }, pull_N, shear_N),
    ),
    // How far its rim reaches beyond the tank, and so what bends it, is not said.
    { part: 'arm', demand_N: Math.max(...bolts.map(({ pull_N }) => pull_N)), capacity_N: undefined },
  ];
}

function tabUses(made: Made<'tab'>, forces: MountForces, wall: Wall, toTank: (point: Vec3) => Vec3): PartUse[] {
  const bolts = boltsOf(forces);
  const stock = MOUNT_STOCKS[made.stock];
  const isFoot = made.wall === made.side || OPPOSITE[made.wall] === made.side;
  const along_N = bolts.reduce((sum, { along_N: each }) => sum + each, 0);
  const whole = bolts.reduce<Vec3>((sum, { force_N }) => add(sum, force_N), [0, 0, 0]);
  const arm_m = isFoot ? 0 : made.arm_m.value;
  const moment_Nm = Math.abs(along_N) * arm_m;
  const bentYield = made.weld ? (stock.beside?.yield_Pa ?? stock.yield_Pa) : stock.yield_Pa;
  const uses = bolts.flatMap(({ pull_N, shear_N }) =>
    boltUses(made.bolts, made.bears, { stock: made.stock, thickness_m: made.thickness_m }, pull_N, shear_N),
  );
  if (!isFoot)
    uses.push({
      part: 'arm',
      demand_N: Math.abs(along_N),
      capacity_N: armBends_N(bentYield, made.width_m.value, made.thickness_m.value, arm_m),
    });
  uses.push({
    part: 'weld',
    // What turns the tab is borne by the two lines of its weld, a leg apart.
    demand_N: norm(whole) + (2 * moment_Nm) / made.leg_m.value,
    // Held by nothing that is said, it is not known to hold.
    capacity_N: made.weld && weld_N(made.stock, made.weld.throat_m.value, made.weld.length_m.value),
  });
  uses.push(...rubberUse(made.pad, norm(whole)));
  const pressed = panelUse(wall, toTank, bolts[0]?.at_m, norm(whole) + moment_Nm / made.leg_m.value, {
    area_m2: made.width_m.value * made.leg_m.value,
    side: made.wall,
    yield_Pa: made.weld ? wall.besideYield_Pa : wall.yield_Pa,
  });
  return pressed ? [...uses, pressed] : uses;
}

const OPPOSITE = { down: 'up', up: 'down', fore: 'aft', aft: 'fore', port: 'starboard', starboard: 'port' } as const;

/** A place this near to a face's edge is held by the wall beyond it [m]. */
const BY_EDGE_M = 0.03;
/**
 * What the tank's own wall bears of a force on a place of a flat face: as a
 * panel that rests on the face's edges, pressed in its middle. Nothing where
 * the wall is round, or the place is at an edge, which is far stiffer.
 */
function panelUse(
  wall: Wall,
  toTank: (point: Vec3) => Vec3,
  at_m: Vec3 | undefined,
  force_N: number,
  {
    area_m2,
    side,
    yield_Pa,
  }: { readonly area_m2: number; readonly side: MountSide; readonly yield_Pa: number | undefined },
): PartUse | undefined {
  if (!at_m) return undefined;
  const point = toTank(at_m);
  const face = wall.faces.find(
    ({ frame, loops }) => dot(frame.normal, SIDE_WAYS[side]) > 0.9 && isInOutline(inFace(frame, point), loops[0]!),
  );
  if (!face) return undefined;
  const loop = face.loops[0]!;
  const at = inFace(face.frame, point);
  const off = Math.min(...loop.map((a, i) => toStretch(at, a, loop[(i + 1) % loop.length]!).distance_m));
  const radius_m = Math.sqrt(area_m2 / Math.PI);
  if (off < BY_EDGE_M + radius_m / 2) return undefined;
  const spans = ([0, 1] as const)
    .map((k) => Math.max(...loop.map((p) => p[k])) - Math.min(...loop.map((p) => p[k])))
    .sort((a, b) => a - b) as [number, number];
  const { thickness_m } = wall;
  const stress_Pa = pressed_Pa({ short_m: spans[0], long_m: spans[1], thickness_m, radius_m }, force_N);
  return {
    part: 'tank-wall',
    demand_N: force_N,
    capacity_N: yield_Pa === undefined ? undefined : force_N < NOTHING_N ? Infinity : (force_N * yield_Pa) / stress_Pa,
  };
}

const inFace = (frame: FlatFace['frame'], point: Vec3): readonly [number, number] => {
  const from = subtract(point, onFace(frame, [0, 0]));
  return [dot(from, frame.u), dot(from, frame.v)];
};

/** A bearer that reaches this near to both edges of a face presses on the walls beside it [m]. */
const ACROSS_M = 0.03;

function cradleUses(
  made: Made<'cradle'>,
  { supports, forces_N, frictions_N }: MountForces,
  wall: Wall,
  toTank: (point: Vec3) => Vec3,
): PartUse[] {
  const uses: PartUse[] = [];
  const rests = supports.flatMap(({ role, legs }, i) =>
    role.what === 'rest' ? [{ force: forces_N[i]!, area_m2: role.area_m2, at_m: legs[0]!.at_m }] : [],
  );
  const pressed_N = rests.reduce((sum, { force }) => sum + force, 0);
  const worst_Pa = Math.max(0, ...rests.map(({ force, area_m2 }) => force / area_m2));
  if (made.pad.own) uses.push(...rubberUse(made.pad, pressed_N));
  else if (made.pad.of !== 'none')
    uses.push({
      part: 'pad',
      demand_N: pressed_N,
      capacity_N: worst_Pa > 0 ? (pressed_N * PAD_ROWS[made.pad.of].most_Pa) / worst_Pa : Infinity,
    });
  const middle = rests[4]?.at_m;
  if (middle && rests.length === 9) {
    const across = wall.faces.some(({ frame, loops }) => {
      if (dot(frame.normal, SIDE_WAYS[made.side]) < 0.9 || !isInOutline(inFace(frame, toTank(middle)), loops[0]!))
        return false;
      const spans = ([0, 1] as const).map(
        (k) => Math.max(...loops[0]!.map((p) => p[k])) - Math.min(...loops[0]!.map((p) => p[k])),
      );
      const sizes = [made.length_m.value, made.width_m.value];
      return Math.min(...spans) < Math.max(...sizes) + 2 * ACROSS_M;
    });
    const pressed = across
      ? undefined
      : panelUse(wall, toTank, middle, pressed_N, {
          area_m2: made.length_m.value * made.width_m.value,
          side: made.side,
          yield_Pa: wall.yield_Pa,
        });
    if (pressed) uses.push(pressed);
  }
  const aside = supports.reduce<Vec3>(
    (sum, { role, legs }, i) =>
      add(add(sum, frictions_N[i]!), role.what === 'lip' ? scale(legs[0]!.way, forces_N[i]!) : [0, 0, 0]),
    [0, 0, 0],
  );
  const lip_N = supports.reduce((sum, { role }, i) => sum + (role.what === 'lip' ? forces_N[i]! : 0), 0);
  if (lip_N > NOTHING_N)
    uses.push({
      part: 'arm',
      demand_N: lip_N,
      capacity_N: armBends_N(
        MOUNT_STOCKS[made.stock].yield_Pa,
        Math.min(made.length_m.value, made.width_m.value),
        made.thickness_m.value,
        made.lip_m.value / 2,
      ),
    });
  uses.push(
    ...(made.bolts
      ? boltUses(
          made.bolts,
          made.bears,
          { stock: made.stock, thickness_m: made.thickness_m },
          0,
          norm(aside) / made.bolts.count,
        )
      : // What fastens it is not said.
        [{ part: 'bolt' as const, demand_N: norm(aside), capacity_N: undefined }]),
  );
  return uses;
}

function stopUses(made: Made<'stop'>, { supports, forces_N }: MountForces): PartUse[] {
  const pushed = forces_N.reduce((sum, force) => sum + force, 0);
  const arm_m = made.arm_m.value;
  // Its foot turns about its edge and pulls its bolts, twice their edge away from there.
  const pull = (pushed * arm_m) / (2 * made.bolts.edge_m.value) / made.bolts.count;
  return supports.length === 0
    ? []
    : [
        ...rubberUse(made.pad, pushed),
        {
          part: 'arm',
          demand_N: pushed,
          capacity_N: armBends_N(MOUNT_STOCKS[made.stock].yield_Pa, made.width_m.value, made.thickness_m.value, arm_m),
        },
        ...boltUses(
          made.bolts,
          made.bears,
          { stock: made.stock, thickness_m: made.thickness_m },
          pull,
          pushed / made.bolts.count,
        ),
      ];
}
