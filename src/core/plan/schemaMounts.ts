import { BOLT_CLASSES, BOLT_HELD, BOLT_SIZES } from '../reference/bolts';
import { MOUNT_STOCK, PADS } from '../reference/mountStock';
import { FACTOR_SCHOOLS } from '../reference/shocks';
import { bounded, known } from '../schema/known';
import { byKind, closed, id, kindIs, name, oneOf, SPAN_M } from '../schema/tools';

/** What holds a tank, and how hard it is thrown. */

/** Which way of the tank what holds it lies. */
export const MOUNT_SIDES = ['down', 'up', 'fore', 'aft', 'port', 'starboard'] as const;
export const STRAP_RUNS = ['across', 'along', 'round'] as const;
/** Which way forks go in. */
export const POCKET_RUNS = ['along', 'across'] as const;

const bolts = () =>
  closed({
    /** Of one foot or one end. */ count: bounded(1, 12).integer('must be a whole number'),
    size: oneOf(BOLT_SIZES),
    class: oneOf(BOLT_CLASSES),
    held: oneOf(BOLT_HELD),
    /** From the bolt’s middle to the nearest edge of what it goes through. */
    edge_m: known(0.003, 1, 'bolt to the nearest edge', 'tape'),
  });
const bears = () =>
  closed({ stock: oneOf(MOUNT_STOCK), thickness_m: known(0.0003, 0.2, 'thickness of what it bears on', 'thickness') });
const PAD = () => ({ of: oneOf(PADS), thickness_m: known(0, 0.1, 'thickness of the pad', 'thickness') });
const strip = () => closed(PAD());
const pad = () =>
  closed({
    ...PAD(),
    /** Rubber mounts that are bought, all of this mount’s together by their maker, in place of the pad. */
    own: closed({
      pressed_NPerM: known(1e3, 1e9, 'stiffness of the rubber mounts pressed', 'stiffness'),
      sheared_NPerM: known(1e3, 1e9, 'stiffness of the rubber mounts sideways', 'stiffness'),
      most_N: known(1, 1e6, 'the rubber mounts carry at most', 'force'),
    })
      .optional()
      .default(undefined),
  });
const stock = () => oneOf(MOUNT_STOCK);
const thickness_m = () => known(0.0003, 0.05, 'thickness', 'thickness');
const width_m = () => known(0.005, 2, 'width', 'tape');

/** How each kind is made; left out where nothing of it is said yet. */
const MADE = {
  strap: closed({
    runs: oneOf(STRAP_RUNS),
    /** Where its ends are held. */ side: oneOf(MOUNT_SIDES),
    stock: stock(),
    width_m: width_m(),
    thickness_m: thickness_m(),
    tension_N: known(0, 20e3, 'pulled tight to', 'force'),
    /** From the tank’s side out to where an end is held. */
    splay_m: known(0, 2, 'ends held off the tank by', 'tape'),
    bolts: bolts(),
    bears: bears(),
    pad: strip(),
  }),
  tab: closed({
    /** The wall that it is on, and which way what it is bolted to lies. */
    wall: oneOf(MOUNT_SIDES),
    side: oneOf(MOUNT_SIDES),
    stock: stock(),
    width_m: width_m(),
    thickness_m: thickness_m(),
    arm_m: known(0.005, 1, 'wall to bolt', 'tape'),
    leg_m: known(0.005, 1, 'leg on the wall', 'tape'),
    weld: closed({
      throat_m: known(0.0005, 0.02, 'throat of the weld', 'thickness'),
      length_m: known(0.005, 5, 'length of the weld', 'tape'),
    }).optional(),
    bolts: bolts(),
    bears: bears(),
    pad: pad(),
  }),
  cradle: closed({
    side: oneOf(MOUNT_SIDES),
    length_m: known(0.01, 5, 'length', 'tape'),
    width_m: known(0.01, 5, 'width', 'tape'),
    /** How far it stands up beside the tank; 0 where the tank only rests on it. */
    lip_m: known(0, 1, 'stands up beside the tank', 'tape'),
    stock: stock(),
    thickness_m: thickness_m(),
    bolts: bolts().optional(),
    bears: bears(),
    pad: pad(),
    /** What a fork goes into, under a skid or pallet. */
    pockets: closed({
      runs: oneOf(POCKET_RUNS),
      apart_m: known(0.05, 3, 'middle to middle of the fork pockets', 'tape'),
      width_m: known(0.02, 1, 'width of a fork pocket', 'tape'),
      height_m: known(0.01, 0.5, 'height of a fork pocket', 'tape'),
    })
      .optional()
      .default(undefined),
  }),
  stop: closed({
    side: oneOf(MOUNT_SIDES),
    width_m: width_m(),
    /** From what it is bolted to up to where the tank meets it. */
    arm_m: known(0.001, 1, 'foot to where the tank meets it', 'tape'),
    stock: stock(),
    thickness_m: thickness_m(),
    bolts: bolts(),
    bears: bears(),
    pad: pad(),
  }),
  flange: closed({
    side: oneOf(MOUNT_SIDES),
    circle_m: known(0.02, 3, 'circle of its bolts', 'tape'),
    stock: stock(),
    thickness_m: thickness_m(),
    bolts: bolts(),
    bears: bears(),
  }),
  /** Holds nothing: it keeps stones, wheels and feet off a wall. */
  guard: closed({
    side: oneOf(MOUNT_SIDES),
    length_m: known(0.01, 5, 'length', 'tape'),
    width_m: known(0.01, 5, 'width', 'tape'),
    off_m: known(0.001, 0.5, 'air between it and the tank', 'tape'),
    stock: stock(),
    thickness_m: thickness_m(),
    bolts: bolts().optional(),
  }),
} as const;

export const MOUNT_KINDS = ['strap', 'tab', 'cradle', 'stop', 'flange', 'guard'] as const;
export type MountKind = (typeof MOUNT_KINDS)[number];

const base = () => ({
  id: id(),
  name: name(),
  tank: id(),
  x_m: known(-SPAN_M, SPAN_M, 'distance from aft', 'tape'),
  y_m: known(-SPAN_M, SPAN_M, 'distance from starboard', 'tape'),
  z_m: known(-SPAN_M, SPAN_M, 'height', 'tape'),
});

export const mount = byKind({
  strap: closed({ ...base(), kind: kindIs('strap'), made: MADE.strap.optional().default(undefined) }),
  tab: closed({ ...base(), kind: kindIs('tab'), made: MADE.tab.optional().default(undefined) }),
  cradle: closed({ ...base(), kind: kindIs('cradle'), made: MADE.cradle.optional().default(undefined) }),
  stop: closed({ ...base(), kind: kindIs('stop'), made: MADE.stop.optional().default(undefined) }),
  flange: closed({ ...base(), kind: kindIs('flange'), made: MADE.flange.optional().default(undefined) }),
  guard: closed({ ...base(), kind: kindIs('guard'), made: MADE.guard.optional().default(undefined) }),
});

const thrown = (label: string) => known(0, 500, label, 'acceleration');
/**
 * How hard the vehicle throws its tanks, and how much more than that their mounts are to bear; as its kind has it where
 * left out.
 */
export const shocks = closed({
  fore_mPerS2: thrown('thrown forward, as when it stops'),
  aft_mPerS2: thrown('thrown aft'),
  side_mPerS2: thrown('thrown to either side'),
  up_mPerS2: thrown('thrown up, beyond its weight'),
  down_mPerS2: thrown('pressed down, its weight counted in'),
  school: oneOf(FACTOR_SCHOOLS),
})
  .optional()
  .default(undefined);
