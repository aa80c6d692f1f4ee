import type { FluidState } from '../fluids';
import { add, dot, type EffectiveGravity, type Vec3 } from '../geometry';
import { kindOf, type EndPair } from '../components';
import { starvingOffset_m } from '../tank';
import { burnOf_m3PerS } from './burn';
import { carriesFlow, type Circuits } from '../plan/circuits';
import { inVehicle, type PickupModel, type TankGeometry, type TankModel } from './compileTank';
import type { ComponentDocument, ConsumerDocument, LineDocument } from '../plan/schema';

/**
 * What the solver is asked: a consumer held at its needed pressure, or drawing its needed flow. What it does not burn
 * it sends back, where a line leads back.
 */
export type Draw = { readonly consumer: string; readonly hold_Pa?: number; readonly outflow_m3PerS?: number };

/** What a consumer sends back of what it draws: all that it does not burn at full load; a nozzle nothing. */
export const returned_m3PerS = (consumer: ConsumerDocument): number =>
  consumer.kind === 'nozzle' ? 0 : Math.max(0, consumer.neededFlow_m3PerS.value - burnOf_m3PerS(consumer, 1));

/** A tank with so much in it, up in its own frame. */
export type TankLevel = {
  readonly tank: TankModel;
  readonly volume_m3: number;
  readonly offset_m: number;
  readonly up: Vec3;
};

/** What flow depends on of the state, beside what stands in tanks and how parts stand. */
export type FlowState = {
  /** What the liquid feels of attitude and acceleration. */
  readonly gravity: EffectiveGravity;
  readonly ambientAbs_Pa: number;
  readonly fuelTemperature_K: number;
  /** Of what a consumer burns between idle and full load, 0 … 1. */
  readonly duty_ratio: number;
  /** At the battery, or at a pump without wires [V]. */
  readonly supply_V: number;
};

export type FlowInputs = {
  /** Valves, selectors, couplers and pumps as they stand. */
  readonly system: Circuits;
  readonly state: FlowState;
  readonly levels: readonly TankLevel[];
  readonly fluid: FluidState;
  /** Vents whose valves stick open, by id. */ readonly stuck?: ReadonlySet<string>;
};

/** Names of the solver's nodes: those of ends are their keys. */
export const inletNode = (id: string): string => `${id}:in`;

/** The node at an item's outlet. */
export const outletNode = (id: string): string => `${id}:out`;

/** The node of the air over a tank's liquid. */
export const ullageNode = (tankId: string): string => `${tankId}:ullage`;

/** A part's own link: by the part, with a suffix where it has several. */
export const linkName = ({ id }: Pick<ComponentDocument, 'id'>, suffix: string | undefined): string =>
  suffix === undefined ? id : `${id}:${suffix}`;

/** The link between two ends that a part's position joins. */
export const partLink = (part: ComponentDocument, pair: EndPair): string => {
  const i = (kindOf(part).joins?.(part) ?? []).findIndex(([a, b]) => a === pair[0] && b === pair[1]);
  return linkName(part, i > 0 ? String(i) : undefined);
};

/** The node of the open air at a tank's vents. */
export const airNode = (tankId: string): string => `${tankId}:air`;

/** Where air lines end in the open. */
export const OPEN_AIR = 'open:air';

/** True of a node where there is no liquid to boil. */
export const isAirNode = (id: string): boolean => /:(air|ullage)$/.test(id);

/** True when the surface has fallen to where this pickup draws air. */
export const isStarved = ({ offset_m, up }: TankLevel, pickup: PickupModel): boolean =>
  offset_m <= starvingOffset_m(pickup.inlet, up);

/** Lines that carry a steady flow of liquid. */
export const feedLines = (system: Circuits): LineDocument[] => system.lines.filter(carriesFlow);

/** Where each part is, in vehicle axes: pickups and ports on their tanks, the rest along the lines. */
export function partPositions(
  system: Pick<Circuits, 'lines'>,
  levels: readonly { readonly tank: TankGeometry }[],
): Map<string, Vec3> {
  const positions = new Map<string, Vec3>();
  for (const { tank } of levels) {
    for (const { document, point_m } of tank.ports) positions.set(document.id, inVehicle(tank, point_m));
    for (const pickup of tank.pickups) positions.set(pickup.document.id, inVehicle(tank, pickup.port_m));
  }
  for (let grown = true; grown;) {
    grown = false;
    for (const line of system.lines) {
      const [from, to] = [positions.get(line.from.item), positions.get(line.to.item)];
      const run = lineRun(line);
      if (from && !to) positions.set(line.to.item, add(from, run));
      else if (to && !from) positions.set(line.from.item, add(to, [-run[0], -run[1], -run[2]]));
      else continue;
      grown = true;
    }
  }
  return positions;
}

/** From a line's near end to its far one, in vehicle axes. */
export const lineRun = (line: LineDocument): Vec3 => [line.forward_m.value, line.toPort_m.value, line.rise_m.value];

/** Height of the free surface against effective gravity, above the vehicle's datum [m]. */
export const surfaceHeight_m = ({ tank, offset_m }: TankLevel, up: Vec3): number => {
  const origin: Vec3 = [
    tank.document.mounting.x_m.value,
    tank.document.mounting.y_m.value,
    tank.document.mounting.z_m.value,
  ];
  return dot(up, origin) + offset_m;
};
