import { number, object, string, type AnySchema, type InferType } from 'yup';
import { burnFromPower_m3PerS } from '../range';
import { fluidState } from '../fluids';
import { lineLaw } from '../network';
import { unwrap } from '../outcome';
import { FLUIDS, type FluidKey } from '../reference/fluids';
import { ROUGHNESS } from '../reference/losses';
import { FLOAT_IMMERSION } from '../reference/senders';
import { assumed, chosen, fromPart, measured, type Known } from '../schema/known';
import { schemaLimits, type Limits } from './fields';
import { EMPTY_FIT, hardestFor, LINE_PRACTICE, SURGE_COMPARTMENT_M3 } from './defaults';
import {
  CONSUMER_KINDS,
  CURRENT_VERSION,
  FORMAT,
  VEHICLES,
  type ConsumerDocument,
  type SystemDocument,
  type TankDocument,
} from './schema';

/** The few questions a new system starts from. */
export const answersSchema = object({
  name: string().trim().required('Give it a name.').max(80, 'A name has at most 80 characters.'),
  vehicle: string().oneOf(VEHICLES).required('Say what it is in.'),
  consumer: string().oneOf(CONSUMER_KINDS).required('Say what burns the fuel.'),
  power_W: number()
    .required('Say how strong it is.')
    .min(200, 'Must be at least 0.2 kW.')
    .max(2e6, 'Must be at most 2000 kW.'),
  holds_m3: number()
    .required('Say how much it should hold.')
    .min(2e-4, 'Must be at least 0.2 L.')
    .max(5, 'Must be at most 5000 L.'),
  /** Inside sizes where the space is known already. */
  length_m: number().min(0.02, 'Must be at least 20 mm.').max(20, 'Must be at most 20 m.').optional(),
  width_m: number().min(0.02, 'Must be at least 20 mm.').max(20, 'Must be at most 20 m.').optional(),
  height_m: number().min(0.02, 'Must be at least 20 mm.').max(20, 'Must be at most 20 m.').optional(),
  /** Length of line from tank to consumer. */
  run_m: number().min(0.1, 'Must be at least 0.1 m.').max(100, 'Must be at most 100 m.').optional(),
}).required();

export type Answers = InferType<typeof answersSchema>;

/** Least and greatest answer to a question about a size. */
export const answerLimits = (key: keyof Answers): Limits => schemaLimits(answersSchema.fields[key] as AnySchema, key);

type Vehicle = Answers['vehicle'];
type Consumer = Answers['consumer'];

/** Grams a kilowatt-hour to SI. */
const G_PER_KWH = 1e-3 / 3.6e6;
const FILL_LIMIT = 0.95;
/** Proportions of a tank of which nothing is known: length and height over width. */
const ASSUMED_LENGTH = 1.5;
const ASSUMED_HEIGHT = 0.7;

type Need = {
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
const NEEDS: Readonly<Record<Consumer, Need>> = {
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
const REGULATED_OVER = 1.05;
const PUMPED_OVER_NEED = 2.6;
/** What a hand-held nozzle should give [m³/s]. */
const NOZZLE_NEED = 35e-3 / 60;

/** Common practice: slopes a builder of each kind asks for, nose up/down and side to side [deg]. */
const SLOPES: Readonly<Record<Vehicle, readonly [number, number]>> = {
  boat: [8, 12],
  road: [15, 10],
  snow: [25, 18],
  competition: [8, 8],
  trailer: [10, 8],
  bench: [2, 2],
};
const RUNS_M: Readonly<Record<Vehicle, number>> = {
  boat: 4,
  road: 3.5,
  snow: 3,
  competition: 2,
  trailer: 3,
  bench: 0.8,
};
/** Consumers whose fuel moves the vehicle, so that endurance is also a distance. */
const DRIVING: ReadonlySet<Consumer> = new Set(['diesel-engine', 'petrol-injection', 'petrol-carburettor']);
/**
 * Common practice: the share of full load at which each kind of vehicle goes along; a road vehicle at road speed takes
 * a fifth.
 */
const DUTIES: Readonly<Record<Vehicle, number>> = {
  boat: 0.6,
  road: 0.2,
  snow: 0.4,
  competition: 0.6,
  trailer: 0.6,
  bench: 0.6,
};
const SPEEDS_M_PER_S: Readonly<Partial<Record<Vehicle, number>>> = { boat: 4, road: 20, snow: 6 };

/**
 * A whole system from a few answers. What was not asked stands as a stated
 * assumption with its spread, so that everything computes at once.
 */
export function draftSystem(answers: Answers): SystemDocument {
  const need = NEEDS[answers.consumer];
  const consumer = draftConsumer(answers, need);
  const tank = draftTank(answers);
  const [pitch, roll] = SLOPES[answers.vehicle];
  const drives = DRIVING.has(answers.consumer);
  const speed = drives ? SPEEDS_M_PER_S[answers.vehicle] : undefined;
  return {
    format: FORMAT,
    version: CURRENT_VERSION,
    name: answers.name,
    description: '',
    vehicle: { kind: answers.vehicle, ...(speed ? { speed_mPerS: assumed(speed, speed * 0.2) } : {}) },
    rulebook:
      answers.vehicle === 'boat' && need.fluid === 'petrol'
        ? 'petrol-boat'
        : answers.vehicle === 'boat'
          ? 'small-craft'
          : 'none',
    constraints: { nothingCut: false, noHoleBelowLiquid: false, partsOnHand: false, noHotWork: false },
    practice: {
      vent: ventedCap(answers) ? 'vented-cap' : 'vent-line',
      outlet: 'top-tube',
      fill: '95-percent',
      pickup: 'off-floor',
      strainer: 'outside',
      heaterPickup: 'higher',
      ports: 'new',
      sender: 'new',
      ...LINE_PRACTICE,
    },
    limits: { surgeCompartment_m3: chosen(SURGE_COMPARTMENT_M3) },
    wishes: { holds_m3: chosen(answers.holds_m3), reserve_ratio: chosen(0.2) },
    envelope: {
      noseUp_deg: chosen(pitch),
      noseDown_deg: chosen(pitch),
      portDown_deg: chosen(roll),
      starboardDown_deg: chosen(roll),
      ...hardestFor(answers.vehicle),
    },
    conditions: {
      pitch_deg: 0,
      roll_deg: 0,
      accelerationForward_mPerS2: 0,
      accelerationPort_mPerS2: 0,
      accelerationUp_mPerS2: 0,
      fuelTemperature_K: 293.15,
      altitude_m: 0,
      duty_ratio: DUTIES[answers.vehicle],
      pumpVoltage_V: 13,
      fills: [{ tank: 'main', fill_ratio: 0.6 }],
    },
    fluids: [{ id: 'fuel', fluid: need.fluid }],
    tanks: [tank],
    components: draftComponents(consumer, need),
    lines: draftLines(answers, consumer, need),
    consumers: [consumer],
    prices: [],
    records: [],
    mounts: [],
    fit: EMPTY_FIT,
  };
}

function draftConsumer({ consumer, power_W }: Answers, need: Need): ConsumerDocument {
  const row = FLUIDS[need.fluid].density;
  const density = row.law === 'water-kell' ? 1000 : row.density15_kgPerM3;
  const burn = (gPerKWh: number): number => burnFromPower_m3PerS(power_W, gPerKWh * G_PER_KWH, density);
  const full = burn(need.specific_gPerKWh);
  const draw = consumer === 'nozzle' ? NOZZLE_NEED : full * need.drawOverBurn;
  return {
    id: 'consumer',
    name: need.name,
    kind: consumer,
    ends: [],
    neededFlow_m3PerS: assumed(draw, consumer === 'nozzle' ? NOZZLE_NEED * 0.2 : full * need.drawSpread),
    neededPressure_Pa: assumed(need.pressure_Pa, need.pressureSpread_Pa),
    burnIdle_m3PerS: assumed(full * need.idleShare, full * need.idleShare * 0.4),
    burnFull_m3PerS: assumed(full, burn(need.specificSpread)),
  };
}

/** Inside sizes: as told, and the rest so that the tank holds what was asked. */
function insideSizes(answers: Answers): { length: Known; width: Known; height: Known } {
  const gross = answers.holds_m3 / FILL_LIMIT;
  const told = [answers.length_m, answers.width_m, answers.height_m];
  const shape = [ASSUMED_LENGTH, 1, ASSUMED_HEIGHT];
  const known = told.reduce<number>((product, size) => product * (size ?? 1), 1);
  const open = shape.filter((_, i) => told[i] === undefined);
  const unit =
    open.length === 0 ? 0 : (gross / known / open.reduce((product, share) => product * share, 1)) ** (1 / open.length);
  const size = (i: number): Known => {
    const value = told[i];
    if (value !== undefined) return measured(value, 0.003);
    const guess = roundTo(Math.min(20, Math.max(0.02, unit * shape[i]!)), 1e-3);
    return assumed(guess, Math.max(0.002, roundTo(guess * 0.02, 1e-3)));
  };
  return { length: size(0), width: size(1), height: size(2) };
}

/** A hole in the cap is enough on a bench that feeds no nozzle. */
const ventedCap = ({ vehicle, consumer }: Answers): boolean => vehicle === 'bench' && consumer !== 'nozzle';

const roundTo = (value: number, step: number): number => Math.round(value / step) / Math.round(1 / step);

function draftTank(answers: Answers): TankDocument {
  const { length, width, height } = insideSizes(answers);
  const [l, w, h] = [length.value, width.value, height.value];
  const small = Math.min(l, w, h) < 0.12;
  const level = chosen(0);
  const capVented = ventedCap(answers);
  const at = (x: number, y: number) => ({ x_m: chosen(roundTo(x * l, 1e-3)), y_m: chosen(roundTo(y * w, 1e-3)) });
  return {
    id: 'main',
    name: 'Main tank',
    fluid: 'fuel',
    mounting: { x_m: level, y_m: level, z_m: level, yaw_deg: level, pitch_deg: assumed(0, 1), roll_deg: assumed(0, 1) },
    material: { alloy: 'al-5052', thickness_m: chosen(0.003) },
    dimensions: 'inside',
    parts: [],
    slices: [],
    plates: [],
    shape: { kind: 'box', length_m: length, width_m: width, height_m: height },
    fillLimit_ratio: chosen(FILL_LIMIT),
    ports: [
      {
        id: 'filler',
        name: 'Filler',
        role: 'filler',
        face: 'lid',
        ...at(0.85, 0.2),
        bore_m: assumed(small ? 0.02 : 0.038, 0.002),
        length_m: assumed(capVented ? 0.02 : 0.3, 0.01),
      },
      {
        id: 'vent',
        name: 'Vent',
        role: 'vent',
        face: 'lid',
        ...at(0.7, 0.5),
        bore_m: assumed(capVented ? 0.003 : 0.014, 0.001),
        length_m: assumed(capVented ? 0.003 : 1, capVented ? 0.001 : 0.5),
      },
      {
        id: 'feed',
        name: 'Feed',
        role: 'feed',
        face: 'lid',
        ...at(0.25, 0.5),
        bore_m: fromPart(0.01),
        length_m: level,
      },
      // What an injection pump gives too much comes back low, so that it does not whip air in.
      ...(answers.consumer === 'petrol-injection'
        ? [
            {
              id: 'return',
              name: 'Return',
              role: 'return' as const,
              face: 'lid' as const,
              ...at(0.25, 0.2),
              bore_m: fromPart(0.008),
              length_m: level,
              drop_m: chosen(roundTo(h * 0.8, 1e-3)),
            },
          ]
        : []),
      {
        id: 'sender-port',
        name: 'Sender port',
        role: 'sender',
        face: 'lid',
        ...at(0.46, 0.5),
        bore_m: fromPart(0.054),
        length_m: level,
      },
    ],
    pickups: [
      {
        id: 'pickup',
        name: 'Feed pickup',
        port: 'feed',
        kind: 'top-tube',
        strainer: 'none',
        heightOffFloor_m: chosen(Math.min(0.025, roundTo(h / 4, 1e-3))),
        bore_m: fromPart(answers.consumer === 'nozzle' ? 0.025 : 0.008),
        submergence_m: assumed(0.005, 0.004),
      },
    ],
    built: [],
    sightTubes: [],
    dipsticks: [],
    calibrations: [],
    senders: [draftSender(l, h)],
  };
}

/** Steepest swing that is still near linear, in degrees. */
const SENDER_SWING_DEG = 45;

function draftSender(length: number, height: number): TankDocument['senders'][number] {
  const diameter = roundTo(Math.min(0.04, height / 5), 1e-3);
  const reach = height / 2 - diameter / 2 - 0.004;
  const arm = Math.min(reach / Math.sin((SENDER_SWING_DEG * Math.PI) / 180), length * 0.5 - diameter);
  const stop = Math.min(80, Math.floor((Math.asin(Math.min(1, reach / arm)) * 180) / Math.PI));
  return {
    id: 'sender',
    name: 'Level sender',
    port: 'sender-port',
    kind: 'swing-arm',
    swing: 'fore',
    pivotDepth_m: assumed(roundTo(height / 2, 1e-3), 0.005),
    armLength_m: assumed(Math.max(0.01, Math.floor(arm * 1000) / 1000), 0.005),
    floatDiameter_m: fromPart(diameter),
    lowStop_deg: fromPart(-stop, 2),
    highStop_deg: fromPart(stop, 2),
    immersion_ratio: assumed(FLOAT_IMMERSION.ratio, FLOAT_IMMERSION.spread),
    tolerance_ratio: fromPart(0.05),
    output: { kind: 'resistance', empty_ohm: fromPart(240, 12), full_ohm: fromPart(33, 2) },
    gauge: {
      kind: 'linear',
      scale: { kind: 'resistance', empty_ohm: fromPart(240), full_ohm: fromPart(33) },
      tolerance_ratio: fromPart(0.03),
    },
  };
}

function draftComponents(consumer: ConsumerDocument, need: Need): SystemDocument['components'] {
  const flow = consumer.neededFlow_m3PerS.value;
  const filtered = consumer.kind === 'petrol-injection' ? PUMPED_OVER_NEED * flow : flow;
  const point = (share: number, rise: number) => ({
    flow_m3PerS: Number((flow * share).toPrecision(3)),
    rise_Pa: Math.round(need.pumpShutOff_Pa * rise),
  });
  return [
    {
      id: 'filter',
      name: 'Filter',
      ends: [],
      kind: 'filter',
      type: 'filter',
      ratedFlow_m3PerS: assumed(Number((filtered * 2).toPrecision(3)), filtered * 0.5),
      ratedDrop_Pa: assumed(5000, 2500),
      ratedViscosity_PaS: fromPart(need.fluid === 'petrol' ? 0.0005 : 0.0035),
      dirt_ratio: assumed(2, 1),
    },
    {
      id: 'pump',
      name: 'Pump',
      ends: [],
      kind: 'pump',
      type: 'inline',
      running: true,
      checkBuiltIn: false,
      ratedVoltage_V: fromPart(12),
      selfPrimingLift_m: assumed(need.lift_m, need.lift_m * 0.3),
      output_ratio: assumed(0.85, 0.15),
      curveOrigin: 'assumed',
      curve: [point(0, 1), point(1, 0.85), point(2, 0.55), point(2.8, 0)],
    },
    ...(consumer.kind === 'petrol-injection'
      ? [
          {
            id: 'regulator',
            name: 'Pressure regulator',
            ends: [],
            kind: 'regulator' as const,
            style: 'bypass' as const,
            set_Pa: assumed(REGULATED_OVER * need.pressure_Pa, need.pressureSpread_Pa / 2),
            bore_m: fromPart(0.008),
          },
        ]
      : []),
  ];
}

function draftLines(answers: Answers, consumer: ConsumerDocument, need: Need): SystemDocument['lines'] {
  const run = answers.run_m ?? RUNS_M[answers.vehicle];
  const flow = consumer.neededFlow_m3PerS.value;
  // Where a regulator sends the rest back, all that the pump moves runs through the lines.
  const bore = nextBore_m(answers.consumer === 'petrol-injection' ? PUMPED_OVER_NEED * flow : flow, need.fluid);
  const known = answers.run_m !== undefined;
  const part = (
    id: string,
    name: string,
    from: string,
    to: string,
    share: number,
    rise: number,
    elbows: number,
    end: 'out' | 'side' = 'out',
  ): SystemDocument['lines'][number] => ({
    id,
    name,
    purpose: end === 'side' ? 'return' : 'feed',
    kind: 'hose',
    from: { item: from, end, adapters: [] },
    to: { item: to, end: 'in', adapters: [] },
    points: [],
    passes: [],
    bore_m: chosen(bore),
    length_m: known
      ? measured(roundTo(run * share, 1e-2), 0.1)
      : assumed(roundTo(run * share, 1e-2), roundTo(run * share * 0.3, 1e-2)),
    wall: 'hose',
    forward_m: chosen(0),
    toPort_m: chosen(0),
    rise_m: assumed(rise, 0.15),
    fittings: [
      { fitting: 'elbow-90', count: elbows },
      { fitting: 'barb-step', count: 2 },
    ],
  });
  return [
    part('line-1', 'Tank to filter', 'pickup', 'filter', 0.2, 0, 1),
    part('line-2', 'Filter to pump', 'filter', 'pump', 0.2, need.pumpRise_m, 0),
    ...(answers.consumer === 'petrol-injection'
      ? [
          part('line-3', 'Pump to regulator', 'pump', 'regulator', 0.55, 0.2, 2),
          part('line-4', 'Regulator to engine', 'regulator', consumer.id, 0.05, 0, 0),
          part('return-line', 'Return to tank', 'regulator', 'return', 0.8, -0.2 - need.pumpRise_m, 2, 'side'),
        ]
      : [part('line-3', 'Pump to consumer', 'pump', consumer.id, 0.6, answers.consumer === 'nozzle' ? 1 : 0.2, 2)]),
  ];
}

/** Bores of common hose [m]; the first in which a metre of line costs no more than this is taken. */
const BORES_M = [0.004, 0.005, 0.006, 0.008, 0.01, 0.012, 0.016, 0.019, 0.025, 0.032, 0.038];
const EASY_PA_PER_M = 1500;
const DRAFT_TEMPERATURE_K = 288.15;

function nextBore_m(flow_m3PerS: number, fluid: FluidKey): number {
  const liquid = unwrap(fluidState({ key: fluid }, DRAFT_TEMPERATURE_K));
  const costs = (bore: number): number =>
    lineLaw(bore, 1, ROUGHNESS.hose.roughness_m, [], liquid)(flow_m3PerS).pressure_Pa;
  return BORES_M.find((bore) => costs(bore) <= EASY_PA_PER_M) ?? BORES_M.at(-1)!;
}
