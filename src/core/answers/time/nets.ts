import { airState } from '../../fluids';
import { add, dot, OUTWARD, scale, type Vec3 } from '../../geometry';
import { kindOf } from '../../components';
import { compileNetwork, sunkParts } from '../../model/compileNetwork';
import { fittingLoss, hydraulicsOf, pickupElement } from '../../model/networkElements';
import {
  airNode,
  inletNode,
  outletNode,
  partPositions,
  ullageNode,
  type FlowInputs,
  type TankLevel,
} from '../../model/networkParts';
import type { PickupModel, PortModel, TankModel } from '../../model/compileTank';
import {
  graphOf,
  graphShape,
  withoutIslands,
  type GraphLink,
  type GraphNode,
  type Joined,
  type Network,
  type LinkElement,
  type NetworkCode,
  type NetworkLink,
  type NetworkNode,
} from '../../network';
import { failure, success, type Outcome } from '../../outcome';
import { mouthPoint } from '../../model/portMouth';
import { screenElements } from '../../model/vents';
import { capWays } from '../../plan/caps';
import { joinedTo } from '../../plan/circuits';
import { reached } from '../../reached';
import { dampedLaw, SPILL_DAMPED } from './laws';
import type { Account, End, Net, Place, Stretch } from './net';
import { ventWay } from './ventWay';

/** Height of a point of a tank against effective gravity, over the vehicle's datum. */
export function heightIn(tank: TankModel, up: { readonly tank: Vec3; readonly vehicle: Vec3 }, point_m: Vec3): number {
  const { x_m, y_m, z_m } = tank.document.mounting;
  return dot(up.vehicle, [x_m.value, y_m.value, z_m.value]) + dot(up.tank, point_m);
}

/** So far down from the top of a filler's neck, which is taken to stand straight out of its face. */
export const neckPoint = ({ document, point_m }: PortModel, down_m: number): Vec3 =>
  add(point_m, scale(OUTWARD[document.face], document.length_m.value - down_m));

/** Everything that can flow in a stretch, in nets that know nothing of each other. */
export function netsOf(stretch: Stretch): Outcome<Net[], NetworkCode> {
  const nets: Net[] = [];
  const [first] = stretch.inputs;
  if (!first) return success(nets);
  const empty = filled(first, 'floor');
  const air = compileNetwork(empty, []);
  const fluids = [...new Set(stretch.inputs.map(({ fluid }) => fluid))];
  for (const fluid of fluids) {
    const isOwn = (tank: number): boolean => stretch.inputs[tank]!.fluid === fluid;
    const inputs = hungOn(
      stretch.inputs.find((each) => each.fluid === fluid)!,
      isOwn,
    );
    const made = split(liquidParts(inputs, stretch, air), inputs, 'liquid', stretch);
    if (!made.ok) return made;
    nets.push(...made.value.filter((net) => ownTank(net) === undefined || isOwn(ownTank(net)!)));
  }
  const made = split(airParts(empty, stretch, air), first, 'air', stretch);
  return made.ok ? success([...nets, ...made.value]) : made;
}

/** Of a system only the lines and parts that hang on some of its tanks. */
function hungOn(inputs: FlowInputs, isOwn: (tank: number) => boolean): FlowInputs {
  const { system, levels } = inputs;
  if (levels.every((_, t) => isOwn(t))) return inputs;
  const own = levels.flatMap(({ tank: { document } }, t) => (isOwn(t) ? [...document.ports, ...document.pickups] : []));
  const joined = joinedTo(
    system,
    own.map(({ id }) => id),
  );
  return {
    ...inputs,
    system: {
      ...system,
      lines: system.lines.filter(({ from }) => joined.has(from.item)),
      components: system.components.filter(({ id }) => joined.has(id)),
    },
  };
}

const ownTank = ({ ends }: Net): number | undefined =>
  ends.flatMap(({ place }) => ('tank' in place ? [place.tank] : []))[0];

type Parts = {
  readonly nodes: readonly NetworkNode[];
  readonly links: readonly NetworkLink[];
  readonly ends: ReadonlyMap<string, { readonly place: Place; readonly account: Account }>;
  /** Consumers that take something, by the link that they take it by. */
  readonly takers: ReadonlyMap<string, string>;
};

/** As if every tank were so full that liquid comes to all of it, or so empty that air does. */
const filled = (inputs: FlowInputs, to: 'brim' | 'floor'): FlowInputs => ({
  ...inputs,
  levels: inputs.levels.map((level): TankLevel => ({ ...level, volume_m3: 0, offset_m: to === 'brim' ? 1e3 : -1e3 })),
});

const isAir = ({ air, elements }: NetworkLink): boolean =>
  air !== undefined || elements.some(({ kind }) => kind === 'vent');

/** @param whole the network with all tanks empty */
function liquidParts(given: FlowInputs, stretch: Stretch, whole: Network): Parts {
  const inputs = filled(given, 'brim');
  const { levels, state, system } = inputs;
  const up = state.gravity.up;
  const { nodes, links } = compileNetwork(inputs, []);
  const sunk = sunkParts(inputs);
  const ends = new Map<string, { readonly place: Place; readonly account: Account }>();
  const more: NetworkNode[] = [];
  const end = (id: string, name: string, place: Place, account: Account): string => {
    ends.set(id, { place, account });
    more.push({ id, name, height_m: 0, fixedGauge_Pa: 0 });
    return id;
  };
  const pickups = new Map<string, { readonly pickup: PickupModel; readonly t: number }>(
    levels.flatMap(({ tank }, t) =>
      tank.pickups.map((pickup) => [`${pickup.document.id}:tube`, { pickup, t }] as const),
    ),
  );
  const mouths = mouthsOf(inputs, sunk);
  const own: NetworkLink[] = links
    .filter((link) => !isAir(link))
    .flatMap((link): NetworkLink[] => {
      const tube = pickups.get(link.id);
      if (tube) {
        const drawing = stretch.pickups.get(tube.pickup.document.id) ?? 'liquid';
        if (drawing === 'empty') return [];
        const { id } = tube.pickup.document;
        const isDry = drawing === 'air';
        const from = end(
          `${id}:inlet`,
          tube.pickup.document.name,
          isDry
            ? { at: 'gas', tank: tube.t, height_m: starvingHeight(levels[tube.t]!, up, tube.pickup) }
            : { at: 'liquid', tank: tube.t },
          isDry ? { of: 'line', tank: tube.t, pickup: id } : { of: 'tank', tank: tube.t },
        );
        const bare = sunk.has(id) ? 0 : tube.pickup.tubeLength_m;
        return [{ ...link, from, elements: [pickupElement(tube.pickup, inputs, bare)] }];
      }
      const mouth = mouths.get(link.id);
      if (mouth) {
        const to = end(
          `${link.id}:into`,
          link.name,
          { at: 'mouth', tank: mouth.tank, height_m: mouth.height_m },
          { of: 'tank', tank: mouth.tank },
        );
        const elements = link.elements.filter(({ kind }) => kind !== 'check');
        return [{ ...link, to, elements: stretch.drowned.has(link.id) ? elements : [...elements, { kind: 'check' }] }];
      }
      return [link];
    });
  const floats = system.components
    .filter((part) => part.kind === 'float-valve')
    .map((part) => {
      const tank = { volume_m3: stretch.floats.has(part.id) ? 1 : 0, gross_m3: 1 };
      return [part.id, kindOf(part).links(part, { ...hydraulicsOf(inputs), tank: () => tank })[0]!.elements] as const;
    });
  const valves = new Map(floats);
  const takers = new Map<string, string>();
  const byId = new Map(nodes.map((node) => [node.id, node]));
  const taken = system.consumers.flatMap((consumer): NetworkLink[] => {
    const most_m3PerS = stretch.takes_m3PerS.get(consumer.id) ?? 0;
    const inlet = byId.get(inletNode(consumer.id));
    if (!inlet || most_m3PerS === 0) return [];
    const id = `${consumer.id}:takes`;
    takers.set(id, consumer.id);
    const to = end(
      `${consumer.id}:needs`,
      consumer.name,
      { at: 'open', gauge_Pa: consumer.neededPressure_Pa.value, height_m: inlet.height_m },
      stretch.over.has(consumer.id)
        ? { of: 'spilt', id: stretch.over.get(consumer.id)! }
        : { of: 'consumer', id: consumer.id },
    );
    return [
      { id, name: consumer.name, from: inlet.id, to, elements: [{ kind: 'check' }, { kind: 'limit', most_m3PerS }] },
    ];
  });
  const open = new Map(
    system.components.filter((part) => kindOf(part).isOpenToAir).map((part) => [inletNode(part.id), part]),
  );
  const air = { ...whole, links: whole.links.filter(({ id }) => !stretch.blocked.has(id)) };
  const spilling = levels.flatMap(({ tank }, t) =>
    tank.ports.flatMap((port): NetworkLink[] => {
      const { id, name } = port.document;
      if (!stretch.covered.has(id) || stretch.blocked.has(id)) return [];
      const out = wayOut(inputs, stretch, port, t, air);
      if (!out) return [];
      const from = end(`${id}:brink`, name, { at: 'liquid', tank: t }, { of: 'tank', tank: t });
      const to =
        out.into === undefined
          ? end(`${id}:over`, name, { at: 'open', gauge_Pa: 0, height_m: out.height_m }, { of: 'spilt', id: out.sink })
          : end(
              `${id}:over`,
              name,
              { at: 'mouth', tank: out.into, height_m: out.height_m },
              { of: 'tank', tank: out.into },
            );
      return [
        { id: `${id}:spill`, name, from, to, elements: [...out.elements, { kind: 'check', opens_Pa: out.opens_Pa }] },
      ];
    }),
  );
  return {
    nodes: [
      ...nodes.filter(({ id }) => !open.has(id)).map(({ id, name, height_m }): NetworkNode => ({ id, name, height_m })),
      ...[...open].flatMap(([id, part]): NetworkNode[] => {
        const node = byId.get(id);
        if (!node) return [];
        ends.set(id, {
          place: { at: 'open', gauge_Pa: 0, height_m: node.height_m },
          account: { of: 'spilt', id: part.id },
        });
        return [{ ...node, fixedGauge_Pa: 0 }];
      }),
      ...more,
    ],
    links: [...own.map((link) => ({ ...link, elements: valves.get(link.id) ?? link.elements })), ...taken, ...spilling],
    ends,
    takers,
  };
}

/** The lowest surface at which a pickup still draws liquid, over the vehicle's datum. */
function starvingHeight({ tank, up }: TankLevel, vehicle: Vec3, { inlet }: PickupModel): number {
  return heightIn(tank, { tank: up, vehicle }, inlet.point_m) + inlet.submergence_m;
}

export type Mouth = { readonly tank: number; readonly height_m: number };

/** Where lines let out into tanks, by the links that do. */
export function mouthsOf(inputs: FlowInputs, sunk = sunkParts(inputs)): Map<string, Mouth> {
  const vehicle = inputs.state.gravity.up;
  const mouths = new Map<string, Mouth>();
  inputs.levels.forEach(({ tank, up }, t) => {
    const at = (point_m: Vec3): Mouth => ({ tank: t, height_m: heightIn(tank, { tank: up, vehicle }, point_m) });
    for (const port of tank.ports) mouths.set(`${port.document.id}:mouth`, at(mouthPoint(port)));
    for (const [part, pickup] of sunk)
      if (tank.pickups.includes(pickup)) mouths.set(`${part}:mouth`, at(pickup.inlet.point_m));
  });
  return mouths;
}

type WayOut = {
  readonly elements: readonly LinkElement[];
  readonly opens_Pa: number;
  readonly height_m: number;
  /** Where it comes out: a tank, or the open; and what is then said to have spilt. */
  readonly into?: number;
  readonly sink: string;
};

/** How liquid that covers a vent or filler gets out by it; not at all where it is shut. */
function wayOut(
  inputs: FlowInputs,
  stretch: Stretch,
  port: PortModel,
  t: number,
  air: Pick<Network, 'nodes' | 'links'>,
): WayOut | undefined {
  const { document, point_m } = port;
  const { tank, up } = inputs.levels[t]!;
  const at = (point: Vec3): number => heightIn(tank, { tank: up, vehicle: inputs.state.gravity.up }, point);
  const hole = (bore_m: number, length_m: number): LinkElement => ({
    kind: 'line',
    bore_m,
    length_m,
    roughness_m: 0,
    fittings: [fittingLoss('entrance-sharp', 1, inputs), fittingLoss('exit', 1, inputs)],
  });
  if (document.role === 'filler') {
    const spout_m = stretch.uncapped.get(document.id);
    const height_m = Math.max(at(point_m), at(neckPoint(port, 0)));
    if (spout_m !== undefined)
      return {
        elements: [hole(besides_m(document.bore_m.value, spout_m), document.length_m.value)],
        opens_Pa: 0,
        height_m,
        sink: document.id,
      };
    const { out } = capWays(document.cap);
    return out && { elements: [hole(out.hole_m, 0.003)], opens_Pa: out.opens_Pa, height_m, sink: document.id };
  }
  const led = ventWay(air, inputs, document.id);
  if (led === 'nowhere') return undefined;
  if (led) {
    const positions = partPositions(inputs.system, inputs.levels);
    const past = led.past.flatMap((id) => {
      const point = positions.get(id);
      return point ? [dot(inputs.state.gravity.up, point)] : [];
    });
    return {
      elements: [hole(document.bore_m.value, document.length_m.value), ...screenElements(document), ...led.elements],
      opens_Pa: led.opens_Pa,
      height_m: Math.max(at(point_m), ...past),
      ...(led.into === undefined ? {} : { into: led.into }),
      sink: led.ends,
    };
  }
  return {
    elements: [hole(document.bore_m.value, document.length_m.value), ...screenElements(document)],
    opens_Pa: 0,
    height_m: at(point_m),
    sink: document.id,
  };
}

/** Bore of a hole as wide as what a spout leaves open of a neck; a hair where it fills it. */
const besides_m = (bore_m: number, spout_m: number): number =>
  Math.max(1e-4, Math.sqrt(Math.max(0, bore_m ** 2 - spout_m ** 2)));

function airParts(inputs: FlowInputs, stretch: Stretch, { nodes, links }: Network): Parts {
  const { levels, state } = inputs;
  const air = airState(state.fuelTemperature_K, state.ambientAbs_Pa);
  const ends = new Map<string, { readonly place: Place; readonly account: Account }>();
  const more: NetworkNode[] = [];
  const end = (id: string, name: string, place: Place, account: Account): string => {
    if (!ends.has(id)) more.push({ id, name, height_m: 0, fixedGauge_Pa: 0 });
    ends.set(id, { place, account });
    return id;
  };
  const open = (link: string): string =>
    end(`${link}:air`, 'open air', { at: 'open', gauge_Pa: 0, height_m: 0 }, { of: 'outside' });
  const ports = new Map(
    levels.flatMap(({ tank, up }, t) => tank.ports.map((port) => [port.document.id, { port, tank, up, t }] as const)),
  );
  const given_ = new Map(nodes.map((node) => [node.id, node]));
  const ullages = new Map(levels.map(({ tank }, t) => [ullageNode(tank.document.id), t]));
  const own = [
    ...links.filter(isAir),
    ...[...stretch.uncapped].flatMap(([id, spout_m]): NetworkLink[] => {
      const found = ports.get(id);
      if (!found) return [];
      const { port, tank } = found;
      const bore_m = besides_m(port.document.bore_m.value, spout_m);
      return [
        {
          id: `${id}:neck`,
          name: port.document.name,
          from: airNode(tank.document.id),
          to: ullageNode(tank.document.id),
          air,
          elements: [{ kind: 'vent', bore_m, length_m: port.document.length_m.value, air }],
        },
      ];
    }),
  ].flatMap((link): NetworkLink[] => {
    const id = link.id.split(':')[0]!;
    const found = ports.get(id);
    if (stretch.blocked.has(id)) return [];
    if (found && stretch.uncapped.has(id) && link.id.includes(':cap')) return [];
    const isCovered = found !== undefined && stretch.covered.has(id);
    const tankEnd = (node: string, side: 'from' | 'to'): string | undefined => {
      const t = ullages.get(node);
      if (t === undefined) return given_.get(node)?.fixedGauge_Pa === undefined ? node : open(`${link.id}:${side}`);
      if (!isCovered || !found)
        return end(`${link.id}:${side}:ullage`, link.name, { at: 'ullage', tank: t }, { of: 'tank', tank: t });
      // Out by a vent that is under liquid goes liquid, no air.
      if (side === 'from') return undefined;
      const point = found.port.document.role === 'filler' ? mouthPoint(found.port) : found.port.point_m;
      const height_m = heightIn(found.tank, { tank: found.up, vehicle: state.gravity.up }, point);
      return end(`${link.id}:under`, link.name, { at: 'under', tank: t, height_m }, { of: 'tank', tank: t });
    };
    const from = tankEnd(link.from, 'from');
    const to = tankEnd(link.to, 'to');
    if (from === undefined || to === undefined) return [];
    return [
      {
        ...link,
        air: link.air ?? air,
        from,
        to,
        elements: isCovered ? [...link.elements, { kind: 'check' }] : link.elements,
      },
    ];
  });
  const used = new Set(own.flatMap(({ from, to }) => [from, to]));
  return {
    nodes: [
      ...nodes
        .filter(({ id, fixedGauge_Pa }) => used.has(id) && fixedGauge_Pa === undefined)
        .map(({ outflow_m3PerS, ...node }): NetworkNode => ({
          ...node,
          height_m: 0,
          ...(outflow_m3PerS !== undefined && stretch.blows ? { outflow_m3PerS } : {}),
        })),
      ...more,
    ],
    links: own,
    ends,
    takers: new Map(),
  };
}

/** Cuts what does not hang together apart: a given pressure joins nothing. */
function split(
  { nodes, links, ends, takers }: Parts,
  inputs: FlowInputs,
  medium: Net['medium'],
  stretch: Stretch,
): Outcome<Net[], NetworkCode> {
  const isOpen = (link: NetworkLink): boolean => link.elements.every(({ kind }) => kind !== 'closed');
  const free = new Set(nodes.filter(({ fixedGauge_Pa }) => fixedGauge_Pa === undefined).map(({ id }) => id));
  const byId = new Map(nodes.map((node) => [node.id, node]));
  const backs = new Set([...takers.values()].map(outletNode));
  const left = new Set(links.filter((link) => isOpen(link) && byId.has(link.from) && byId.has(link.to)));
  const between = [...left].filter(({ from, to }) => free.has(from) && free.has(to));
  const nets: Net[] = [];
  for (const first of left) {
    const inside = [first.from, first.to].filter((id) => free.has(id));
    const at = reached(
      inside,
      between.map(({ from, to }) => [from, to] as const),
    );
    const own = [...left].filter((link) => link === first || at.has(link.from) || at.has(link.to));
    for (const link of own) left.delete(link);
    const ids = new Set(own.flatMap(({ from, to }) => [from, to]));
    // With but one end, and nothing fed in, nothing moves in it.
    const isFed = [...ids].some((id) => byId.get(id)!.outflow_m3PerS || backs.has(id));
    if ([...ids].filter((id) => ends.has(id)).length < (isFed ? 1 : 2)) continue;
    const whole = withoutIslands({
      nodes: [...ids].map((id) => byId.get(id)!),
      links: own,
      fluid: inputs.fluid,
      ambientAbs_Pa: inputs.state.ambientAbs_Pa,
      gravity_mPerS2: inputs.state.gravity.magnitude_mPerS2,
    });
    const laid = graphOf(whole);
    if (!laid.ok) return laid;
    const net = netOf(laid.value, whole.nodes, { ends, takers }, inputs, medium, stretch);
    if (!net.ok) return net;
    nets.push(net.value);
  }
  return success(nets);
}

function netOf(
  {
    graph,
    joined,
  }: { readonly graph: { nodes: readonly GraphNode[]; links: readonly GraphLink[] }; joined: readonly Joined[] },
  nodes: readonly NetworkNode[],
  { ends, takers }: Pick<Parts, 'ends' | 'takers'>,
  inputs: FlowInputs,
  medium: Net['medium'],
  { damps_PaSPerM3 }: Stretch,
): Outcome<Net, NetworkCode> {
  const { consumers } = inputs.system;
  const links: GraphLink[] = [];
  for (const [l, link] of graph.links.entries()) {
    const damped = dampedTank(joined[l]!, nodes, ends);
    const share = medium === 'liquid' ? SPILL_DAMPED : 1;
    links.push(damped === undefined ? link : { ...link, law: dampedLaw(link.law, damps_PaSPerM3, damped, share) });
  }
  const nodeOf = new Map(nodes.map(({ id }, n) => [id, n]));
  const isRegulated = links.some(({ hold }) => hold !== undefined);
  const made = graph.nodes.map((node) => ({ ...node }));
  const shape = isRegulated ? undefined : graphShape({ nodes: made, links });
  if (shape && !shape.ok) return failure(shape.error.code, shape.error.at, shape.error.detail);
  return success({
    medium,
    fluid: inputs.fluid,
    weight_PaPerM: medium === 'air' ? 0 : inputs.fluid.density_kgPerM3 * inputs.state.gravity.magnitude_mPerS2,
    nodes: made,
    links,
    joined,
    ends: nodes.flatMap(({ id }, node): End[] => {
      const end = ends.get(id);
      return end
        ? joined.flatMap(({ from, to }, link) => (from === node || to === node ? [{ ...end, node, link }] : []))
        : [];
    }),
    takers: joined.flatMap(({ link }, l) => {
      const id = takers.get(link.id);
      return id === undefined ? [] : [{ consumer: consumers.findIndex((each) => each.id === id), link: l }];
    }),
    givers: [...takers.values()].flatMap((id) => {
      const node = nodeOf.get(outletNode(id));
      return node === undefined ? [] : [{ consumer: consumers.findIndex((each) => each.id === id), node }];
    }),
    isRegulated,
    shape: shape?.value,
  });
}

/** The tank of a port under liquid by which a link leads. */
function dampedTank(
  { link, from, to }: Joined,
  nodes: readonly NetworkNode[],
  ends: Parts['ends'],
): number | undefined {
  const places = [from, to].flatMap((n) => ends.get(nodes[n]!.id)?.place ?? []);
  if (!link.id.endsWith(':spill') && places.every(({ at }) => at !== 'under')) return undefined;
  return places.flatMap((place) => ('tank' in place ? [place.tank] : []))[0];
}
