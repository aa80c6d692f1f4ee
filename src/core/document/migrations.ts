import { failure, success, type Outcome } from '../outcome';
import { assumed, chosen, type Known } from './known';
import { CURRENT_VERSION } from './schema';

/** Turns a document of the version it is filed under into the next version. */
export type Migration = (document: Record<string, unknown>) => Record<string, unknown>;

type Tree = Record<string, unknown>;

/** Common practice: 38 L, ten US gallons. */
export const SURGE_BAY_M3 = 0.038;

type Hardest = { readonly braking_mPerS2: Known; readonly driving_mPerS2: Known; readonly cornering_mPerS2: Known };

/** Common practice: the hardest that each kind of vehicle brakes, pulls away and corners [m/s²]. */
const HARDEST: Readonly<Record<string, readonly [number, number, number]>> = {
  boat: [2, 2, 3], road: [7, 3, 5], snow: [5, 4, 5], competition: [11, 6, 13], trailer: [6, 3, 4], bench: [0, 0, 0],
};

/** The hardest accelerations assumed for a kind of vehicle, within about a third. */
export function hardestFor(vehicle: string): Hardest {
  const [braking, driving, cornering] = HARDEST[vehicle] ?? HARDEST.road!;
  const guess = (value: number): Known => (value === 0 ? chosen(0) : assumed(value, Math.round(value * 3.5) / 10));
  return { braking_mPerS2: guess(braking), driving_mPerS2: guess(driving), cornering_mPerS2: guess(cornering) };
}

/** Version 2: tanks of several bodies, baffles and foam; a surge limit; how hard the vehicle moves. */
function toVersion2(document: Tree): Tree {
  const tanks = Array.isArray(document.tanks) ? document.tanks.map((tank: unknown) => (isTree(tank) ? { ...tank, dimensions: 'inside', parts: [], slices: [], plates: [] } : tank)) : document.tanks;
  const kind = isTree(document.vehicle) && typeof document.vehicle.kind === 'string' ? document.vehicle.kind : 'road';
  return {
    ...document, tanks,
    limits: { surgeBay_m3: chosen(SURGE_BAY_M3) },
    envelope: isTree(document.envelope) ? { ...document.envelope, ...hardestFor(kind) } : document.envelope,
  };
}

const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value);

/** By the version it starts from. A change of format adds one entry and one test. */
export const MIGRATIONS: Readonly<Record<number, Migration>> = { 1: toVersion2 };

/**
 * Brings a document of any earlier version up to the current one.
 * A newer version is refused: what this app does not know it would lose.
 */
export function migrate(
  document: Record<string, unknown>,
  migrations: Readonly<Record<number, Migration>> = MIGRATIONS,
  current = CURRENT_VERSION,
): Outcome<Record<string, unknown>, 'wrong-version'> {
  let version = document.version;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    return failure('wrong-version', 'version', `version must be a whole number from 1 to ${current}.`);
  }
  if (version > current) {
    return failure('wrong-version', 'version', `This file is of version ${version}; this Gas Line reads up to ${current}. Update the app to open it.`);
  }
  let migrated = document;
  for (; version < current; version++) {
    const step = migrations[version];
    if (!step) return failure('wrong-version', 'version', `There is no way from version ${version} to ${version + 1}.`);
    migrated = { ...step(migrated), version: version + 1 };
  }
  return success(migrated);
}
