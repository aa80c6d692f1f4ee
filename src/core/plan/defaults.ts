import { assumed, chosen, type Known } from '../schema/known';

/** Common practice: 38 L, ten US gallons. */
export const SURGE_COMPARTMENT_M3 = 0.038;

type Hardest = { readonly braking_mPerS2: Known; readonly driving_mPerS2: Known; readonly cornering_mPerS2: Known };

/** Common practice: the hardest that each kind of vehicle brakes, pulls away and corners [m/s²]. */
const HARDEST: Readonly<Record<string, readonly [number, number, number]>> = {
  boat: [2, 2, 3],
  road: [7, 3, 5],
  snow: [5, 4, 5],
  competition: [11, 6, 13],
  trailer: [6, 3, 4],
  bench: [0, 0, 0],
};

/** The hardest accelerations assumed for a kind of vehicle, within about a third. */
export function hardestFor(vehicle: string): Hardest {
  const [braking, driving, cornering] = HARDEST[vehicle] ?? HARDEST.road!;
  const guess = (value: number): Known => (value === 0 ? chosen(0) : assumed(value, Math.round(value * 3.5) / 10));
  return { braking_mPerS2: guess(braking), driving_mPerS2: guess(driving), cornering_mPerS2: guess(cornering) };
}

/** Nothing said of the space yet; common practice: a finger's breadth is kept free all round. */
export const EMPTY_FIT = {
  clearance_m: chosen(0.01),
  bay: { kind: 'none' as const },
  obstacles: [],
  removals: [],
  spots: [],
};

/** The schools of lines that are offered first. */
export const LINE_PRACTICE = {
  returnOutlet: 'low',
  transferBy: 'pump',
  lineFor: 'today',
  meter: 'after-filter',
  losses: 'two-k',
} as const;
