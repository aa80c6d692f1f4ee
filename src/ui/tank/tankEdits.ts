import { assumed, chosen, freshId, type SystemDocument, type TankDocument } from '@/core/plan';
import type { FluidKey } from '@/core/reference/fluids';

/** One more tank, of ten litres, that holds what the first one holds, with the holes that every tank needs. */
export function withTank(system: SystemDocument): SystemDocument {
  const id = freshId(system, 'tank');
  const part = (base: string): string => freshId(system, `${id}-${base}`);
  const [first] = system.tanks;
  const none = chosen(0);
  const port = (base: string, name: string, x: number, y: number, bore: number) => ({
    id: part(base),
    name,
    face: 'lid' as const,
    x_m: chosen(x),
    y_m: chosen(y),
    bore_m: assumed(bore, 0.001),
    length_m: none,
  });
  const tank: TankDocument = {
    id,
    name: `Tank ${system.tanks.length + 1}`,
    fluid: first!.fluid,
    mounting: { x_m: none, y_m: none, z_m: none, yaw_deg: none, pitch_deg: assumed(0, 1), roll_deg: assumed(0, 1) },
    material: first!.material,
    dimensions: 'inside',
    parts: [],
    slices: [],
    plates: [],
    shape: { kind: 'box', length_m: chosen(0.3), width_m: chosen(0.2), height_m: chosen(0.175) },
    fillLimit_ratio: chosen(0.95),
    ports: [
      { ...port('filler', 'Filler', 0.24, 0.1, 0.038), role: 'filler' },
      { ...port('vent', 'Vent', 0.15, 0.15, 0.008), role: 'vent' },
      { ...port('feed', 'Feed', 0.06, 0.1, 0.008), role: 'feed' },
    ],
    pickups: [
      {
        id: part('pickup'),
        name: 'Pickup',
        port: part('feed'),
        kind: 'top-tube',
        strainer: 'none',
        heightOffFloor_m: chosen(0.02),
        bore_m: chosen(0.008),
        submergence_m: assumed(0.005, 0.004),
      },
    ],
    senders: [],
    built: [],
    sightTubes: [],
    dipsticks: [],
    calibrations: [],
  };
  return {
    ...system,
    tanks: [...system.tanks, tank],
    conditions: { ...system.conditions, fills: [...system.conditions.fills, { tank: id, fill_ratio: 0.6 }] },
  };
}

/**
 * Takes a tank out with the lines that end at it, its mounts and its fill, the ways kept for it and the places named on
 * it.
 */
export function withoutTank(system: SystemDocument, index: number): SystemDocument {
  const tank = system.tanks[index]!;
  const ends = new Set([...tank.ports, ...tank.pickups].map(({ id }) => id));
  const parts = new Set([tank.id, ...[...tank.senders, ...tank.pickups].map(({ id }) => id)]);
  const tanks = system.tanks
    .filter((_, t) => t !== index)
    .map((each) => (each.sharesWallWith === tank.id ? apart(each) : each));
  return {
    ...system,
    tanks,
    // A float valve watches some tank; it can be told another one.
    components: system.components.map((part) =>
      part.kind === 'float-valve' && part.tank === tank.id && tanks[0] ? { ...part, tank: tanks[0].id } : part,
    ),
    lines: system.lines.filter((line) => !ends.has(line.from.item) && !ends.has(line.to.item)),
    mounts: system.mounts.filter((mount) => mount.tank !== tank.id),
    fit: {
      ...system.fit,
      removals: system.fit.removals.filter(({ part }) => !parts.has(part)),
      spots: system.fit.spots.filter((spot) => spot.tank !== tank.id),
    },
    conditions: { ...system.conditions, fills: system.conditions.fills.filter((fill) => fill.tank !== tank.id) },
  };
}

/** A tank with walls of its own all round. */
export function apart({
  sharesWallWith: _,
  ...tank
}: SystemDocument['tanks'][number]): SystemDocument['tanks'][number] {
  return tank;
}

export const fluidOf = (system: SystemDocument, index: number): FluidKey =>
  system.fluids.find(({ id }) => id === system.tanks[index]!.fluid)!.fluid;

/** Puts another fluid into one tank and leaves the others theirs. */
export function withFluid(system: SystemDocument, index: number, fluid: FluidKey): SystemDocument {
  const tank = system.tanks[index]!;
  const intoTank = (id: string) => system.tanks.map((other, t) => (t === index ? { ...other, fluid: id } : other));
  const there = system.fluids.find((batch) => batch.fluid === fluid);
  if (there) return { ...system, tanks: intoTank(there.id) };
  const shared = system.tanks.some((other, t) => t !== index && other.fluid === tank.fluid);
  if (!shared)
    return {
      ...system,
      fluids: system.fluids.map((batch) => (batch.id === tank.fluid ? { id: batch.id, fluid } : batch)),
    };
  const id = freshId(system, fluid);
  return { ...system, fluids: [...system.fluids, { id, fluid }], tanks: intoTank(id) };
}
