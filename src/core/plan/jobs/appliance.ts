import { assumed, chosen, fromPart } from '../../schema/known';
import { strokeOf } from '../../components';
import { draftConsumer } from '../draft';
import { freshId } from '../edit';
import type { ComponentDocument, PortDocument, SystemDocument } from '../schema';
import {
  boxTank,
  filterFor,
  lengthFor,
  lidPort,
  linesOfRun,
  pickupIn,
  pumpFor,
  sizesFor,
  spanOfTank,
  toMm,
} from './kit';
import { NEEDS } from './needs';
import { freeInlets } from './secondTank';

/** A heater or generator on a tank of its own, or on one that is there. */
export type Appliance = {
  readonly kind: 'heater' | 'generator';
  readonly power_W: number;
  readonly run_m?: number | undefined;
} & (
  | { readonly from: 'own'; readonly holds_m3: number }
  | { readonly from: 'tank'; readonly tank: number; /** A spare port. */ readonly port?: string | undefined }
);

/** Common practice: bores of an appliance's line; a dosing pump wants it narrow, so that each stroke arrives. */
const BORES_M = { heater: 0.002, generator: 0.006 } as const;
/** Common practice: small inline filters are rated for some 30 L/h. */
const LEAST_FILTER_M3_PER_S = 30e-3 / 3600 / 2;
const USUAL_RUN_M = { heater: 2.5, generator: 2 } as const;
/** Common practice: a dosing pump gives half more than is asked of it, and holds a quarter of a bar. */
const DOSED_OVER = 1.5;
const DOSING_SHUT_OFF_PA = 25e3;
/** Common practice: a heater's pickup in the main tank ends so high that it can never strand the vehicle. */
const HIGH_SHARE = 0.25;

/** An appliance added whole: what it draws by, filter, pump, lines, and its own tank where it has one. */
export function withAppliance(system: SystemDocument, asked: Appliance): SystemDocument {
  const { kind, power_W } = asked;
  const need = NEEDS[kind];
  const id = freshId(system, kind);
  const bore = BORES_M[kind];
  const part = (base: string): string => freshId(system, `${id}-${base}`);
  const consumer = { ...draftConsumer({ consumer: kind, power_W }, need), id, name: need.name };
  const flow = consumer.neededFlow_m3PerS.value;
  const source =
    asked.from === 'own' ? withOwnTank(system, asked, part, bore) : withPickupIn(system, asked, part, bore);
  const parts: ComponentDocument[] = [
    // The least filter there is passes far more than a heater burns.
    filterFor(part('filter'), `${need.name} filter`, Math.max(flow, LEAST_FILTER_M3_PER_S), need.fluid),
    kind === 'heater'
      ? dosingPump(part('pump'), flow * DOSED_OVER)
      : pumpFor(part('pump'), 'Generator pump', flow, need.pumpShutOff_Pa),
  ];
  const stops = [
    { item: source.pickup, name: source.name },
    ...parts.map((each) => ({ item: each.id, name: each.name })),
    { item: id, name: need.name },
  ];
  return {
    ...source.system,
    consumers: [...system.consumers, consumer],
    components: [...system.components, ...parts],
    lines: [
      ...system.lines,
      ...linesOfRun(source.system, {
        purpose: 'feed',
        stops,
        bore_m: bore,
        length: lengthFor(undefined, asked.run_m, USUAL_RUN_M[kind]),
        rise_m: 0.2,
      }),
    ],
  };
}

/** A piston that gives the same at each stroke, little less against pressure. */
function dosingPump(id: string, free_m3PerS: number): ComponentDocument {
  const at = (share: number, rise: number) => ({
    flow_m3PerS: Number((free_m3PerS * share).toPrecision(3)),
    rise_Pa: DOSING_SHUT_OFF_PA * rise,
  });
  return pumpFor(id, 'Dosing pump', free_m3PerS, DOSING_SHUT_OFF_PA, {
    type: 'solenoid',
    checkBuiltIn: true,
    stroke_m3: strokeOf(free_m3PerS),
    output_ratio: assumed(1, 0.1),
    selfPrimingLift_m: assumed(0.8, 0.3),
    curve: [at(0, 1), at(0.85, 0.8), at(1, 0)],
  });
}

type Source = { readonly system: SystemDocument; readonly pickup: string; readonly name: string };

function withOwnTank(
  system: SystemDocument,
  { holds_m3, kind }: Extract<Appliance, { from: 'own' }>,
  part: (base: string) => string,
  bore: number,
): Source {
  const sizes = sizesFor(holds_m3);
  const name = NEEDS[kind].name;
  const there = system.fluids.find((each) => each.fluid === NEEDS[kind].fluid);
  const fluid = there?.id ?? freshId(system, NEEDS[kind].fluid);
  const tank = boxTank({
    id: part('tank'),
    name: `${name} tank`,
    fluid,
    sizes,
    ports: [
      lidPort(sizes, part('filler'), 'Filler', 'filler', [0.8, 0.3], {
        bore_m: assumed(0.03, 0.003),
        length_m: assumed(0.03, 0.01),
      }),
      // It draws so little that a hole in the cap is enough.
      lidPort(sizes, part('vent'), 'Hole in the cap', 'vent', [0.8, 0.6], {
        bore_m: assumed(0.002, 0.0005),
        length_m: assumed(0.003, 0.001),
      }),
      lidPort(sizes, part('outlet'), 'Outlet', 'feed', [0.25, 0.5], { bore_m: fromPart(0.006), length_m: chosen(0) }),
    ],
    pickups: [
      pickupIn(
        part('outlet'),
        part('pickup'),
        `${name} pickup`,
        'top-tube',
        Math.min(0.015, sizes.height.value / 6),
        bore,
      ),
    ],
  });
  return {
    system: {
      ...system,
      fluids: there ? system.fluids : [...system.fluids, { id: fluid, fluid: NEEDS[kind].fluid }],
      wishes: { ...system.wishes, ...(system.tanks.length === 0 ? { holds_m3: chosen(holds_m3) } : {}) },
      tanks: [...system.tanks, tank],
      conditions: { ...system.conditions, fills: [...system.conditions.fills, { tank: tank.id, fill_ratio: 0.8 }] },
    },
    pickup: tank.pickups[0]!.id,
    name: tank.pickups[0]!.name,
  };
}

/** Another pickup in a tank that is there, by a spare port or a new one. */
function withPickupIn(
  system: SystemDocument,
  { tank: t, port: wanted, kind }: Extract<Appliance, { from: 'tank' }>,
  part: (base: string) => string,
  bore: number,
): Source {
  const tank = system.tanks[t]!;
  const span = spanOfTank(tank) ?? [0.5, 0.5, 0.3];
  const there = freeInlets(system, t).find(({ id }) => id === wanted);
  const port: PortDocument = there
    ? { ...there, role: 'feed' }
    : {
        id: part('outlet'),
        name: `${NEEDS[kind].name} feed`,
        role: 'feed',
        face: 'lid',
        x_m: chosen(toMm(span[0] * 0.12)),
        y_m: chosen(toMm(span[1] * 0.75)),
        bore_m: fromPart(0.006),
        length_m: chosen(0),
      };
  const high = system.practice.heaterPickup === 'higher' ? span[2] * HIGH_SHARE : Math.min(0.02, span[2] / 5);
  const pickup = pickupIn(port.id, part('pickup'), `${NEEDS[kind].name} pickup`, 'top-tube', high, bore);
  const ports = there ? tank.ports.map((each) => (each.id === port.id ? port : each)) : [...tank.ports, port];
  return {
    system: {
      ...system,
      tanks: system.tanks.map((each, k) => (k === t ? { ...each, ports, pickups: [...each.pickups, pickup] } : each)),
    },
    pickup: pickup.id,
    name: pickup.name,
  };
}
