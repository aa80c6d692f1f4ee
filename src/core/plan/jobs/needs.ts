import type { FluidKey } from '../../reference/fluids';
import type { CONSUMER_KINDS, VEHICLES } from '../schema';

type Vehicle = (typeof VEHICLES)[number];
type Consumer = (typeof CONSUMER_KINDS)[number];

/** Grams a kilowatt-hour to SI. */
export const G_PER_KWH = 1e-3 / 3.6e6;

export type Need = {
  readonly fluid: FluidKey;
  readonly name: string;
  /** Fuel burned for a unit of power at full load, and its spread. */
  readonly specific_gPerKWh: number;
  readonly specificSpread: number;
  readonly idleShare: number;
  /** What it draws over what it burns; the rest returns or is in hand. */
  readonly drawOverBurn: number;
  readonly drawSpread: number;
  readonly pressure_Pa: number;
  readonly pressureSpread_Pa: number;
  readonly pumpShutOff_Pa: number;
  /** What such a pump draws up by itself, and where it is usually set against the tank's lid. */
  readonly lift_m: number;
  readonly pumpRise_m: number;
};

/** Common practice: what each kind of consumer asks for before its data sheet is at hand. */
export const NEEDS: Readonly<Record<Consumer, Need>> = {
  'diesel-engine': {
    fluid: 'diesel',
    name: 'Engine',
    specific_gPerKWh: 240,
    specificSpread: 25,
    idleShare: 0.08,
    drawOverBurn: 3,
    drawSpread: 1,
    pressure_Pa: 20e3,
    pressureSpread_Pa: 8e3,
    pumpShutOff_Pa: 50e3,
    lift_m: 2,
    pumpRise_m: 0,
  },
  'petrol-injection': {
    fluid: 'petrol',
    name: 'Engine',
    specific_gPerKWh: 300,
    specificSpread: 30,
    idleShare: 0.06,
    drawOverBurn: 1.3,
    drawSpread: 0.2,
    pressure_Pa: 300e3,
    pressureSpread_Pa: 30e3,
    pumpShutOff_Pa: 650e3,
    lift_m: 0.6,
    pumpRise_m: -0.4,
  },
  'petrol-carburettor': {
    fluid: 'petrol',
    name: 'Engine',
    specific_gPerKWh: 330,
    specificSpread: 40,
    idleShare: 0.07,
    drawOverBurn: 1.2,
    drawSpread: 0.2,
    pressure_Pa: 15e3,
    pressureSpread_Pa: 5e3,
    pumpShutOff_Pa: 30e3,
    lift_m: 1.5,
    pumpRise_m: 0,
  },
  heater: {
    fluid: 'diesel',
    name: 'Heater',
    specific_gPerKWh: 105,
    specificSpread: 15,
    idleShare: 0.25,
    drawOverBurn: 1,
    drawSpread: 0.1,
    pressure_Pa: 0,
    pressureSpread_Pa: 2e3,
    pumpShutOff_Pa: 40e3,
    lift_m: 1.5,
    pumpRise_m: 0,
  },
  generator: {
    fluid: 'diesel',
    name: 'Generator',
    specific_gPerKWh: 300,
    specificSpread: 40,
    idleShare: 0.2,
    drawOverBurn: 2,
    drawSpread: 0.8,
    pressure_Pa: 10e3,
    pressureSpread_Pa: 5e3,
    pumpShutOff_Pa: 40e3,
    lift_m: 1.5,
    pumpRise_m: 0,
  },
  nozzle: {
    fluid: 'diesel',
    name: 'Nozzle',
    specific_gPerKWh: 240,
    specificSpread: 30,
    idleShare: 0.1,
    drawOverBurn: 0,
    drawSpread: 0,
    pressure_Pa: 15e3,
    pressureSpread_Pa: 8e3,
    pumpShutOff_Pa: 150e3,
    lift_m: 2,
    pumpRise_m: 0,
  },
};
/**
 * A regulator holds a little over what the engine wants, for what its last line costs; its pump moves about so much of
 * the need at that pressure.
 */
export const REGULATED_OVER = 1.05;
export const PUMPED_OVER_NEED = 2.6;
/** What a hand-held nozzle should give [m³/s]. */
export const NOZZLE_NEED = 35e-3 / 60;

/** Common practice: slopes a builder of each kind asks for, nose up/down and side to side [deg]. */
export const SLOPES: Readonly<Record<Vehicle, readonly [number, number]>> = {
  boat: [8, 12],
  road: [15, 10],
  snow: [25, 18],
  competition: [8, 8],
  trailer: [10, 8],
  bench: [2, 2],
};
export const RUNS_M: Readonly<Record<Vehicle, number>> = {
  boat: 4,
  road: 3.5,
  snow: 3,
  competition: 2,
  trailer: 3,
  bench: 0.8,
};
/** Consumers whose fuel moves the vehicle, so that endurance is also a distance. */
export const DRIVING: ReadonlySet<Consumer> = new Set(['diesel-engine', 'petrol-injection', 'petrol-carburettor']);
/**
 * Common practice: the share of full load at which each kind of vehicle goes along; a road vehicle at road speed takes
 * a fifth.
 */
export const DUTIES: Readonly<Record<Vehicle, number>> = {
  boat: 0.6,
  road: 0.2,
  snow: 0.4,
  competition: 0.6,
  trailer: 0.6,
  bench: 0.6,
};
export const SPEEDS_M_PER_S: Readonly<Partial<Record<Vehicle, number>>> = { boat: 4, road: 20, snow: 6 };
