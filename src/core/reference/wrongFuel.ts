import type { FluidKey } from './fluids';
import { sourced, type Sourced } from './provenance';

/** Liquids that one pours by one kind of nozzle, and that do one kind of harm. */
export const POURED = ['petrol', 'diesel', 'urea', 'water', 'coolant', 'oil'] as const;
export type Poured = (typeof POURED)[number];

export const POURED_NAMES: Readonly<Record<Poured, string>> = {
  petrol: 'petrol',
  diesel: 'diesel',
  urea: 'urea solution',
  water: 'water',
  coolant: 'coolant',
  oil: 'oil',
};

export const POURED_OF: Readonly<Record<FluidKey, Poured>> = {
  petrol: 'petrol',
  e10: 'petrol',
  e85: 'petrol',
  methanol: 'petrol',
  'two-stroke': 'petrol',
  diesel: 'diesel',
  b20: 'diesel',
  b100: 'diesel',
  'heating-oil': 'diesel',
  kerosene: 'diesel',
  water: 'water',
  coolant: 'coolant',
  'engine-oil': 'oil',
  urea: 'urea',
};

/** The narrowest spout of a station's nozzle for a liquid [m]; none for what is poured from a can. */
export type SpoutRow = Sourced & { readonly poured: Poured; readonly least_m: number; readonly most_m: number };

export const SPOUTS: readonly SpoutRow[] = [
  {
    poured: 'petrol',
    least_m: 0.0204,
    most_m: 0.0213,
    ...sourced('from memory', 'ISO 9158: spouts of nozzles for unleaded petrol'),
  },
  {
    poured: 'diesel',
    least_m: 0.0236,
    most_m: 0.0255,
    ...sourced('from memory', 'ISO 9159: spouts for leaded petrol and diesel; those of lorry pumps are wider still'),
  },
  {
    poured: 'urea',
    least_m: 0.0186,
    most_m: 0.0194,
    ...sourced('from memory', 'ISO 22241-4: spout of 19 mm, with a magnet in the filler that opens it'),
  },
];

/** What a wrong liquid does where another belongs. */
export type WrongRow = Sourced & { readonly wrong: Poured; readonly right: Poured; readonly effect: string };

const row = (wrong: Poured, right: Poured, effect: string): WrongRow => ({
  wrong,
  right,
  effect,
  ...sourced('common practice', 'workshops, of what was poured in by mistake'),
});

export const WRONG: readonly WrongRow[] = [
  row(
    'petrol',
    'diesel',
    'The injection pump runs dry of oil and wears itself out; what is in the tank now flashes like petrol.',
  ),
  row('petrol', 'water', 'The water tank is a petrol tank now: vapour where people live. No pump, no flame.'),
  row('petrol', 'coolant', 'Seals swell, and the vapour leaves by a cap over a hot engine.'),
  row('petrol', 'oil', 'The oil carries nothing any more, and the crankcase can explode.'),
  row('petrol', 'urea', 'The dosing pump and its seals are spoilt; vapour where nobody expects it.'),
  row(
    'diesel',
    'petrol',
    'It runs badly, smokes and stops; plugs and catalyst foul. A heater or stove for petrol floods.',
  ),
  row('diesel', 'water', 'The tank and its hoses taste of it for good.'),
  row('diesel', 'coolant', 'Hoses and seals swell, and heat is no longer carried off.'),
  row('diesel', 'oil', 'The oil thins and carries less.'),
  row('diesel', 'urea', 'A few drops spoil pump, nozzle and catalyst.'),
  row('urea', 'petrol', 'It lies at the bottom, rusts, and crystals block pump and injectors.'),
  row(
    'urea',
    'diesel',
    'It lies at the bottom, rusts, and crystals block pump and injectors: the costliest mistake of all.',
  ),
  row('urea', 'water', 'It cannot be drunk; rinse until nothing is tasted or smelt.'),
  row('urea', 'coolant', 'It rots aluminium and crystals block the radiator.'),
  row('urea', 'oil', 'The oil turns to cream, and bearings rust.'),
  row(
    'water',
    'petrol',
    'It lies at the bottom and is drawn first: the engine stops, and the tank rusts or grows slime.',
  ),
  row('water', 'diesel', 'It lies at the bottom and is drawn first: pump and injectors rust, and slime grows.'),
  row('water', 'coolant', 'It freezes and rusts; a little of it for topping up does no harm.'),
  row('water', 'oil', 'The oil turns to cream, and bearings rust.'),
  row('water', 'urea', 'Too thin a solution: the engine reports it, and limits itself.'),
  row('coolant', 'petrol', 'It lies at the bottom, is drawn first, and stops the engine.'),
  row('coolant', 'diesel', 'It lies at the bottom, is drawn first, and spoils pump and injectors.'),
  row('coolant', 'water', 'It is poison. Empty, rinse many times, and test before anybody drinks.'),
  row('coolant', 'oil', 'It rots bearings within hours of running.'),
  row('coolant', 'urea', 'The catalyst is spoilt.'),
  row('oil', 'petrol', 'It smokes, fouls plugs and carbonizes; a two-stroke may be glad of a little.'),
  row('oil', 'diesel', 'It smokes and blocks filters; injectors coke.'),
  row('oil', 'water', 'The tank and its hoses taste of it for good.'),
  row('oil', 'coolant', 'Hoses and seals swell, and heat is no longer carried off.'),
  row('oil', 'urea', 'A few drops spoil pump, nozzle and catalyst.'),
];

/** What is done about it whatever it is. */
export const WRONG_MEND =
  'Do not switch on, not even the ignition: a pump may start. Drain all of it, by somebody who may, and keep what was drained apart.';
