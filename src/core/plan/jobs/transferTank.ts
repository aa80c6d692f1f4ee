import type { FluidKey } from '../../reference/fluids';
import { assumed, chosen, fromPart } from '../../schema/known';
import { ratedStart } from '../../components/component';
import type { ComponentDocument, PortDocument, SystemDocument, TankDocument } from '../schema';
import type { VesselBody, VesselRow } from '../../reference/vessels';
import { capital } from '../../formats';
import { freshId } from '../edit';
import { asVessel } from './boughtVessel';
import { emptySystem } from './emptySystem';
import { boxTank, filterFor, lengthFor, lidPort, linesOfRun, pickupIn, pumpFor, sizesFor, type Sizes } from './kit';

export type TransferTank = {
  readonly name: string;
  readonly vehicle: SystemDocument['vehicle']['kind'];
  readonly fluid: FluidKey;
  readonly holds_m3: number;
  /** Bought, where it is not made for this. */ readonly vessel?: VesselRow;
  /** What is filled at one go. */ readonly moves_m3: number;
  /** What the pump's plate says that it moves freely. */ readonly rated_m3PerS: number;
  readonly hose_m: number;
  readonly meter: 'yes' | 'no';
};

/** Common practice: delivery hose and pickup of a hand-held nozzle; a pump lifts so much over its tank. */
const BORE_M = 0.025;
const RISE_M = 1;
/** Common practice: a 12 V transfer pump's pressure against a shut nozzle. */
const SHUT_OFF_PA = 150e3;
/** Free flow over the flow at the knee of its curve. */
const FREE_OVER_KNEE = 2.8;
/** Common practice: spout of a hand-held nozzle, outside, and the opening of a machine's tank. */
const SPOUT_M = 0.024;
const OPENING_M = 0.06;
/** What arrives at the nozzle of what the plate says: common practice, and so much may it be off. */
const ARRIVES = { ratio: 0.6, spread: 0.15 } as const;

/** A tank on a bed, trailer or pallet with pump, filter, meter, hose and nozzle. */
export function transferTank(asked: TransferTank): SystemDocument {
  const empty = emptySystem(asked.name, asked.vehicle, asked.fluid);
  const sizes = asked.vessel ? sizesOfVessel(asked.vessel.body) : sizesFor(asked.holds_m3);
  const rated = asked.rated_m3PerS;
  const tank = boxTank({
    id: 'tank',
    name: 'Transfer tank',
    fluid: 'fuel',
    sizes,
    ports: [
      lidPort(sizes, 'filler', 'Filler', 'filler', [0.8, 0.3], {
        bore_m: assumed(0.051, 0.003),
        length_m: assumed(0.05, 0.02),
      }),
      lidPort(sizes, 'vent', 'Vent cap', 'vent', [0.6, 0.7], {
        bore_m: assumed(0.014, 0.002),
        length_m: assumed(0.05, 0.02),
      }),
      lidPort(sizes, 'outlet', 'Pump standpipe', 'feed', [0.3, 0.5], { bore_m: fromPart(BORE_M), length_m: chosen(0) }),
    ],
    pickups: [pickupIn('outlet', 'pickup', 'Standpipe', 'top-tube', Math.min(0.025, sizes.height.value / 6), BORE_M)],
  });
  const components: ComponentDocument[] = [
    pumpFor('pump', 'Transfer pump', rated / FREE_OVER_KNEE, SHUT_OFF_PA, {
      type: 'transfer',
      selfPrimingLift_m: assumed(2, 0.5),
      // Round itself, while the nozzle is shut.
      relief_Pa: assumed(130e3, 20e3),
      wiring: {
        freeCurrent_A: assumed(15, 4),
        shutOffCurrent_A: assumed(22, 5),
        wire: 'mm2-6',
        length_m: assumed(3, 1),
        fuse_A: 30,
        relay: false,
        battery_Ah: assumed(70, 20),
      },
    }),
    filterFor('filter', 'Filter', rated, asked.fluid),
    ...(asked.meter === 'yes'
      ? [{ id: 'meter', name: 'Meter', ends: [], kind: 'meter' as const, ...ratedStart(rated / 2) }]
      : []),
  ];
  const receiver: ComponentDocument = {
    id: 'receiver',
    name: 'Tank that is filled',
    ends: [],
    kind: 'receiver',
    takes_m3: assumed(asked.moves_m3, asked.moves_m3 * 0.1),
    opening_m: assumed(OPENING_M, 0.01),
  };
  const stops = [
    { item: 'pickup', name: 'Standpipe' },
    ...components.map(({ id, name }) => ({ item: id, name })),
    { item: 'nozzle', name: 'Nozzle' },
  ];
  const system: SystemDocument = {
    ...empty,
    wishes: {
      ...empty.wishes,
      holds_m3: chosen(asked.holds_m3),
      moves_m3: chosen(asked.moves_m3),
      reserve_ratio: chosen(0),
    },
    tanks: [asked.vessel ? inVessel(tank, asked.vessel) : tank],
    components: [...components, receiver],
    conditions: { ...empty.conditions, duty_ratio: 1, fills: [{ tank: 'tank', fill_ratio: 0.9 }] },
    consumers: [
      {
        id: 'nozzle',
        name: 'Nozzle',
        kind: 'nozzle',
        ends: [],
        neededFlow_m3PerS: assumed(rated * ARRIVES.ratio, rated * ARRIVES.spread),
        neededPressure_Pa: assumed(15e3, 8e3),
        // It burns nothing: what it gives is what leaves the tank.
        burnIdle_m3PerS: chosen(0),
        burnFull_m3PerS: assumed(rated * ARRIVES.ratio, rated * ARRIVES.spread),
        nozzle: { spout_m: assumed(SPOUT_M, 0.004), stops: 'automatic' },
      },
    ],
  };
  const lines = linesOfRun(system, {
    purpose: 'transfer',
    stops,
    bore_m: BORE_M,
    length: lengthFor(undefined, asked.hose_m + 0.6, 3.6),
    rise_m: RISE_M,
  });
  // The hose is the last of them; what stands before it is bolted close together.
  const short = lines.map((line, i) => ({
    ...line,
    length_m: i === lines.length - 1 ? chosen(asked.hose_m) : assumed(0.2, 0.1),
    rise_m: i === lines.length - 1 ? assumed(RISE_M, 0.5) : assumed(0, 0.1),
  }));
  return { ...system, lines: [...short, heldInto(system, short)] };
}

/** The room of a bought vessel, as places in it are reckoned. */
function sizesOfVessel(body: VesselBody): Sizes {
  const [length, width, height] =
    body.form === 'box'
      ? [body.length_m, body.width_m, body.height_m]
      : body.axis === 'z'
        ? [body.diameter_m, body.diameter_m, body.shell_m]
        : [body.shell_m, body.diameter_m, body.diameter_m];
  return { length: chosen(length), width: chosen(width), height: chosen(height) };
}

/** What is there of it is not cut: the standpipe goes into the large opening, and the small one vents. */
function inVessel(tank: TankDocument, vessel: VesselRow): TankDocument {
  const [large = 0, small = 0] = vessel.openings_m;
  const has: Readonly<Record<string, Pick<PortDocument, 'name' | 'bore_m' | 'existing'>>> = {
    outlet: { name: 'Large bung, with the standpipe', bore_m: fromPart(large), existing: true },
    vent: { name: 'Small bung, with a breather', bore_m: assumed(Math.min(small, VENT_M), 0.002), existing: true },
  };
  return {
    ...asVessel(tank, vessel),
    name: capital(vessel.name),
    // It is filled by its large bung, or comes full.
    ports: tank.ports.flatMap((port) => (has[port.id] ? [{ ...port, ...has[port.id] }] : [])),
  };
}
const VENT_M = 0.014;

/** The nozzle is held into the opening: no line, and no joint. */
function heldInto(system: SystemDocument, lines: SystemDocument['lines']): SystemDocument['lines'][number] {
  const none = chosen(0);
  return {
    id: freshId({ ...system, lines }, 'line'),
    name: 'Nozzle in the opening',
    purpose: 'fill',
    kind: 'direct',
    from: { item: 'nozzle', end: 'side', adapters: [] },
    to: { item: 'receiver', end: 'in', adapters: [] },
    points: [],
    passes: [],
    bore_m: chosen(BORE_M),
    length_m: none,
    wall: 'drawn-tube',
    forward_m: none,
    toPort_m: none,
    rise_m: none,
    fittings: [],
  };
}
