import { chosen } from '../../schema/known';
import { feedPath } from '../circuits';
import { withPartMoved } from '../circuitEdits';
import { freshId } from '../edit';
import type { SystemDocument, TankDocument } from '../schema';
import { sizesFor, spanOfTank, toMm } from './kit';

/** A sump is low and wide, so that what is thrown about runs back into it: length and height over width. */
const SUMP_SHAPE = [1.6, 1, 0.35] as const;
/** Common practice: flush with the sump's floor, but for what a tube must stand off to draw. */
const OFF_SUMP_M = 0.006;

/** The tank and pickup that feed the first consumer; undefined where nothing leads there. */
function feedOf(
  system: SystemDocument,
): { readonly t: number; readonly p: number; readonly path: readonly string[] } | undefined {
  const consumer = system.consumers[0];
  const path = consumer ? feedPath(system, consumer.id) : [];
  const t = system.tanks.findIndex(({ pickups }) => pickups.some(({ id }) => id === path.at(-1)));
  const p = system.tanks[t]?.pickups.findIndex(({ id }) => id === path.at(-1)) ?? -1;
  return p < 0 ? undefined : { t, p, path };
}

const withTank = (system: SystemDocument, t: number, change: (tank: TankDocument) => TankDocument): SystemDocument => ({
  ...system,
  tanks: system.tanks.map((tank, k) => (k === t ? change(tank) : tank)),
});

/**
 * A sump welded under the floor of a tank that is there, below its feed, which then draws from it.
 * @param holds_m3 of the sump alone
 * @returns undefined where no pickup leads to a consumer, or the tank's body makes no sense
 */
export function withSump(system: SystemDocument, holds_m3: number): SystemDocument | undefined {
  const feed = feedOf(system);
  const tank = feed && system.tanks[feed.t]!;
  const span = tank && spanOfTank(tank);
  const port = tank?.ports.find(({ id }) => id === tank.pickups[feed!.p]!.port);
  if (!feed || !tank || !span || !port) return undefined;
  // No wider than the floor that it is welded to.
  const told = sizesFor(holds_m3, {}, SUMP_SHAPE);
  const length = Math.min(told.length.value, 0.9 * span[0]);
  const width = Math.min(told.width.value, 0.9 * span[1]);
  const height = Math.min(span[2], holds_m3 / 0.95 / (length * width));
  const [x, y] = [port.x_m?.value ?? span[0] / 2, port.y_m?.value ?? span[1] / 2];
  const within = (middle: number, size: number, whole: number): number =>
    toMm(Math.min(Math.max(middle - size / 2, 0), whole - size));
  return withTank(system, feed.t, (at) => ({
    ...at,
    parts: [
      ...at.parts,
      {
        id: freshId(system, 'sump'),
        name: 'Sump',
        operation: 'add',
        shape: {
          kind: 'box',
          length_m: chosen(toMm(length)),
          width_m: chosen(toMm(width)),
          // It reaches into the tank's floor, so that the two are one.
          height_m: chosen(toMm(height) + OVERLAP_M),
        },
        x_m: chosen(within(x, length, span[0])),
        y_m: chosen(within(y, width, span[1])),
        z_m: chosen(-toMm(height)),
      },
    ],
    pickups: at.pickups.map((pickup, p) =>
      p === feed.p ? { ...pickup, heightOffFloor_m: chosen(Math.min(OFF_SUMP_M, toMm(height / 3))) } : pickup,
    ),
  }));
}
const OVERLAP_M = 0.002;

/**
 * A pump hung in a tank that is there: it stands in the fuel, at the foot of a module that replaces the pickup, with a
 * strainer of its own; what stood before it in the line comes after it.
 * @returns undefined where no pump leads from a pickup to a consumer
 */
export function withInTankPump(system: SystemDocument): SystemDocument | undefined {
  const feed = feedOf(system);
  const pump = system.components.find(({ id, kind }) => kind === 'pump' && feed?.path.includes(id));
  if (!feed || !pump) return undefined;
  const pickup = system.tanks[feed.t]!.pickups[feed.p]!;
  let moved = system;
  for (let step = 0; step < feed.path.length; step++) {
    if (moved.lines.some(({ from, to }) => from.item === pickup.id && to.item === pump.id)) break;
    moved = withPartMoved(moved, pump.id, -1);
  }
  const none = chosen(0);
  const hung: SystemDocument = {
    ...moved,
    components: moved.components.map((part) =>
      part.id === pump.id && part.kind === 'pump' ? { ...part, type: 'in-tank', checkBuiltIn: true } : part,
    ),
    lines: moved.lines.map((line) =>
      line.from.item === pickup.id && line.to.item === pump.id
        ? {
            ...line,
            name: 'Module to its pump',
            kind: 'direct',
            length_m: none,
            forward_m: none,
            toPort_m: none,
            rise_m: none,
            points: [],
            fittings: [],
          }
        : line,
    ),
  };
  return withTank(hung, feed.t, (tank) => ({
    ...tank,
    ports: tank.ports.map((port) =>
      port.id === pickup.port ? { ...port, name: 'Pump module', part: 'pump-ring', existing: false } : port,
    ),
    pickups: tank.pickups.map((each) =>
      each.id === pickup.id ? { ...each, name: 'Pump module', kind: 'module', strainer: 'sock' } : each,
    ),
  }));
}
