import { assumed, chosen, freshId, type StanceDocument, type SystemDocument } from '@/core/plan';

type Axle = NonNullable<StanceDocument['axles']>[number];
type Hull = NonNullable<StanceDocument['hull']>;

/** Axles as usual of each kind of vehicle: how far apart, how wide, and what each bears, the foremost first. */
const USUAL = {
  road: { base_m: 2.9, track_m: 1.6, loads_kg: [1100, 900] },
  snow: { base_m: 2.2, track_m: 1.3, loads_kg: [450, 650] },
  competition: { base_m: 2.3, track_m: 1.3, loads_kg: [210, 280] },
  trailer: { base_m: 2.2, track_m: 1.4, loads_kg: [160] },
  boat: { base_m: 2.2, track_m: 1.8, loads_kg: [300] },
  bench: { base_m: 1, track_m: 0.6, loads_kg: [30, 30] },
} as const;
/** A guess may be off by so much of it. */
const GUESS_RATIO = 0.3;
const guess = (value: number) => assumed(value, Math.max(0.05, GUESS_RATIO * Math.abs(value)));

const EMPTY: StanceDocument = {
  weighed: 'without',
  middle_m: chosen(0),
  hitch: undefined,
  height: undefined,
  hull: undefined,
};

const middleOf = ({ tanks }: SystemDocument): number => tanks[0]?.mounting.x_m.value ?? 0;

export function newAxle(system: SystemDocument, name: string, x_m: number, load_kg: number): Axle {
  return {
    id: freshId(system, 'axle'),
    name,
    x_m: guess(x_m),
    track_m: guess(USUAL[system.vehicle.kind].track_m),
    load_kg: guess(load_kg),
  };
}

/** Axles, or a hull, to begin with: all guessed, to be weighed and measured. */
export function newStance(system: SystemDocument, on: 'axles' | 'hull'): StanceDocument {
  const stance = system.stance ?? EMPTY;
  const x = middleOf(system);
  if (on === 'hull') return { ...stance, hull: newHull(x) };
  const { base_m, loads_kg } = USUAL[system.vehicle.kind];
  const [front_kg, rear_kg] = loads_kg;
  if (rear_kg === undefined)
    return {
      ...stance,
      axles: [newAxle(system, 'Axle', x, front_kg)],
      hitch: { x_m: guess(x + base_m), load_kg: guess(front_kg / 8) },
    };
  const rear = { ...newAxle(system, 'Rear axle', x, rear_kg), id: freshId(system, 'rear-axle') };
  const front = { ...newAxle(system, 'Front axle', x + base_m, front_kg), id: freshId(system, 'front-axle') };
  return { ...stance, axles: [front, rear] };
}

/** Stern, full breadth, shoulder and stem of a boat that is open and planes a little. */
const LINES = [
  [-2, 1.7],
  [0, 2],
  [2, 1.7],
  [3.2, 0.9],
  [4, 0],
] as const;

const newHull = (x: number): Hull => ({
  water: 'sea',
  displacement_kg: guess(1500),
  waterline_m: assumed(0, 0.1),
  steady: { kind: 'given', gm_m: assumed(0.7, 0.3) },
  stations: LINES.map(([along, beam]) => ({ x_m: guess(x + along), beam_m: assumed(beam, 0.2) })),
});
