import { boolean } from 'yup';
import { MOST_ADAPTERS } from '../fittings';
import { ADAPTERS, JOIN_SYSTEMS } from '../reference/joins';
import { LINE_STOCK } from '../reference/lineStock';
import { FITTINGS, ROUGHNESS, type FittingKey, type RoughnessKey } from '../reference/losses';
import { WIRES } from '../reference/wires';
import { bounded, known, ORIGINS } from './known';
import { byKind, closed, flag, id, keys, kindIs, listOf, name, oneOf, text } from './schemaTools';

/** Ends of a part, by which lines are joined to it. In and out are as flow is meant; side ends are what else it has. */
export const END_NAMES = ['in', 'out', 'side', 'side2'] as const;
export type EndName = (typeof END_NAMES)[number];

const SPAN_M = 30;
const BORE_M = [0.0005, 0.1] as const;
const bore = () => known(...BORE_M);
const joinKeys = () => ({
  system: oneOf(JOIN_SYSTEMS),
  size: text(20).required('is missing'),
  side: oneOf(['male', 'female'] as const),
});
/** How an end of a part is made, and whether a plug closes it. What is silent is not known yet. */
const madeEnd = () =>
  closed({ end: oneOf(END_NAMES), ...joinKeys(), plugged: boolean().typeError('must be true or false').optional() });
const common = () => ({ id: id(), name: name(), ends: listOf(madeEnd(), 4) });

export const FILTER_KINDS = ['filter', 'separator', 'strainer'] as const;
const filter = closed({
  ...common(),
  kind: kindIs('filter'),
  does: oneOf(FILTER_KINDS),
  ratedFlow_m3PerS: known(1e-8, 0.1),
  ratedDrop_Pa: known(0, 1e6),
  ratedViscosity_PaS: known(1e-4, 1),
  /** Loss as a multiple of the clean one. */
  dirt_ratio: known(1, 100),
});

export const PUMP_TYPES = ['inline', 'in-tank', 'transfer', 'solenoid', 'pulse', 'hand', 'siphon'] as const;
const pump = closed({
  ...common(),
  kind: kindIs('pump'),
  type: oneOf(PUMP_TYPES),
  running: flag(),
  checkBuiltIn: flag(),
  ratedVoltage_V: known(1, 60),
  selfPrimingLift_m: known(0, 10),
  /** What it really moves, as a share of its curve: timed into a known can. */
  output_ratio: known(0.05, 2),
  /** At which it lets go round itself; it has no such valve where this is left out. */
  relief_Pa: known(100, 5e6).optional(),
  curveOrigin: oneOf(ORIGINS),
  curve: listOf(closed({ flow_m3PerS: bounded(0, 0.1), rise_Pa: bounded(0, 5e6) }), 40),
  /** What it takes when it moves freely and when nothing leaves it, and its wires from the battery. */
  wiring: closed({
    freeCurrent_A: known(0.01, 200),
    shutOffCurrent_A: known(0.01, 300),
    wire: oneOf(WIRES.map(({ key }) => key)),
    /** From the battery to the pump, one way. */
    length_m: known(0, 60),
    fuse_A: bounded(0.5, 200).optional(),
    relay: flag(),
    battery_Ah: known(0.5, 5000),
  }).optional(),
});

const BODIES: readonly FittingKey[] = ['ball-valve', 'gate-valve', 'globe-valve', 'needle-valve'];
const valve = closed({
  ...common(),
  kind: kindIs('valve'),
  open: flag(),
  fitting: oneOf<FittingKey>(BODIES),
  bore_m: bore(),
});
/** Which of its three ends are joined; two ways share the end named twice. */
export const SELECTED = ['in-out', 'side-out', 'in-side', 'all', 'shut'] as const;
const selector = closed({
  ...common(),
  kind: kindIs('selector'),
  position: oneOf(SELECTED),
  fitting: oneOf<FittingKey>(BODIES),
  bore_m: bore(),
});
/** With a spring it opens above a pressure only, as an anti-siphon valve does. */
const check = closed({
  ...common(),
  kind: kindIs('check-valve'),
  fitting: oneOf<FittingKey>(['check-swing', 'check-lift']),
  bore_m: bore(),
  opens_Pa: known(0, 1e6).optional(),
});
const relief = closed({ ...common(), kind: kindIs('relief-valve'), bore_m: bore(), opens_Pa: known(10, 5e6) });
/** Dead-head: keeps the pressure behind it. Bypass: keeps that before it by letting fuel out of its side end. */
const regulator = closed({
  ...common(),
  kind: kindIs('regulator'),
  style: oneOf(['dead-head', 'bypass'] as const),
  set_Pa: known(100, 2e6),
  bore_m: bore(),
});
/** Shuts when the tank that it feeds is so full. */
const floatValve = closed({
  ...common(),
  kind: kindIs('float-valve'),
  tank: id(),
  closesAt_ratio: known(0.05, 1),
  bore_m: bore(),
});
/** Lets air in at a high point when the pressure there falls below the air's by so much. */
const vacuumBreaker = closed({ ...common(), kind: kindIs('vacuum-breaker'), opens_Pa: known(0, 1e5), bore_m: bore() });
const tee = closed({ ...common(), kind: kindIs('tee'), bore_m: bore() });
const cross = closed({ ...common(), kind: kindIs('cross'), bore_m: bore() });
/** Both halves of a dry-break coupler; parted, both are shut. */
const rated = () => ({
  ratedFlow_m3PerS: known(1e-8, 0.1),
  ratedDrop_Pa: known(0, 1e6),
  ratedDensity_kgPerM3: known(500, 2000),
});
const coupler = closed({
  ...common(),
  kind: kindIs('coupler'),
  joined: flag(),
  ...rated(),
  /** Spilled when it is parted. */ spill_m3: known(0, 1e-3),
});
const meter = closed({ ...common(), kind: kindIs('meter'), ...rated() });
const damper = closed({ ...common(), kind: kindIs('damper'), bore_m: bore() });
const orifice = closed({
  ...common(),
  kind: kindIs('orifice'),
  bore_m: known(0.0001, 0.05),
  discharge_ratio: known(0.3, 1),
});
const fitting = closed({
  ...common(),
  kind: kindIs('fitting'),
  fitting: oneOf<FittingKey>(keys(FITTINGS)),
  bore_m: bore(),
});
/** An end that stands open: to the air, over a can, into the bilge. */
const outlet = closed({ ...common(), kind: kindIs('outlet') });

export const COMPONENT_SCHEMAS = {
  filter,
  pump,
  valve,
  selector,
  'check-valve': check,
  'relief-valve': relief,
  regulator,
  'float-valve': floatValve,
  'vacuum-breaker': vacuumBreaker,
  tee,
  cross,
  coupler,
  meter,
  damper,
  orifice,
  fitting,
  outlet,
};
export const component = byKind(COMPONENT_SCHEMAS);
export type ComponentKind = keyof typeof COMPONENT_SCHEMAS;
export const COMPONENT_KINDS = keys(COMPONENT_SCHEMAS);

/** Ends that a part of each kind has. */
export const ENDS_OF_KIND: Readonly<Record<ComponentKind, readonly EndName[]>> = {
  filter: ['in', 'out'],
  pump: ['in', 'out'],
  valve: ['in', 'out'],
  selector: ['in', 'out', 'side'],
  'check-valve': ['in', 'out'],
  'relief-valve': ['in', 'out'],
  regulator: ['in', 'out', 'side'],
  'float-valve': ['in', 'out'],
  'vacuum-breaker': ['in', 'out'],
  tee: ['in', 'out', 'side'],
  cross: ['in', 'out', 'side', 'side2'],
  coupler: ['in', 'out'],
  meter: ['in', 'out'],
  damper: ['in', 'out'],
  orifice: ['in', 'out'],
  fitting: ['in', 'out'],
  outlet: ['in'],
};

export const PURPOSES = ['feed', 'return', 'transfer', 'fill', 'vent', 'overflow'] as const;
export const LINE_KINDS = ['hose', 'tube', 'pipe', 'direct'] as const;

const lineEnd = () =>
  closed({
    item: id(),
    end: oneOf(END_NAMES),
    /** How the line itself ends there; as its kind and bore have it where left out. */
    join: closed(joinKeys()).optional(),
    /** Between the line and the part, in order from the line. */
    adapters: listOf(oneOf(ADAPTERS.map(({ key }) => key)), MOST_ADAPTERS),
  });

export const line = closed({
  id: id(),
  name: name(),
  purpose: oneOf(PURPOSES),
  /** Direct: the parts are screwed together with no line between them. */
  kind: oneOf(LINE_KINDS),
  from: lineEnd(),
  to: lineEnd(),
  bore_m: known(0.001, 0.1),
  length_m: known(0, 200),
  wall: oneOf<RoughnessKey>(keys(ROUGHNESS)),
  /** What it is cut from, where that is chosen. */
  stock: oneOf(LINE_STOCK.map(({ key }) => key)).optional(),
  /** Where its far end lies from its near end, in vehicle axes. */
  forward_m: known(-SPAN_M, SPAN_M),
  toPort_m: known(-SPAN_M, SPAN_M),
  rise_m: known(-SPAN_M, SPAN_M),
  /** Points on its way, from its near end, in vehicle axes and in order. */
  points: listOf(
    closed({
      forward_m: bounded(-SPAN_M, SPAN_M),
      toPort_m: bounded(-SPAN_M, SPAN_M),
      rise_m: bounded(-SPAN_M, SPAN_M),
    }),
    40,
  ),
  fittings: listOf(
    closed({ fitting: oneOf<FittingKey>(keys(FITTINGS)), count: bounded(0, 50).integer('must be a whole number') }),
    20,
  ),
  /** Tightest bend in it, to its middle. */
  bend_m: known(0.003, 5).optional(),
  /** Furthest apart that it is held. */
  held_m: known(0.02, 20).optional(),
  /** Sheets that it passes through. */
  passes: listOf(closed({ name: name(), hole_m: known(0.002, 0.2) }), 20),
  /** True where its ends move against each other. */
  flexes: boolean().typeError('must be true or false').optional(),
});

export const CONSUMER_KINDS = [
  'diesel-engine',
  'petrol-injection',
  'petrol-carburettor',
  'heater',
  'generator',
  'nozzle',
] as const;

export const consumer = closed({
  id: id(),
  name: name(),
  kind: oneOf(CONSUMER_KINDS),
  ends: listOf(madeEnd(), 2),
  /** Drawn at full load; what is not burned of it goes back, where it has a line for that. */
  neededFlow_m3PerS: known(1e-9, 0.1),
  neededPressure_Pa: known(-5e4, 2e6),
  burnIdle_m3PerS: known(0, 0.1),
  burnFull_m3PerS: known(1e-10, 0.1),
  /** From which its need follows. */
  engine: closed({
    power_W: known(50, 5e6),
    specific_kgPerJ: known(1e-8, 1e-6),
    injectors: bounded(0, 24).integer('must be a whole number'),
    /** Of each injector, open all the time at the rail's pressure. */
    injectorFlow_m3PerS: known(1e-9, 1e-3),
    injectorDuty_ratio: known(0.1, 1),
  }).optional(),
});

/** What a metre of a line costs, in the builder's own money. */
export const linePrice = closed({ stock: oneOf(LINE_STOCK.map(({ key }) => key)), perMetre: bounded(0, 1e5) });
