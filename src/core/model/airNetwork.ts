import { standsShut, ventElements } from './vents';
import { airState, type AirState } from '../fluids';
import { dot } from '../geometry';
import type { Network, NetworkLink, NetworkNode } from '../network';
import { endsOfComponent, kindOf } from '../components';
import { capWays, type CapWay } from '../plan/caps';
import { endKey, type Circuits } from '../plan/circuits';
import type { PortModel } from './compileTank';
import type { LineDocument } from '../plan/schema';
import { blowing, componentLinks, componentNodes, fittingLoss } from './networkElements';
import { OPEN_AIR, airNode, surfaceHeight_m, ullageNode, type FlowInputs, type TankLevel } from './networkParts';

/** Lines that air moves in: what leads on from vents. */
export const airLines = ({ lines }: Circuits): LineDocument[] =>
  lines.filter(({ purpose }) => purpose === 'vent' || purpose === 'overflow');

/**
 * What leads on from vents, as a network of air: lines, valves, filters and
 * caps on them, tees that join the vents of two tanks, and where it all comes
 * to the open: an outlet, or an end with nothing on it.
 */
export function airCircuits(inputs: FlowInputs, wet: ReadonlySet<string>): Pick<Network, 'nodes' | 'links'> {
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
          dot(level.up, point_m) < level.offset_m || standsShut(document, inputs)
            ? [{ kind: 'closed' }]
            : ventElements(document, air),
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

/** Air through the cap of a filler, as it stands on its neck. */
export function capLinks(
  { document, point_m }: PortModel,
  { tank, up, offset_m }: TankLevel,
  air: AirState,
): NetworkLink[] {
  const passes = capWays(document.cap);
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
    ? [...link(passes.in, 'cap-in', outside, inside), ...link(passes.out, 'cap-out', inside, outside)]
    : link(passes.in, 'cap', outside, inside);
}

/** Common practice: a cap's hole goes through so much [m]. */
const CAP_M = 0.003;
