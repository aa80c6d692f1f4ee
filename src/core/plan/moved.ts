import type { Vec3 } from '../geometry';
import type { Known } from '../schema/known';
import { shellsIn } from './divider';
import type { SystemDocument } from './schema';

const AXES = ['x_m', 'y_m', 'z_m'] as const;
type Placed = Readonly<Record<(typeof AXES)[number], Known>>;

const placedBy = <T extends Placed>(of: T, by_m: Vec3): T => ({
  ...of,
  ...Object.fromEntries(
    AXES.map((axis, k): [string, Known] => {
      const { value } = of[axis];
      if (by_m[k] === 0) return [axis, of[axis]];
      const to = Number((value + by_m[k]!).toPrecision(12));
      // What is moved is where it was put, no more assumed or measured.
      return [axis, { value: to, origin: 'chosen' }];
    }),
  ),
});

/** A tank that stands elsewhere, with all of its shell and all that holds it [m, vehicle axes]. */
export function withTankMoved(system: SystemDocument, t: number, by_m: Vec3): SystemDocument {
  const shell = shellsIn(system.tanks).find((tanks) => tanks.includes(system.tanks[t]!)) ?? [];
  const ids = new Set(shell.map(({ id }) => id));
  return {
    ...system,
    tanks: system.tanks.map((tank) => (ids.has(tank.id) ? { ...tank, mounting: placedBy(tank.mounting, by_m) } : tank)),
    mounts: system.mounts.map((mount) => (ids.has(mount.tank) ? placedBy(mount, by_m) : mount)),
  };
}

/** A mount that is put elsewhere [m, vehicle axes]. */
export const withMountMoved = (system: SystemDocument, m: number, by_m: Vec3): SystemDocument => ({
  ...system,
  mounts: system.mounts.map((mount, i) => (i === m ? placedBy(mount, by_m) : mount)),
});
