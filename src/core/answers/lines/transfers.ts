import {
  endKey,
  feedPath,
  fluidAt,
  itemsOf,
  joinedTo,
  linesByEnd,
  runsOf,
  type EndRef,
  type Circuits,
} from '../../plan/circuits';
import { kindOf, pumpCurrent_A, voltsAtPump } from '../../components';
import { sunkParts } from '../../model/compileNetwork';
import { returned_m3PerS, surfaceHeight_m, ullageNode, type FlowInputs, linkName } from '../../model/networkParts';
import { mouthPoint } from '../../model/portMouth';
import { dot, volumeBelow } from '../../geometry';
import { boreArea_m2, type NetworkSolution } from '../../network';
import { arriving } from '../flow/flowResult';
import { gravityFeed, headOver_m, heightOf_m } from '../flow/head';
import { fluidState } from '../../fluids';
import { HEAT_CAPACITY, type FluidKey } from '../../reference/fluids';
import { steadySolution, whyBlocked, workedAgainst_Pa } from '../flow/flowSolve';
import { pumpsStopped, withPositions } from '../../state';
import { transferCourse, type TransferCourse, type TransferEnd } from './course';

/** Flow of a run that ends in a tank, with everything running as it is set. */
export type TransferResult = {
  readonly run: string;
  readonly name: string;
  readonly line: string;
  readonly flow_m3PerS: number;
  /** What moves of what was asked for, how long that takes as the levels change, and why it ends. */
  readonly asked_m3: number;
  readonly volume_m3: number;
  readonly time_s: number | undefined;
  readonly ends: TransferEnd;
  /** Of the tank that runs dry or fills, where one does. */
  readonly endsAt: string | undefined;
  /** What becomes of it where nobody stops it: all that is there is asked for. */
  readonly leftOn: TransferCourse;
  /**
   * What still runs when all pumps stand still: a siphon, or gravity; nothing where it is no more than seats leak
   * [m³/s].
   */
  readonly atRest_m3PerS: number;
};

/** Where what a consumer does not burn goes to, or what a regulator lets by. */
export type ReturnResult = {
  /** Of the consumer or the regulator. */
  readonly from: string;
  readonly name: string;
  readonly flow_m3PerS: number;
  readonly tank: string;
  readonly tankName: string;
  /** True where the feed comes from another tank. */
  readonly elsewhere: boolean;
  /** Until that tank is full to the brim, where it fills. */
  readonly full_s: number | undefined;
  /** Falls in from above, through air. */
  readonly aerates: boolean;
  /** The whole tank goes round once in this time. */
  readonly round_s: number;
  /** What the pumps' work alone warms the tank by; heat of an engine comes on top [K/s]. */
  readonly warming_KPerS: number;
};

/** A pump with flow going back through it: one that stands still, or one that runs and is overcome by another. */
export type BackflowResult = {
  readonly pump: string;
  readonly name: string;
  readonly flow_m3PerS: number;
  readonly running: boolean;
};

/** What a line teed into a sight tube's lower line does to its reading. */
export type SightErrorResult = {
  readonly sight: string;
  readonly name: string;
  readonly error_m: number;
  readonly error_m3: number;
};

/** What gravity alone has when the tank is at its last. */
export type LowestResult = {
  readonly consumer: string;
  readonly name: string;
  readonly head_m: number;
  readonly delivered_m3PerS: number | undefined;
};

export type CircuitsResult = {
  readonly transfers: readonly TransferResult[];
  readonly returns: readonly ReturnResult[];
  readonly backflows: readonly BackflowResult[];
  readonly sights: readonly SightErrorResult[];
  readonly lowest: readonly LowestResult[];
  /** Why the whole could not be solved at once, where it could not. */
  readonly failed: string | undefined;
};

/** Flow through an idle pump below this is what its seat leaks [m³/s]. */
const BACKFLOW_M3_PER_S = 1e-9;
/** Less than this with the pumps off is what seats leak [m³/s]. */
const GOES_ON_M3_PER_S = 1e-7;

/**
 * What the circuits do beside feeding: transfer, return, flow back, mislead a
 * sight tube. Circuits of different fluids are solved each with its own.
 */
export function circuitsOf(inputs: FlowInputs): CircuitsResult {
  const fluids = [...new Set(inputs.levels.map(({ tank }) => tank.batch.key))];
  const each = fluids.map((fluid) => circuitsOfFluid(inputs, fluid));
  return {
    transfers: each.flatMap(({ transfers }) => transfers),
    returns: each.flatMap(({ returns }) => returns),
    backflows: each.flatMap(({ backflows }) => backflows),
    sights: each.flatMap(({ sights }) => sights),
    lowest: each.flatMap(({ lowest }) => lowest),
    failed: each.find(({ failed }) => failed !== undefined)?.failed,
  };
}

/** What the flow solver takes of the tanks of one fluid and what hangs on them. */
function ofFluid(all: FlowInputs, key: FluidKey): FlowInputs {
  const levels = all.levels.filter(({ tank }) => tank.batch.key === key);
  const known = fluidState(levels[0]!.tank.batch, all.state.fuelTemperature_K);
  return { ...all, system: onFluid(all.system, key), levels, fluid: known.ok ? known.value : all.fluid };
}

/** The same of the fluid that comes to a part; undefined where none does. */
export function circuitOf(all: FlowInputs, item: string): FlowInputs | undefined {
  const fluid = fluidAt(all.system, item);
  return fluid && ofFluid(all, fluid);
}

function circuitsOfFluid(all: FlowInputs, key: FluidKey): CircuitsResult {
  const inputs = ofFluid(all, key);
  const { system } = inputs;
  const whole = steadySolution(inputs, []);
  const solution = whole.ok ? whole.value.solution : undefined;
  return {
    transfers: solution ? transfersOf(inputs, solution) : [],
    returns: solution ? returnsOf(inputs, solution) : [],
    backflows: solution ? backflowsOf(system, solution) : [],
    sights: solution ? sightErrors(inputs, solution) : [],
    lowest: lowestOf(inputs),
    failed: whole.ok ? undefined : whole.error.detail,
  };
}

/** The part of a system that hangs on its tanks of one fluid. */
function onFluid(system: Circuits, key: FluidKey): Circuits {
  const tanks = system.tanks.filter(({ fluid }) => system.fluids.find(({ id }) => id === fluid)?.fluid === key);
  const seen = joinedTo(
    system,
    tanks.flatMap(({ ports, pickups }) => [...ports, ...pickups].map(({ id }) => id)),
  );
  return {
    ...system,
    tanks,
    lines: system.lines.filter(({ from }) => seen.has(from.item)),
    components: system.components.filter(({ id }) => seen.has(id)),
    consumers: system.consumers.filter(({ id }) => seen.has(id)),
  };
}

/** Whether it overfills is asked, and about when. */
const LEFT_ON_STEPS = 12;
/** To be moved at one go where nobody has said: a can's worth [m³]. */
const CAN_M3 = 0.02;

/** What is moved at one go [m³]. */
export const moved_m3 = ({ wishes }: Circuits): number => wishes.moves_m3?.value ?? CAN_M3;

function transfersOf(inputs: FlowInputs, { links }: NetworkSolution): TransferResult[] {
  const { system } = inputs;
  const ports = new Set(itemsOf(system).flatMap((item) => (item.kind === 'port' ? [item.id] : [])));
  const asked_m3 = moved_m3(system);
  const still = system.lines.some(({ purpose }) => purpose === 'transfer')
    ? steadySolution({ ...inputs, system: withPositions(system, pumpsStopped({}, system)) }, [])
    : undefined;
  return runsOf(system).flatMap((run): TransferResult[] => {
    const [last, into] = [run.steps.at(-1), run.steps.at(-2)];
    if (run.purpose !== 'transfer' || last?.kind !== 'part' || into?.kind !== 'line' || !ports.has(last.id)) return [];
    const through = (of: NetworkSolution['links']): number =>
      (of.get(into.id)?.flow_m3PerS ?? 0) * (into.reversed ? -1 : 1);
    const flow_m3PerS = through(links);
    const still_m3PerS = still?.ok ? through(still.value.solution.links) : 0;
    const sense = into.reversed ? -1 : 1;
    const course = transferCourse(inputs, into.id, sense, asked_m3);
    const all_m3 = inputs.levels.reduce((sum, { volume_m3 }) => sum + volume_m3, 0);
    return [
      {
        run: run.id,
        name: run.name,
        line: into.id,
        flow_m3PerS,
        asked_m3,
        ...course,
        // What ends by itself before so much is moved ends so however much is asked for.
        leftOn:
          course.ends === 'moved'
            ? transferCourse(inputs, into.id, sense, Math.max(asked_m3, all_m3), LEFT_ON_STEPS)
            : course,
        atRest_m3PerS: still_m3PerS > GOES_ON_M3_PER_S ? still_m3PerS : 0,
      },
    ];
  });
}

/** The tank port that a line from an end comes to, through whatever it passes. */
function portAfter(system: Circuits, start: EndRef): string | undefined {
  const byEnd = linesByEnd(system);
  const items = new Map(itemsOf(system).map((item) => [item.id, item]));
  const open = [endKey(start)];
  const seen = new Set<string>();
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    for (const line of byEnd.get(at) ?? []) {
      if (seen.has(line.id)) continue;
      seen.add(line.id);
      const far = endKey(line.from) === at ? line.to : line.from;
      const item = items.get(far.item);
      if (item?.kind === 'port') return item.id;
      if (item?.kind === 'component')
        open.push(...item.ends.filter((end) => end !== far.end).map((end) => endKey({ item: item.id, end })));
    }
  }
  return undefined;
}

type Source = {
  readonly ref: EndRef;
  readonly name: string;
  readonly flow_m3PerS: number;
  /** A pickup that it was drawn by. */ readonly drawnBy: string | undefined;
};

/** Ends that send fuel back: of consumers that burn less than they draw, of bypass regulators, of relief valves. */
function returnSources(system: Circuits, { links }: NetworkSolution): Source[] {
  const feeds = system.consumers.map((consumer) => feedPath(system, consumer.id));
  return [
    ...system.consumers.map((consumer, k): Source => ({
      ref: { item: consumer.id, end: 'out' },
      name: consumer.name,
      flow_m3PerS: returned_m3PerS(consumer),
      drawnBy: feeds[k]!.at(-1),
    })),
    ...system.components.flatMap((part): Source[] => {
      const back = kindOf(part).letsBack?.(part);
      if (!back) return [];
      const flow_m3PerS = links.get(linkName(part, back.suffix))?.flow_m3PerS ?? 0;
      return [
        {
          ref: { item: part.id, end: back.end },
          name: part.name,
          flow_m3PerS,
          drawnBy: feeds.find((path) => path.includes(part.id))?.at(-1),
        },
      ];
    }),
  ].filter(({ flow_m3PerS }) => flow_m3PerS > BACKFLOW_M3_PER_S);
}

function returnsOf(inputs: FlowInputs, solution: NetworkSolution): ReturnResult[] {
  const { system, levels } = inputs;
  const sunk = sunkParts(inputs);
  return returnSources(system, solution).flatMap((source): ReturnResult[] => {
    const port = portAfter(system, source.ref);
    // What hangs in a tank and has no line lets out right there.
    const pickup = port === undefined ? sunk.get(source.ref.item) : undefined;
    const level = levels.find(({ tank }) =>
      pickup ? tank.pickups.includes(pickup) : tank.ports.some(({ document }) => document.id === port),
    );
    if (!level) return [];
    const { tank, up, offset_m } = level;
    const elsewhere = source.drawnBy !== undefined && !tank.document.pickups.some(({ id }) => id === source.drawnBy);
    const volume_m3 = level.volume_m3;
    const mouth = tank.ports.find(({ document }) => document.id === port);
    const mouth_m = mouth ? dot(up, mouthPoint(mouth)) : pickup ? dot(up, pickup.inlet.point_m) : -Infinity;
    return [
      {
        from: source.ref.item,
        name: source.name,
        flow_m3PerS: source.flow_m3PerS,
        tank: tank.document.id,
        tankName: tank.document.name,
        elsewhere,
        full_s: elsewhere ? (tank.gross_m3 - volume_m3) / source.flow_m3PerS : undefined,
        aerates: mouth_m > offset_m,
        round_s: volume_m3 / source.flow_m3PerS,
        warming_KPerS:
          pumpWork_W(inputs, solution, source) /
          (inputs.fluid.density_kgPerM3 *
            HEAT_CAPACITY[tank.batch.key].heat_JPerKgK *
            Math.max(volume_m3, LEAST_WARMED_M3)),
      },
    ];
  });
}

/** An all but empty tank warms no faster than this much would [m³]. */
const LEAST_WARMED_M3 = 1e-4;

/**
 * What running pumps put into the fuel that comes back: electric power where their wires say it, else pressure times
 * flow, by the share that returns.
 */
function pumpWork_W(inputs: FlowInputs, solution: NetworkSolution, { drawnBy, flow_m3PerS }: Source): number {
  const { system, state } = inputs;
  const path = new Set(
    system.consumers.map((consumer) => feedPath(system, consumer.id)).find((each) => each.at(-1) === drawnBy) ?? [],
  );
  return system.components.reduce((sum, part) => {
    if (part.kind !== 'pump' || !part.running || !path.has(part.id)) return sum;
    const rise = Math.max(0, workedAgainst_Pa(inputs, part, solution));
    const through = Math.max(flow_m3PerS, solution.links.get(part.id)?.flow_m3PerS ?? 0);
    const watt = part.wiring ? pumpCurrent_A(part, rise) * voltsAtPump(state.supply_V, part, rise) : rise * through;
    return sum + watt * (flow_m3PerS / through);
  }, 0);
}

const backflowsOf = ({ components }: Circuits, { links }: NetworkSolution): BackflowResult[] =>
  components.flatMap((part): BackflowResult[] => {
    const flow = links.get(part.id)?.flow_m3PerS ?? 0;
    return part.kind === 'pump' && flow < -BACKFLOW_M3_PER_S
      ? [{ pump: part.id, name: part.name, flow_m3PerS: -flow, running: part.running }]
      : [];
  });

/** What of the pressure in a tee is in the speed of what goes through it [Pa]. */
function teeSpeed_Pa(
  { fluid }: FlowInputs,
  links: NetworkSolution['links'],
  tee: Circuits['components'][number],
): number {
  if (!('bore_m' in tee)) return 0;
  const flow = Math.max(
    0,
    ...[...links.values()]
      .filter(({ id }) => id.startsWith(`${tee.id}:`))
      .map(({ flow_m3PerS }) => Math.abs(flow_m3PerS)),
  );
  return (fluid.density_kgPerM3 / 2) * (flow / boreArea_m2(tee.bore_m.value)) ** 2;
}

function sightErrors(inputs: FlowInputs, { nodes, links }: NetworkSolution): SightErrorResult[] {
  const { system, levels, fluid } = inputs;
  const { gravity } = inputs.state;
  const weight = fluid.density_kgPerM3 * gravity.magnitude_mPerS2;
  return levels.flatMap((level) =>
    level.tank.document.sightTubes.flatMap((sight): SightErrorResult[] => {
      const tee = sight.tee === undefined ? undefined : system.components.find(({ id }) => id === sight.tee);
      const node = tee && nodes.get(endKey({ item: tee.id, end: 'side' }));
      const ullage = nodes.get(ullageNode(level.tank.document.id));
      if (!node || !ullage) return [];
      // The tube's top is open to the tank: its column stands where the pressure on the tee's wall carries it.
      const error_m =
        heightOf_m(inputs, tee.id) +
        (node.gauge_Pa - teeSpeed_Pa(inputs, links, tee) - ullage.gauge_Pa) / weight -
        surfaceHeight_m(level, gravity.up);
      const volume = (offset_m: number): number => volumeBelow(level.tank.mesh, { normal: level.up, offset_m });
      return [
        {
          sight: sight.id,
          name: sight.name,
          error_m,
          error_m3: volume(level.offset_m + error_m) - volume(level.offset_m),
        },
      ];
    }),
  );
}

function lowestOf(inputs: FlowInputs): LowestResult[] {
  const { system, levels } = inputs;
  return system.consumers.flatMap((consumer): LowestResult[] => {
    const feed = gravityFeed(inputs, consumer);
    if (!feed) return [];
    const low: FlowInputs = { ...inputs, levels: levels.map((each) => (each === feed.level ? feed.last : each)) };
    if (whyBlocked(low, consumer)) return [];
    const solved = steadySolution(
      low,
      [{ consumer: consumer.id, hold_Pa: consumer.neededPressure_Pa.value }],
      consumer.id,
    );
    return [
      {
        consumer: consumer.id,
        name: consumer.name,
        head_m: headOver_m(inputs, feed.last, consumer),
        delivered_m3PerS: solved.ok ? arriving(low, consumer, solved.value.solution) : undefined,
      },
    ];
  });
}
