import { derived } from '../memo';
import { airState, type AirState, type FluidState } from '../fluids';
import { add, dot, type EffectiveGravity, type Vec3 } from '../geometry';
import type { FittingLoss, LinkElement, Network, NetworkLink, NetworkNode } from '../network';
import { adapterRow } from '../reference/joins';
import { fittingKs, ROUGHNESS, type FittingKey } from '../reference/losses';
import {
  driveRatio,
  endsOfComponent,
  kindOf,
  MIDDLE,
  pumpElements,
  type EndPair,
  type Hydraulics,
  type PumpDocument,
} from '../components';
import { starvingOffset_m } from '../tank';
import { reached } from '../reached';
import { capWays, letsAirIn, type CapWay } from '../plan/caps';
import { burnOf_m3PerS } from './burn';
import { carriesFlow, endKey, hungParts, type Circuits } from '../plan/circuits';
import { inVehicle, type PickupModel, type PortModel, type TankGeometry, type TankModel } from './compileTank';
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
  /** At a pump's terminals where its wires take some of it; else as supplied [V]. */
  readonly volts?: ReadonlyMap<string, number>;
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
const airNode = (tankId: string): string => `${tankId}:air`;
/** Where air lines end in the open. */
const OPEN_AIR = 'open:air';

/** True of a node where there is no liquid to boil. */
export const isAirNode = (id: string): boolean => /:(air|ullage)$/.test(id);

/** True when the surface has fallen to where this pickup draws air. */
export const isStarved = ({ offset_m, up }: TankLevel, pickup: PickupModel): boolean =>
  offset_m <= starvingOffset_m(pickup.inlet, up);

/** What of a network stays, whatever is drawn: the consumers' nodes are made to each question. */
type Frame = Pick<Network, 'nodes' | 'links'> & {
  readonly consumers: readonly {
    readonly consumer: ConsumerDocument;
    readonly height_m: number;
    readonly returns: boolean;
  }[];
};

/** Sets out a system's circuits as a network, with the consumers drawing as asked. */
export function compileNetwork(inputs: FlowInputs, draws: readonly Draw[]): Network {
  const frame = frameOf(inputs);
  const draw = new Map(draws.map((each) => [each.consumer, each]));
  return {
    fluid: inputs.fluid,
    ambientAbs_Pa: inputs.state.ambientAbs_Pa,
    gravity_mPerS2: inputs.state.gravity.magnitude_mPerS2,
    nodes: [
      ...frame.nodes,
      ...frame.consumers.flatMap(({ consumer, height_m, returns }): NetworkNode[] => {
        const asked = draw.get(consumer.id);
        return [
          {
            id: inletNode(consumer.id),
            name: consumer.name,
            height_m,
            ...(asked?.hold_Pa === undefined ? {} : { fixedGauge_Pa: asked.hold_Pa }),
            ...(asked?.outflow_m3PerS === undefined ? {} : { outflow_m3PerS: asked.outflow_m3PerS }),
          },
          ...(returns
            ? [
                {
                  id: outletNode(consumer.id),
                  name: `${consumer.name}, return`,
                  height_m,
                  outflow_m3PerS: asked ? -returned_m3PerS(consumer) : 0,
                },
              ]
            : []),
        ];
      }),
    ],
    links: frame.links,
  };
}

/** The same network with its pumps at other voltages; all else in it stays the very same. */
export function atVolts(network: Network, inputs: FlowInputs, volts: ReadonlyMap<string, number>): Network {
  if (volts.size === 0) return network;
  const pumps = new Map(
    inputs.system.components.flatMap((part) =>
      part.kind === 'pump' && volts.has(part.id) ? [[part.id, part] as const] : [],
    ),
  );
  return {
    ...network,
    links: network.links.map((link) => {
      const pump = pumps.get(link.id);
      return pump ? { ...link, elements: pumpElements(pump, hydraulicsOf({ ...inputs, volts })) } : link;
    }),
  };
}

/** Charts and duties ask the same network many times. */
const frameOf: (inputs: FlowInputs) => Frame = derived((inputs: FlowInputs) => {
  const { system, levels, state } = inputs;
  const { gravity } = state;
  const positions = partPositions(system, levels);
  const height = (id: string): number => dot(gravity.up, positions.get(id) ?? [0, 0, 0]);
  const lines = feedLines(system);
  const touched = new Set([
    ...lines.flatMap(({ from, to }) => [from.item, to.item]),
    ...system.tanks.map(({ id }) => id),
  ]);
  const joined = new Set(lines.flatMap(({ from, to }) => [endKey(from), endKey(to)]));
  const sunk = sunkParts(inputs);
  /** Of what is sunk in the tank: that of the inlet. */
  const heightOf = (id: string): number => {
    const pickup = sunk.get(id);
    const level = pickup && levels.find(({ tank }) => tank.pickups.includes(pickup));
    return level ? dot(gravity.up, inVehicle(level.tank, pickup.inlet.point_m)) : height(id);
  };
  const air = airCircuits(inputs, touched);
  return {
    nodes: [
      ...levels.flatMap((level) => tankNodes(level, gravity.up)),
      ...levels.flatMap(({ tank }) =>
        tank.pickups
          .filter(({ document }) => touched.has(document.id))
          .map(({ document }): NetworkNode => ({
            id: endKey({ item: document.id, end: 'out' }),
            name: document.name,
            height_m: heightOf(document.id),
          })),
      ),
      ...levels.flatMap(({ tank }) =>
        tank.ports
          .filter(({ document }) => touched.has(document.id))
          .map(({ document }): NetworkNode => ({
            id: endKey({ item: document.id, end: 'in' }),
            name: document.name,
            height_m: height(document.id),
          })),
      ),
      ...system.components
        .filter(({ id }) => touched.has(id))
        .flatMap((part) => componentNodes(part, heightOf(part.id))),
      ...air.nodes,
    ],
    consumers: system.consumers
      .filter(({ id }) => touched.has(id))
      .map((consumer) => ({ consumer, height_m: height(consumer.id), returns: joined.has(outletNode(consumer.id)) })),
    links: [
      ...levels.flatMap((level) => tankLinks(level, inputs, touched, sunk)),
      ...system.components.filter(({ id }) => touched.has(id)).flatMap((part) => componentLinks(part, inputs)),
      ...lines.map((line): NetworkLink => ({
        id: line.id,
        name: line.name,
        from: endKey(line.from),
        to: endKey(line.to),
        elements: [...lineElements(line, inputs), ...tubeAfter(line, sunk)],
      })),
      ...letsInto(inputs, sunk, joined),
      ...air.links,
    ],
  };
});

/**
 * What stands in the liquid with the pickup that it hangs on, that pickup itself among them. What the tube from the
 * lid costs comes behind the last of them then, and nothing is lifted.
 */
export function sunkParts({ system, levels }: Pick<FlowInputs, 'system' | 'levels'>): Map<string, PickupModel> {
  const pickups = new Map(
    levels.flatMap(({ tank }) => tank.pickups.map((pickup) => [pickup.document.id, pickup] as const)),
  );
  return new Map(
    [...hungParts(system)].flatMap(([part, id]) => {
      const pickup = pickups.get(id);
      return pickup ? ([part, id] as const).map((each) => [each, pickup] as const) : [];
    }),
  );
}

/** The tube of the pickup that sunk parts hang on, with the line that leaves the last of them. */
function tubeAfter({ from, to }: LineDocument, sunk: ReadonlyMap<string, PickupModel>): LinkElement[] {
  if (sunk.has(from.item) && sunk.has(to.item)) return [];
  const pickup = [from, to].flatMap(({ item, end }) => (end === 'out' ? (sunk.get(item) ?? []) : []))[0];
  return pickup
    ? [
        {
          kind: 'line',
          bore_m: pickup.document.bore_m.value,
          length_m: pickup.tubeLength_m,
          roughness_m: ROUGHNESS['drawn-tube'].roughness_m,
          fittings: [],
        },
      ]
    : [];
}

/** Side ends of sunk parts without a line: what they let back comes out in the tank, where they hang. */
function letsInto(
  inputs: FlowInputs,
  sunk: ReadonlyMap<string, PickupModel>,
  joined: ReadonlySet<string>,
): NetworkLink[] {
  return inputs.system.components.flatMap((part): NetworkLink[] => {
    const pickup = sunk.get(part.id);
    const level = pickup && inputs.levels.find(({ tank }) => tank.pickups.includes(pickup));
    const side = endKey({ item: part.id, end: 'side' });
    if (!level || !('bore_m' in part) || !endsOfComponent(part).includes('side') || joined.has(side)) return [];
    const bore_m = part.bore_m.value;
    return [
      {
        id: `${part.id}:mouth`,
        name: part.name,
        from: side,
        to: ullageNode(level.tank.document.id),
        elements: outInto(level, pickup.inlet.point_m, { bore_m, length_m: 0 }, inputs),
      },
    ];
  });
}

/** Lines that air moves in: what leads on from vents. */
const airLines = ({ lines }: Circuits): LineDocument[] =>
  lines.filter(({ purpose }) => purpose === 'vent' || purpose === 'overflow');

/**
 * What leads on from vents, as a network of air: lines, valves, filters and
 * caps on them, tees that join the vents of two tanks, and where it all comes
 * to the open: an outlet, or an end with nothing on it.
 */
function airCircuits(inputs: FlowInputs, wet: ReadonlySet<string>): Pick<Network, 'nodes' | 'links'> {
  const { system, levels, state } = inputs;
  const { gravity } = state;
  const lines = airLines(system).filter(({ from, to }) => !wet.has(from.item) && !wet.has(to.item));
  if (lines.length === 0) return { nodes: [], links: [] };
  const air = airState(state.fuelTemperature_K, inputs.state.ambientAbs_Pa);
  const touched = new Set(lines.flatMap(({ from, to }) => [from.item, to.item]));
  const joined = new Set(lines.flatMap(({ from, to }) => [endKey(from), endKey(to)]));
  const parts = system.components.filter(({ id }) => touched.has(id));
  const ports = levels.flatMap((level) =>
    level.tank.ports.filter(({ document }) => touched.has(document.id)).map((port) => ({ level, port })),
  );
  const plugged = new Set(
    parts.flatMap((part) => part.ends.flatMap((end) => (end.plugged ? [endKey({ item: part.id, end: end.end })] : []))),
  );
  const open = parts
    .flatMap((part) =>
      kindOf(part).isOpenToAir ? [] : endsOfComponent(part).map((end) => endKey({ item: part.id, end })),
    )
    .filter((end) => !joined.has(end) && !plugged.has(end));
  // Consumers and pickups take no air in: a line that leads to one ends blind.
  const known = new Set([...parts.map(({ id }) => id), ...ports.map(({ port }) => port.document.id)]);
  return {
    nodes: [
      { id: OPEN_AIR, name: 'open air', height_m: 0, fixedGauge_Pa: 0 },
      ...ports.map(({ level, port }): NetworkNode => ({
        id: endKey({ item: port.document.id, end: 'in' }),
        name: port.document.name,
        height_m: surfaceHeight_m(level, gravity.up),
      })),
      ...parts.flatMap((part) => blowing(part, componentNodes(part, 0))),
    ],
    links: [
      ...ports.map(({ level, port: { document, point_m } }): NetworkLink => ({
        id: document.id,
        name: document.name,
        from: endKey({ item: document.id, end: 'in' }),
        to: ullageNode(level.tank.document.id),
        air,
        elements:
          dot(level.up, point_m) < level.offset_m
            ? [{ kind: 'closed' }]
            : [{ kind: 'vent', bore_m: document.bore_m.value, length_m: document.length_m.value, air }],
      })),
      ...parts.flatMap((part) => componentLinks(part, inputs)).map((link): NetworkLink => ({ ...link, air })),
      ...lines
        .filter(({ from, to }) => known.has(from.item) && known.has(to.item))
        .map((line): NetworkLink => ({
          id: line.id,
          name: line.name,
          from: endKey(line.from),
          to: endKey(line.to),
          air,
          elements: [
            { kind: 'vent', bore_m: line.bore_m.value, length_m: line.length_m.value, air },
            ...(line.fittings.length > 0
              ? [
                  {
                    kind: 'line',
                    bore_m: line.bore_m.value,
                    length_m: 0,
                    roughness_m: 0,
                    fittings: line.fittings.map(({ fitting, count }) => fittingLoss(fitting, count, inputs)),
                  } as const,
                ]
              : []),
          ],
        })),
      ...open.map((end): NetworkLink => ({
        id: `${end}:open`,
        name: 'open end',
        from: OPEN_AIR,
        to: end,
        air,
        elements: [{ kind: 'open' }],
      })),
    ],
  };
}

/**
 * How air comes to a tank: freely; not, since something on its vent line is shut, which; or by no vent at all that is
 * over the liquid.
 */
export type AirWay =
  | { readonly way: 'open' }
  | { readonly way: 'shut'; readonly by: string }
  | { readonly way: 'sealed' }
  | { readonly way: 'flooded' }
  | { readonly way: 'none' };

/** How air comes to a tank: the links that are open to it, and what shuts it off. */
export function airWay(inputs: FlowInputs, level: TankLevel): AirWay {
  const { nodes, links } = compileNetwork(inputs, []);
  const air = links.filter((link) => link.air);
  const isClosed = ({ elements }: NetworkLink): boolean => elements.some(({ kind }) => kind === 'closed');
  const at = reached(
    [ullageNode(level.tank.document.id)],
    air.filter((link) => !isClosed(link)).map(({ from, to }) => [from, to] as const),
  );
  if (nodes.some(({ id, fixedGauge_Pa }) => fixedGauge_Pa !== undefined && at.has(id))) return { way: 'open' };
  const vents = level.tank.ports.filter(({ document }) => letsAirIn(document));
  if (vents.length === 0) return { way: 'none' };
  const stops = air.find(
    (link) =>
      isClosed(link) &&
      (at.has(link.from) || at.has(link.to)) &&
      !vents.some(({ document: { id } }) => link.id === id || link.id.startsWith(`${id}:cap`)),
  );
  if (stops) return { way: 'shut', by: stops.name };
  return vents.every(({ point_m }) => dot(level.up, point_m) < level.offset_m) ? { way: 'flooded' } : { way: 'sealed' };
}

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

function tankNodes(level: TankLevel, up: Vec3): NetworkNode[] {
  const { id, name } = level.tank.document;
  // Air weighs next to nothing, so the open air is set at the surface's height.
  const height_m = surfaceHeight_m(level, up);
  return [
    { id: airNode(id), name: 'open air', height_m, fixedGauge_Pa: 0 },
    { id: ullageNode(id), name: `${name}, above the liquid`, height_m, still: true },
  ];
}

function tankLinks(
  level: TankLevel,
  inputs: FlowInputs,
  touched: ReadonlySet<string>,
  sunk: ReadonlyMap<string, PickupModel>,
): NetworkLink[] {
  const { tank, up, offset_m } = level;
  const ullage = ullageNode(tank.document.id);
  const air = airState(inputs.state.fuelTemperature_K, inputs.state.ambientAbs_Pa);
  const piped = new Set(airLines(inputs.system).flatMap(({ from, to }) => [from.item, to.item]));
  // A vent with a line on it is open where that line is.
  const vents = tank.ports
    .filter(({ document }) => document.role === 'vent' && !piped.has(document.id))
    .map(({ document, point_m }): NetworkLink => ({
      id: document.id,
      name: document.name,
      from: airNode(tank.document.id),
      to: ullage,
      air,
      elements:
        dot(up, point_m) < offset_m
          ? [{ kind: 'closed' }]
          : [{ kind: 'vent', bore_m: document.bore_m.value, length_m: document.length_m.value, air }],
    }));
  const caps = tank.ports
    .filter(({ document }) => document.role === 'filler')
    .flatMap((port) => capLinks(port, level, air));
  const pickups = tank.pickups
    .filter(({ document }) => touched.has(document.id))
    .map((pickup): NetworkLink => ({
      id: `${pickup.document.id}:tube`,
      name: pickup.document.name,
      from: ullage,
      to: endKey({ item: pickup.document.id, end: 'out' }),
      elements: isStarved(level, pickup)
        ? [{ kind: 'closed' }]
        : [pickupElement(pickup, inputs, sunk.has(pickup.document.id) ? 0 : pickup.tubeLength_m)],
    }));
  const inlets = tank.ports
    .filter(({ document }) => document.role !== 'vent' && touched.has(document.id))
    .map((port): NetworkLink => ({
      id: `${port.document.id}:mouth`,
      name: port.document.name,
      from: endKey({ item: port.document.id, end: 'in' }),
      to: ullage,
      elements: mouthElements(level, port, inputs),
    }));
  return [...vents, ...caps, ...pickups, ...inlets];
}

/** Air through the cap of a filler, as it stands on its neck. */
function capLinks({ document, point_m }: PortModel, { tank, up, offset_m }: TankLevel, air: AirState): NetworkLink[] {
  const ways = capWays(document.cap);
  const [outside, inside] = [airNode(tank.document.id), ullageNode(tank.document.id)];
  const link = (way: CapWay | undefined, suffix: string, from: string, to: string): NetworkLink[] =>
    way
      ? [
          {
            id: `${document.id}:${suffix}`,
            name: `cap of ${document.name}`,
            from,
            to,
            air,
            elements:
              dot(up, point_m) < offset_m
                ? [{ kind: 'closed' }]
                : [
                    { kind: 'vent', bore_m: way.hole_m, length_m: CAP_M, air },
                    ...(isOneWay ? [{ kind: 'check', opens_Pa: way.opens_Pa } as const] : []),
                  ],
          },
        ]
      : [];
  const isOneWay = document.cap?.kind === 'in-only' || document.cap?.kind === 'both-ways';
  // A plain hole is one way for both.
  return isOneWay
    ? [...link(ways.in, 'cap-in', outside, inside), ...link(ways.out, 'cap-out', inside, outside)]
    : link(ways.in, 'cap', outside, inside);
}
/** Common practice: a cap's hole goes through so much [m]. */
const CAP_M = 0.003;

/**
 * Where a line lets out into a tank: under the surface it is joined to the
 * liquid both ways; over it the liquid falls, and what it falls is lost and
 * cannot come back.
 */
function mouthElements(level: TankLevel, { document, point_m }: PortModel, inputs: FlowInputs): LinkElement[] {
  const length_m = document.drop_m?.value ?? 0;
  const mouth: Vec3 = [point_m[0], point_m[1], point_m[2] - length_m];
  return outInto(level, mouth, { bore_m: document.bore_m.value, length_m }, inputs);
}

/** The same of a mouth anywhere in a tank, with the tube that leads to it. */
function outInto(
  { up, offset_m }: TankLevel,
  mouth: Vec3,
  tube: { readonly bore_m: number; readonly length_m: number },
  inputs: FlowInputs,
): LinkElement[] {
  const over_m = dot(up, mouth) - offset_m;
  const way: LinkElement = {
    kind: 'line',
    ...tube,
    roughness_m: ROUGHNESS['drawn-tube'].roughness_m,
    fittings: [fittingLoss('exit', 1, inputs)],
  };
  return over_m <= 0
    ? [way]
    : [way, { kind: 'check', opens_Pa: inputs.fluid.density_kgPerM3 * inputs.state.gravity.magnitude_mPerS2 * over_m }];
}

const fittingLoss = (key: FittingKey, count: number, { system }: FlowInputs): FittingLoss => ({
  ...fittingKs(key, system.practice.losses),
  count,
});

const pickupElement = ({ document }: PickupModel, inputs: FlowInputs, tubeLength_m: number): LinkElement => ({
  kind: 'line',
  bore_m: document.bore_m.value,
  length_m: tubeLength_m,
  roughness_m: ROUGHNESS['drawn-tube'].roughness_m,
  fittings: [fittingLoss(document.kind === 'bottom-outlet' ? 'entrance-sharp' : 'entrance-inward', 1, inputs)],
});

function lineElements(line: LineDocument, inputs: FlowInputs): LinkElement[] {
  const fittings = line.fittings.map(({ fitting, count }) => fittingLoss(fitting, count, inputs));
  // Parts screwed together lose a little at the joint, as a union does.
  const costsNothing = line.length_m.value === 0 && fittings.every(({ count }) => count === 0);
  return [
    {
      kind: 'line',
      bore_m: line.bore_m.value,
      length_m: line.length_m.value,
      roughness_m: ROUGHNESS[line.wall].roughness_m,
      fittings: costsNothing ? [fittingLoss('swivel', 1, inputs)] : fittings,
    },
    ...[...line.from.adapters, ...line.to.adapters].map((key) => adapterElement(key, line.bore_m.value, inputs)),
  ];
}

/** An adapter: its narrowing and widening by Borda and Carnot, on its own bore, and its turn. */
function adapterElement(key: string, lineBore_m: number, inputs: FlowInputs): LinkElement {
  const { bore_m, form } = adapterRow(key)!;
  const share = Math.min(1, bore_m / lineBore_m) ** 2;
  const turn =
    form === '90' ? [fittingLoss('elbow-90', 1, inputs)] : form === '45' ? [fittingLoss('elbow-45', 1, inputs)] : [];
  return {
    kind: 'line',
    bore_m,
    length_m: 0,
    roughness_m: 0,
    fittings: [{ k1: 160, kInfinity: 0.5 * (1 - share) + (1 - share) ** 2, sized: false, count: 1 }, ...turn],
  };
}

function componentNodes(part: ComponentDocument, height_m: number): NetworkNode[] {
  const { ends, isOpenToAir, hasMiddle } = kindOf(part);
  if (isOpenToAir) return [{ id: inletNode(part.id), name: part.name, height_m, fixedGauge_Pa: 0 }];
  return [
    ...endsOfComponent(part).map((end) => ({
      id: endKey({ item: part.id, end }),
      name: `${part.name}, ${ends[end]}`,
      height_m,
    })),
    ...(hasMiddle ? [{ id: linkName(part, MIDDLE), name: part.name, height_m }] : []),
  ];
}

/** With the gas that comes out of it all the time. */
const blowing = (part: ComponentDocument, nodes: NetworkNode[]): NetworkNode[] => {
  const blows = kindOf(part).blows_m3PerS?.(part);
  return blows === undefined ? nodes : nodes.map((node) => ({ ...node, outflow_m3PerS: -blows }));
};

const componentLinks = (part: ComponentDocument, inputs: FlowInputs): NetworkLink[] =>
  kindOf(part)
    .links(part, hydraulicsOf(inputs))
    .map(({ suffix, from, to, elements }) => ({
      id: linkName(part, suffix),
      name: part.name,
      from: linkName(part, from),
      to: linkName(part, to),
      elements,
    }));

const hydraulicsOf = (inputs: FlowInputs): Hydraulics => ({
  fitting: (key, count) => fittingLoss(key, count, inputs),
  viscosity_PaS: inputs.fluid.viscosity_PaS,
  volts: (pump) => pumpVolts(inputs, pump),
  tank: (id) => {
    const level = inputs.levels.find(({ tank }) => tank.document.id === id);
    return level && { volume_m3: level.volume_m3, gross_m3: level.tank.gross_m3 };
  },
});

/** Of the rated voltage: what a pump is driven by. */
export const drive_ratio = (inputs: Pick<FlowInputs, 'state' | 'volts'>, pump: PumpDocument): number =>
  driveRatio(pump, pumpVolts(inputs, pump.id));

/** At a pump's terminals [V]. */
export const pumpVolts = ({ state, volts }: Pick<FlowInputs, 'state' | 'volts'>, id: string): number =>
  volts?.get(id) ?? state.supply_V;
