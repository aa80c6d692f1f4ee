import { airState, type FluidState } from '../fluids';
import { add, dot, type EffectiveGravity, type Vec3 } from '../geometry';
import type { FittingLoss, LinkElement, Network, NetworkLink, NetworkNode } from '../network';
import { FITTINGS, ROUGHNESS, type FittingKey } from '../reference/losses';
import { starvingOffset_m } from '../tank';
import { inVehicle, type PickupModel, type TankModel } from './compileTank';
import type { ComponentDocument, LineDocument, SystemDocument } from './schema';

/** What the solver is asked: a consumer held at its needed pressure, or drawing its needed flow. */
export type Draw = { readonly consumer: string; readonly hold_Pa?: number; readonly outflow_m3PerS?: number };

export type TankLevel = { readonly tank: TankModel; readonly offset_m: number; readonly up: Vec3 };

export type FlowInputs = {
  readonly system: SystemDocument;
  readonly levels: readonly TankLevel[];
  readonly fluid: FluidState;
  readonly gravity: EffectiveGravity;
  readonly ambientAbs_Pa: number;
};

/** Names of the solver's nodes for a part. */
export const inletNode = (id: string): string => `${id}:in`;
export const outletNode = (id: string): string => `${id}:out`;
export const ullageNode = (tankId: string): string => `${tankId}:ullage`;

/** True when the surface has fallen to where this pickup draws air. */
export const isStarved = ({ offset_m, up }: TankLevel, pickup: PickupModel): boolean => offset_m <= starvingOffset_m(pickup.inlet, up);

/** Sets out a system's feed as a network, with the consumers drawing as asked. */
export function compileNetwork(inputs: FlowInputs, draws: readonly Draw[]): Network {
  const { system, levels, gravity } = inputs;
  const positions = partPositions(system, levels);
  const height = (id: string): number => dot(gravity.up, positions.get(id) ?? [0, 0, 0]);
  return {
    fluid: inputs.fluid,
    ambientAbs_Pa: inputs.ambientAbs_Pa,
    gravity_mPerS2: gravity.magnitude_mPerS2,
    nodes: [
      ...levels.flatMap((level) => tankNodes(level, gravity.up)),
      ...levels.flatMap(({ tank }) => tank.pickups.map((pickup): NetworkNode => ({ id: pickup.document.id, name: pickup.document.name, height_m: height(pickup.document.id) }))),
      ...system.components.flatMap((part): NetworkNode[] => [
        { id: inletNode(part.id), name: `${part.name}, inlet`, height_m: height(part.id) },
        { id: outletNode(part.id), name: `${part.name}, outlet`, height_m: height(part.id) },
      ]),
      ...system.consumers.map((consumer): NetworkNode => {
        const draw = draws.find((candidate) => candidate.consumer === consumer.id);
        return {
          id: consumer.id, name: consumer.name, height_m: height(consumer.id),
          ...(draw?.hold_Pa === undefined ? {} : { fixedGauge_Pa: draw.hold_Pa }),
          ...(draw?.outflow_m3PerS === undefined ? {} : { outflow_m3PerS: draw.outflow_m3PerS }),
        };
      }),
    ].filter((node) => isReached(node.id, inputs)),
    links: [
      ...levels.flatMap((level) => tankLinks(level, inputs)),
      ...system.components.map((part): NetworkLink => ({
        id: part.id, name: part.name, from: inletNode(part.id), to: outletNode(part.id), elements: componentElements(part, inputs),
      })),
      ...feedLines(system).map((line): NetworkLink => ({
        id: line.id, name: line.name, from: lineStart(system, line), to: lineEnd(system, line), elements: [lineElement(line)],
      })),
    ].filter((link) => isReached(link.from, inputs) && isReached(link.to, inputs)),
  };
}

/** Lines that carry flow in this model: between pickups, components and consumers. */
export const feedLines = (system: SystemDocument): LineDocument[] => {
  const ports = new Set(system.tanks.flatMap((tank) => tank.ports.map((port) => port.id)));
  return system.lines.filter((line) => !ports.has(line.from.item) && !ports.has(line.to.item));
};

/** Parts that no line touches take no part in the flow. */
function isReached(nodeId: string, { system }: FlowInputs): boolean {
  const part = nodeId.replace(/:(in|out|ullage|air)$/, '');
  const joined = feedLines(system).some((line) => line.from.item === part || line.to.item === part);
  return joined || system.tanks.some((tank) => tank.id === part);
}

const isComponent = (system: SystemDocument, id: string): boolean => system.components.some((part) => part.id === id);
const lineStart = (system: SystemDocument, line: LineDocument): string =>
  isComponent(system, line.from.item) ? `${line.from.item}:${line.from.end}` : line.from.item;
const lineEnd = (system: SystemDocument, line: LineDocument): string =>
  isComponent(system, line.to.item) ? `${line.to.item}:${line.to.end}` : line.to.item;

/** Where each part is, in vehicle axes: pickups by their ports, the rest along the lines. */
export function partPositions(system: SystemDocument, levels: readonly TankLevel[]): Map<string, Vec3> {
  const positions = new Map<string, Vec3>();
  for (const { tank } of levels) {
    for (const pickup of tank.pickups) positions.set(pickup.document.id, inVehicle(tank, pickup.port_m));
  }
  for (let grown = true; grown; ) {
    grown = false;
    for (const line of system.lines) {
      const [from, to] = [positions.get(line.from.item), positions.get(line.to.item)];
      const run: Vec3 = [line.forward_m.value, line.toPort_m.value, line.rise_m.value];
      if (from && !to) positions.set(line.to.item, add(from, run));
      else if (to && !from) positions.set(line.from.item, add(to, [-run[0], -run[1], -run[2]]));
      else continue;
      grown = true;
    }
  }
  return positions;
}

/** Height of the free surface against effective gravity, above the vehicle's datum [m]. */
export const surfaceHeight_m = ({ tank, offset_m }: TankLevel, up: Vec3): number => {
  const origin: Vec3 = [tank.document.mounting.x_m.value, tank.document.mounting.y_m.value, tank.document.mounting.z_m.value];
  return dot(up, origin) + offset_m;
};

function tankNodes(level: TankLevel, up: Vec3): NetworkNode[] {
  const { id, name } = level.tank.document;
  // Air weighs next to nothing, so the open air is set at the surface's height.
  const height_m = surfaceHeight_m(level, up);
  return [
    { id: `${id}:air`, name: 'open air', height_m, fixedGauge_Pa: 0 },
    { id: ullageNode(id), name: `${name}, above the liquid`, height_m },
  ];
}

function tankLinks(level: TankLevel, inputs: FlowInputs): NetworkLink[] {
  const { tank, up, offset_m } = level;
  const air = airState(inputs.system.conditions.fuelTemperature_K, inputs.ambientAbs_Pa);
  const vents = tank.ports.filter(({ document }) => document.role === 'vent').map(({ document, point_m }): NetworkLink => ({
    id: document.id, name: document.name, from: `${tank.document.id}:air`, to: ullageNode(tank.document.id),
    elements: dot(up, point_m) < offset_m
      ? [{ kind: 'closed' }]
      : [{ kind: 'vent', bore_m: document.bore_m.value, length_m: document.length_m.value, air }],
  }));
  const pickups = tank.pickups.map((pickup): NetworkLink => ({
    id: `${pickup.document.id}:tube`, name: pickup.document.name, from: ullageNode(tank.document.id), to: pickup.document.id,
    elements: isStarved(level, pickup) ? [{ kind: 'closed' }] : [pickupElement(pickup)],
  }));
  return [...vents, ...pickups];
}

const fittingLoss = (key: FittingKey, count: number): FittingLoss => {
  const { k1, kInfinity, sized } = FITTINGS[key];
  return { k1, kInfinity, sized, count };
};

const pickupElement = ({ document, tubeLength_m }: PickupModel): LinkElement => ({
  kind: 'line', bore_m: document.bore_m.value, length_m: tubeLength_m, roughness_m: ROUGHNESS['drawn-tube'].roughness_m,
  fittings: [fittingLoss(document.kind === 'top-tube' ? 'entrance-inward' : 'entrance-sharp', 1)],
});

const lineElement = (line: LineDocument): LinkElement => ({
  kind: 'line', bore_m: line.bore_m.value, length_m: line.length_m.value, roughness_m: ROUGHNESS[line.wall].roughness_m,
  fittings: line.fittings.map(({ fitting, count }) => fittingLoss(fitting, count)),
});

function componentElements(part: ComponentDocument, inputs: FlowInputs): LinkElement[] {
  switch (part.kind) {
    case 'filter':
      return [{
        kind: 'filter', ratedFlow_m3PerS: part.ratedFlow_m3PerS.value, ratedDrop_Pa: part.ratedDrop_Pa.value,
        ratedViscosity_PaS: part.ratedViscosity_PaS.value, dirtFactor: part.dirt_ratio.value,
      }];
    case 'pump':
      return [pumpElement(part, inputs), ...(part.checkBuiltIn ? [{ kind: 'check' } as const] : [])];
    case 'valve':
      return [part.open ? bodyElement(part.fitting, part.bore_m.value) : { kind: 'closed' }];
    case 'check-valve':
      return [bodyElement(part.fitting, part.bore_m.value), { kind: 'check' }];
  }
}

/** Losses that sit in a body of no length. */
const bodyElement = (fitting: FittingKey, bore_m: number): LinkElement => ({
  kind: 'line', bore_m, length_m: 0, roughness_m: 0, fittings: [fittingLoss(fitting, 1)],
});

type PumpDocument = Extract<ComponentDocument, { kind: 'pump' }>;

function pumpElement(pump: PumpDocument, inputs: FlowInputs): LinkElement {
  const ratio = inputs.system.conditions.pumpVoltage_V / pump.ratedVoltage_V.value;
  const curve = pump.curve.map((point) => ({ flow_m3PerS: point.flow_m3PerS * pump.output_ratio.value, rise_Pa: point.rise_Pa }));
  if (pump.running && ratio > 0) return { kind: 'pump', curve, voltageRatio: ratio };
  // A pump standing still is taken to cost at free flow what it would have given at shut-off.
  const flows = curve.map((point) => point.flow_m3PerS);
  const rises = curve.map((point) => point.rise_Pa);
  return { kind: 'filter', ratedFlow_m3PerS: Math.max(1e-9, ...flows), ratedDrop_Pa: Math.max(0, ...rises), ratedViscosity_PaS: inputs.fluid.viscosity_PaS, dirtFactor: 1 };
}

/** The parts on the way from a consumer back to a pickup, consumer first. */
export function feedPath(system: SystemDocument, consumerId: string): string[] {
  const path = [consumerId];
  for (let at = consumerId; ; ) {
    const line = feedLines(system).find((candidate) => candidate.to.item === at && !path.includes(candidate.from.item));
    if (!line) return path;
    path.push(line.id, line.from.item);
    at = line.from.item;
  }
}
