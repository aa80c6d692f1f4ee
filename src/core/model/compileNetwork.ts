import { standsShut, ventElements } from './vents';
import { letsAirIn } from '../plan/caps';
import { reached } from '../reached';
import { derived } from '../memo';
import { airState } from '../fluids';
import { dot, type Vec3 } from '../geometry';
import type { LinkElement, Network, NetworkLink, NetworkNode } from '../network';
import { ROUGHNESS } from '../reference/losses';
import { endsOfComponent } from '../components';
import { endKey, hungParts } from '../plan/circuits';
import { inVehicle, type PickupModel } from './compileTank';
import type { ConsumerDocument, LineDocument } from '../plan/schema';
import { airCircuits, airLines, capLinks } from './airNetwork';
import { componentLinks, componentNodes, lineElements, mouthElements, outInto, pickupElement } from './networkElements';
import {
  airNode,
  feedLines,
  inletNode,
  isStarved,
  outletNode,
  partPositions,
  returned_m3PerS,
  surfaceHeight_m,
  ullageNode,
  type Draw,
  type FlowInputs,
  type TankLevel,
} from './networkParts';

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
        dot(up, point_m) < offset_m || standsShut(document, inputs)
          ? [{ kind: 'closed' }]
          : ventElements(document, air),
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

/**
 * How air comes to a tank: freely; not, since something on its vent line is shut, or the vent's own valve at this lean,
 * which; or by no vent at all that is over the liquid.
 */
export type AirWay =
  | { readonly way: 'open' }
  | { readonly way: 'shut'; readonly by: string }
  | { readonly way: 'leaning'; readonly by: string }
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
  const dry = vents.filter(({ point_m }) => dot(level.up, point_m) >= level.offset_m);
  if (dry.length === 0) return { way: 'flooded' };
  const leaning = dry.find(({ document }) => standsShut(document, inputs));
  return leaning ? { way: 'leaning', by: leaning.document.name } : { way: 'sealed' };
}
