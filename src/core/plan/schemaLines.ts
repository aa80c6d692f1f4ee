import { END_NAMES, joinKeys, madeEnd } from '../components';
import { boolean } from 'yup';
import { MOST_ADAPTERS } from '../fittings';
import { SEALING_KEYS } from '../reference/compatibility';
import { ADAPTERS } from '../reference/joins';
import { LINE_STOCK } from '../reference/lineStock';
import { FITTINGS, ROUGHNESS, type FittingKey, type RoughnessKey } from '../reference/losses';
import { bounded, known } from '../schema/known';
import { closed, id, keys, listOf, name, oneOf, SPAN_M } from '../schema/tools';

export const PURPOSES = ['feed', 'return', 'transfer', 'fill', 'vent', 'overflow'] as const;
export const LINE_KINDS = ['hose', 'tube', 'pipe', 'direct'] as const;

const lineEnd = () =>
  closed({
    item: id(),
    end: oneOf(END_NAMES),
    /** How the line itself ends there; as its kind and bore have it where left out. */
    join: closed(joinKeys()).optional(),
    /** What makes it tight, by its key in the table of contacts. */
    seal: oneOf(SEALING_KEYS).optional(),
    /** Its hose is stretched over the next larger barb. */
    stretched: boolean().typeError('must be true or false').optional(),
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
  bore_m: known(0.001, 0.1, 'bore', 'bore'),
  length_m: known(0, 200, 'length', 'run'),
  wall: oneOf<RoughnessKey>(keys(ROUGHNESS)),
  /** What it is cut from, where that is chosen. */
  stock: oneOf(LINE_STOCK.map(({ key }) => key)).optional(),
  /** Where its far end lies from its near end, in vehicle axes. */
  forward_m: known(-SPAN_M, SPAN_M, 'run forward', 'run'),
  toPort_m: known(-SPAN_M, SPAN_M, 'run to port', 'run'),
  rise_m: known(-SPAN_M, SPAN_M, 'rise', 'run'),
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
  bend_m: known(0.003, 5, 'tightest bend', 'tape').optional(),
  /** Furthest apart that it is held. */
  held_m: known(0.02, 20, 'furthest between its holders', 'run').optional(),
  /** Sheets that it passes through. */
  passes: listOf(closed({ name: name(), hole_m: known(0.002, 0.2, 'hole to be cut', 'tape') }), 20),
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

/** How a nozzle stops: by itself when its tip is covered, or by hand. */
export const NOZZLE_STOPS = ['automatic', 'manual'] as const;

export const consumer = closed({
  id: id(),
  name: name(),
  kind: oneOf(CONSUMER_KINDS),
  ends: listOf(madeEnd(), 2),
  /** Drawn at full load; what is not burned of it goes back, where it has a line for that. */
  neededFlow_m3PerS: known(1e-9, 0.1, 'needed flow', 'burn'),
  neededPressure_Pa: known(-5e4, 2e6, 'needed pressure', 'pressure'),
  burnIdle_m3PerS: known(0, 0.1, 'burn at idle', 'burn'),
  burnFull_m3PerS: known(1e-10, 0.1, 'burn at full load', 'burn'),
  /** From which its need follows. */
  engine: closed({
    power_W: known(50, 5e6, 'power', 'power'),
    specific_kgPerJ: known(1e-8, 1e-6, 'fuel for the work done', 'consumption'),
    injectors: bounded(0, 24).integer('must be a whole number'),
    /** Of each injector, open all the time at the rail's pressure. */
    injectorFlow_m3PerS: known(1e-9, 1e-3, 'flow of an injector', 'burn'),
    injectorDuty_ratio: known(0.1, 1, 'most of the time that injectors may be open', 'share'),
  }).optional(),
  /** Of a nozzle: what goes into the opening, and whether it shuts by itself. */
  nozzle: closed({ spout_m: known(0.002, 0.2, 'spout, outside', 'bore'), stops: oneOf(NOZZLE_STOPS) }).optional(),
});

/** What a metre of a line costs, in the builder's own money. */
export const linePrice = closed({ stock: oneOf(LINE_STOCK.map(({ key }) => key)), perMetre: bounded(0, 1e5) });
