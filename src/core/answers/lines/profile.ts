import { carriesFlow, endKey, runsOf, type Run, type Circuits } from '../../plan/circuits';
import { sunkParts } from '../../model/compileNetwork';
import { lineRun, partPositions, surfaceHeight_m, type FlowInputs, type TankLevel } from '../../model/networkParts';
import { inVehicle } from '../../model/compileTank';
import type { LineDocument } from '../../plan/schema';
import { add, dot, norm, subtract, type Vec3 } from '../../geometry';
import type { FluidState } from '../../fluids';
import { boreArea_m2, type LinkResult, type NodeResult } from '../../network';

/** One point of a run: how far along, how high against effective gravity, and the pressure there. */
export type ProfilePoint = {
  readonly along_m: number;
  readonly height_m: number;
  /** Where a part stands; its name. */
  readonly part?: string;
  readonly line?: string;
  /** At the needed flow; absent where the run takes no part in the solution. */
  readonly gauge_Pa?: number;
  /** Over the pressure at which the fuel boils. */
  readonly margin_Pa?: number;
};

export type RunProfile = {
  readonly id: string;
  readonly name: string;
  readonly purpose: Run['purpose'];
  readonly points: readonly ProfilePoint[];
  /** Heights of the liquid in the tanks at its ends. */
  readonly surfaces: readonly { readonly name: string; readonly height_m: number }[];
  readonly lowest: ProfilePoint | undefined;
  readonly highest: ProfilePoint | undefined;
  /** First on the way where the fuel boils, or comes nearest to it. */
  readonly nearestBoiling: ProfilePoint | undefined;
  /** A head of liquid for a pressure [m/Pa]: the pressure line stands so high above the line. */
  readonly headPerPa: number;
  /** Height of liquid from the air's pressure down to boiling [m]. */
  readonly boilingHead_m: number;
};

/** Points of a line with their distance along it, from its near end, in vehicle axes [m]. */
export function linePoints(line: LineDocument): { readonly at: Vec3; readonly along_m: number }[] {
  const points: Vec3[] = [
    [0, 0, 0],
    ...line.points.map(({ forward_m, toPort_m, rise_m }): Vec3 => [forward_m, toPort_m, rise_m]),
    lineRun(line),
  ];
  const chords = points.map((point, i) => (i === 0 ? 0 : norm(subtract(point, points[i - 1]!))));
  const whole = chords.reduce((sum, chord) => sum + chord, 0);
  const length = line.length_m.value;
  let passed = 0;
  // The line is as long as it is said to be; its bends are taken to lie evenly between the points.
  return points.map((at, i) => {
    passed += chords[i]!;
    return { at, along_m: whole > 0 ? (length * passed) / whole : (length * i) / (points.length - 1) };
  });
}

type Found = { readonly nodes: ReadonlyMap<string, NodeResult>; readonly links: ReadonlyMap<string, LinkResult> };
type LinePoint = {
  readonly line: string;
  readonly along_m: number;
  readonly height_m: number;
  readonly gauge_Pa: number | undefined;
};

/** Points of a line between its ends, with the pressure there where its ends have one. */
function pointsBetween(
  { state: { gravity }, fluid }: FlowInputs,
  positions: ReadonlyMap<string, Vec3>,
  { nodes, links }: Found,
  line: LineDocument,
): LinePoint[] {
  const start = positions.get(line.from.item);
  if (!start) return [];
  const weight = fluid.density_kgPerM3 * gravity.magnitude_mPerS2;
  const height = (at: Vec3): number => dot(gravity.up, add(start, at));
  const [from, to] = [nodes.get(endKey(line.from)), nodes.get(endKey(line.to))];
  // What is in the speed of the liquid is no pressure on the wall.
  const dynamic_Pa =
    (fluid.density_kgPerM3 / 2) * ((links.get(line.id)?.flow_m3PerS ?? 0) / boreArea_m2(line.bore_m.value)) ** 2;
  return linePoints(line)
    .slice(1, -1)
    .map(({ at, along_m }) => {
      const share = line.length_m.value > 0 ? along_m / line.length_m.value : 0;
      // Friction falls evenly along a line of one bore: potentials run straight.
      const gauge_Pa =
        from && to
          ? between(from.gauge_Pa + weight * height([0, 0, 0]), to.gauge_Pa + weight * height(lineRun(line)), share) -
            weight * height(at) -
            dynamic_Pa
          : undefined;
      return { line: line.name, along_m, height_m: height(at), gauge_Pa };
    });
}

/** The lowest pressure on those of some lines between their ends: a hump boils before either of them does. */
export function lowestBetween(
  inputs: FlowInputs,
  found: Found,
  on: ReadonlySet<string>,
): { readonly line: string; readonly gauge_Pa: number } | undefined {
  const bent = inputs.system.lines.filter((line) => line.points.length > 0 && carriesFlow(line) && on.has(line.id));
  if (bent.length === 0) return undefined;
  const positions = partPositions(inputs.system, inputs.levels);
  const known = bent
    .flatMap((line) => pointsBetween(inputs, positions, found, line))
    .flatMap(({ line, gauge_Pa }) => (gauge_Pa === undefined ? [] : [{ line, gauge_Pa }]));
  return known.reduce<{ line: string; gauge_Pa: number } | undefined>(
    (low, each) => (low === undefined || each.gauge_Pa < low.gauge_Pa ? each : low),
    undefined,
  );
}

/** A consumer's solution, with the fluid that it was found for. */
export type Solved = {
  readonly fluid: FluidState;
  readonly nodes: readonly NodeResult[];
  readonly links: readonly LinkResult[];
};

/** Where parts in the liquid and the pickups that they hang on really stand: at the inlet, not at the lid. */
const sunkPlaces = (inputs: FlowInputs): Map<string, Vec3> =>
  new Map(
    [...sunkParts(inputs)].map(([item, pickup]): [string, Vec3] => {
      const { tank } = inputs.levels.find(({ tank: each }) => each.pickups.includes(pickup))!;
      return [item, inVehicle(tank, pickup.inlet.point_m)];
    }),
  );

/** Where a run goes and what the pressure does on it, from its first part to its last. */
function runProfile(
  all: FlowInputs,
  positions: ReadonlyMap<string, Vec3>,
  run: Run,
  solved: Solved | undefined,
): RunProfile {
  const inputs = solved ? { ...all, fluid: solved.fluid } : all;
  const { system, levels, fluid } = inputs;
  const { gravity } = inputs.state;
  const nodes = new Map((solved?.nodes ?? []).map((node) => [node.id, node]));
  const links = new Map((solved?.links ?? []).map((link) => [link.id, link]));
  const weight = fluid.density_kgPerM3 * gravity.magnitude_mPerS2;
  const names = partNames(system);
  const sunk = sunkPlaces(inputs);
  const points: ProfilePoint[] = [];
  let along = 0;
  for (const step of run.steps) {
    if (step.kind === 'part') {
      const at = sunk.get(step.id) ?? positions.get(step.id);
      const height_m = at ? dot(gravity.up, at) : 0;
      for (const end of [step.enters, step.leaves].flatMap((each) => each ?? [])) {
        const node = nodes.get(endKey({ item: step.id, end }));
        points.push({
          along_m: along,
          height_m,
          part: names.get(step.id) ?? step.id,
          ...pressuresOf(node?.staticGauge_Pa, inputs),
        });
      }
      continue;
    }
    const line = system.lines.find(({ id }) => id === step.id)!;
    const inner = pointsBetween(inputs, positions, { nodes, links }, line).map(
      ({ along_m, height_m, gauge_Pa }): ProfilePoint => ({
        along_m: along + (step.reversed ? line.length_m.value - along_m : along_m),
        height_m,
        line: line.name,
        ...pressuresOf(gauge_Pa, inputs),
      }),
    );
    points.push(...(step.reversed ? inner.reverse() : inner));
    along += line.length_m.value;
  }
  const ends = run.steps.flatMap((step) => (step.kind === 'part' ? [step.id] : []));
  return {
    id: run.id,
    name: run.name,
    purpose: run.purpose,
    points,
    surfaces: levels
      .filter(({ tank }) => ends.some((id) => belongs(tank.document, id)))
      .map((level) => ({ name: level.tank.document.name, height_m: surfaceHeight_m(level, gravity.up) })),
    lowest: extreme(points, ({ height_m }) => -height_m),
    highest: extreme(points, ({ height_m }) => height_m),
    nearestBoiling: boilingAt(points),
    headPerPa: 1 / weight,
    boilingHead_m: (inputs.state.ambientAbs_Pa - fluid.vapourPressureAbs_Pa) / weight,
  };
}

const between = (a: number, b: number, share: number): number => a + (b - a) * share;
const belongs = (tank: TankLevel['tank']['document'], id: string): boolean =>
  [...tank.pickups, ...tank.ports].some((part) => part.id === id);
const partNames = (system: Circuits): Map<string, string> =>
  new Map(
    [
      ...system.components,
      ...system.consumers,
      ...system.tanks.flatMap((tank) => [...tank.ports, ...tank.pickups]),
    ].map(({ id, name }) => [id, name]),
  );

const pressuresOf = (gauge_Pa: number | undefined, { fluid, state }: Pick<FlowInputs, 'fluid' | 'state'>) =>
  gauge_Pa === undefined ? {} : { gauge_Pa, margin_Pa: gauge_Pa + state.ambientAbs_Pa - fluid.vapourPressureAbs_Pa };

const extreme = (points: readonly ProfilePoint[], of: (point: ProfilePoint) => number): ProfilePoint | undefined =>
  points.reduce<ProfilePoint | undefined>(
    (best, point) => (best === undefined || of(point) > of(best) ? point : best),
    undefined,
  );

/** The first point on the way where the fuel boils; where it nowhere does, the one that comes nearest. */
function boilingAt(points: readonly ProfilePoint[]): ProfilePoint | undefined {
  const known = points.filter(({ margin_Pa }) => margin_Pa !== undefined);
  return known.find(({ margin_Pa }) => margin_Pa! < 0) ?? extreme(known, ({ margin_Pa }) => -margin_Pa!);
}

/** The profiles of all runs, each with the solution that holds most of it. */
export function profilesOf(inputs: FlowInputs, solutions: readonly Solved[]): RunProfile[] {
  const positions = partPositions(inputs.system, inputs.levels);
  return runsOf(inputs.system).map((run) => {
    const lines = run.steps.flatMap((step) => (step.kind === 'line' ? [step.id] : []));
    return runProfile(
      inputs,
      positions,
      run,
      solutions.find(({ links }) => links.some(({ id }) => lines.includes(id))),
    );
  });
}
