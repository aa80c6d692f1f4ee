import { fluidState } from '../../fluids';
import { lineLaw } from '../../network';
import { unwrap } from '../../outcome';
import type { FluidKey } from '../../reference/fluids';
import { ROUGHNESS } from '../../reference/losses';
import { assumed, chosen, fromPart, measured, type Known } from '../../schema/known';
import { plainName } from '../../formats';
import { meshBounds } from '../../geometry';
import { shapeKind } from '../../shapes';
import { freshId } from '../edit';
import type {
  ComponentDocument,
  LineDocument,
  PickupDocument,
  PortDocument,
  SystemDocument,
  TankDocument,
} from '../schema';

/** A place in the vehicle [m]: forward, to port, up. */
export type Point = readonly [number, number, number];

export const FILL_LIMIT = 0.95;
/** Proportions of a tank of which nothing is known: length and height over width. */
const ASSUMED_SHAPE = [1.5, 1, 0.7] as const;
const MM = 1e-3;

/** A value in whole steps, without the rounding of the division. */
export const roundTo = (value: number, step: number): number => Math.round(value / step) / Math.round(1 / step);
/** A length in whole millimetres [m]. */
export const toMm = (value_m: number): number => roundTo(value_m, MM);

export type Sizes = { readonly length: Known; readonly width: Known; readonly height: Known };
type Told = Partial<Record<'length_m' | 'width_m' | 'height_m', number | undefined>>;

/** Inside sizes: as told, and the rest so that the tank holds what was asked to its fill limit. */
export function sizesFor(holds_m3: number, told: Told = {}, shape: readonly number[] = ASSUMED_SHAPE): Sizes {
  const gross = holds_m3 / FILL_LIMIT;
  const given = [told.length_m, told.width_m, told.height_m];
  const known = given.reduce<number>((product, size) => product * (size ?? 1), 1);
  const open = shape.filter((_, i) => given[i] === undefined);
  const unit =
    open.length === 0 ? 0 : (gross / known / open.reduce((product, share) => product * share, 1)) ** (1 / open.length);
  const within = (size: number): number => Math.min(20, Math.max(0.02, size));
  const sizes = given.map((value, i) => value ?? toMm(within(unit * shape[i]!)));
  // The last that is open takes up what the others were rounded by, so that no less is held than asked for.
  const last = given.lastIndexOf(undefined);
  if (last >= 0) {
    const others = sizes.reduce((product, size, i) => (i === last ? product : product * size), 1);
    sizes[last] = within(Math.ceil((1000 * gross) / others - 1e-6) / 1000);
  }
  const [length, width, height] = sizes.map((size, i): Known =>
    given[i] === undefined ? assumed(size, Math.max(0.002, toMm(size * 0.02))) : measured(size, 0.003),
  ) as [Known, Known, Known];
  return { length, width, height };
}

/** A hole in a box's lid, its place as shares of length and width. */
export const lidPort = (
  { length, width }: Sizes,
  id: string,
  name: string,
  role: PortDocument['role'],
  [x, y]: readonly [number, number],
  more: Pick<PortDocument, 'bore_m' | 'length_m'> & Partial<PortDocument>,
): PortDocument => ({
  id,
  name,
  role,
  face: 'lid',
  x_m: chosen(toMm(x * length.value)),
  y_m: chosen(toMm(y * width.value)),
  ...more,
});

/** What draws: off the floor by so much. */
export const pickupIn = (
  port: string,
  id: string,
  name: string,
  kind: PickupDocument['kind'],
  offFloor_m: number,
  bore_m: number,
): PickupDocument => ({
  id,
  name,
  port,
  kind,
  strainer: 'none',
  heightOffFloor_m: chosen(toMm(offFloor_m)),
  bore_m: fromPart(bore_m),
  submergence_m: assumed(0.005, 0.004),
});

export type TankSpec = Pick<TankDocument, 'id' | 'name' | 'fluid' | 'ports' | 'pickups'> & {
  readonly sizes: Sizes;
  readonly at?: Point;
  readonly senders?: TankDocument['senders'];
};

/** A box of a tank, where it was said to be or at the datum. */
export function boxTank({ sizes, at = [0, 0, 0], senders = [], ...named }: TankSpec): TankDocument {
  const [x, y, z] = at.map((value) => (value === 0 ? chosen(0) : assumed(toMm(value), 0.05))) as [Known, Known, Known];
  return {
    ...named,
    mounting: { x_m: x, y_m: y, z_m: z, yaw_deg: chosen(0), pitch_deg: assumed(0, 1), roll_deg: assumed(0, 1) },
    material: { alloy: 'al-5052', thickness_m: chosen(0.003) },
    dimensions: 'inside',
    parts: [],
    slices: [],
    plates: [],
    shape: { kind: 'box', length_m: sizes.length, width_m: sizes.width, height_m: sizes.height },
    fillLimit_ratio: chosen(FILL_LIMIT),
    senders,
    built: [],
    sightTubes: [],
    dipsticks: [],
    calibrations: [],
  };
}

/** A pump of which no more is known than what it is to move, and against what. */
export function pumpFor(
  id: string,
  name: string,
  flow_m3PerS: number,
  shutOff_Pa: number,
  more: Partial<Extract<ComponentDocument, { kind: 'pump' }>> = {},
): ComponentDocument {
  const point = (share: number, rise: number) => ({
    flow_m3PerS: Number((flow_m3PerS * share).toPrecision(3)),
    rise_Pa: Math.round(shutOff_Pa * rise),
  });
  return {
    id,
    name,
    ends: [],
    kind: 'pump',
    type: 'inline',
    running: true,
    checkBuiltIn: false,
    ratedVoltage_V: fromPart(12),
    selfPrimingLift_m: assumed(1.5, 0.5),
    output_ratio: assumed(0.85, 0.15),
    curveOrigin: 'assumed',
    curve: [point(0, 1), point(1, 0.85), point(2, 0.55), point(2.8, 0)],
    ...more,
  };
}

/** A filter of which no more is known than what is to pass it; its drop [Pa] is at twice that flow. */
export const filterFor = (
  id: string,
  name: string,
  flow_m3PerS: number,
  fluid: FluidKey,
  drop_Pa = 5000,
): ComponentDocument => ({
  id,
  name,
  ends: [],
  kind: 'filter',
  type: 'filter',
  ratedFlow_m3PerS: assumed(Number((flow_m3PerS * 2).toPrecision(3)), flow_m3PerS * 0.5),
  ratedDrop_Pa: assumed(drop_Pa, drop_Pa / 2),
  ratedViscosity_PaS: fromPart(THIN.has(fluid) ? 0.0005 : 0.0035),
  dirt_ratio: assumed(2, 1),
});
/** Fluids as thin as petrol: filters for them are rated with it. */
const THIN: ReadonlySet<FluidKey> = new Set(['petrol', 'e10', 'e85', 'methanol', 'two-stroke', 'water']);

/** A ball valve. */
export const valveOf = (id: string, name: string, bore_m: number, open = true): ComponentDocument => ({
  id,
  name,
  ends: [],
  kind: 'valve',
  open,
  fitting: 'ball-valve',
  bore_m: chosen(bore_m),
});

/** One step of a run: the line's name is of the two parts that it joins. */
export type Stop = { readonly item: string; readonly end?: LineDocument['to']['end']; readonly name: string };
export type RunSpec = {
  readonly purpose: LineDocument['purpose'];
  readonly stops: readonly Stop[];
  readonly bore_m: number;
  readonly length: Known;
  /** From its first stop to its last, in vehicle axes [m], where both have places. */
  readonly span?: Point | undefined;
  /** Where they have not: how far it rises in all. */
  readonly rise_m?: number;
  readonly kind?: LineDocument['kind'];
};

/** The lines of a run, its length and way shared out evenly along it. */
export function linesOfRun(system: Pick<SystemDocument, 'lines'> & SystemDocument, run: RunSpec): LineDocument[] {
  const count = run.stops.length - 1;
  const taken = { ...system, lines: [...system.lines] };
  const share = (known: Known): Known => ({
    ...known,
    value: roundTo(known.value / count, 0.01),
    ...(known.spread === undefined ? {} : { spread: roundTo(known.spread / count, 0.01) }),
  });
  return run.stops.slice(1).map((to, i): LineDocument => {
    const from = run.stops[i]!;
    const isLast = i === count - 1;
    // Rounded shares leave a rest, which the last line goes.
    const part = (whole: number): number =>
      isLast ? roundTo(whole - (count - 1) * roundTo(whole / count, 0.01), MM) : roundTo(whole / count, 0.01);
    const way = (axis: 0 | 1 | 2): Known =>
      run.span ? assumed(part(run.span[axis]), 0.05) : axis === 2 ? assumed(part(run.rise_m ?? 0), 0.15) : chosen(0);
    const line: LineDocument = {
      id: freshId(taken, 'line'),
      name: plainName(`${from.name} to ${to.name[0]!.toLowerCase()}${to.name.slice(1)}`, 80),
      purpose: run.purpose,
      kind: run.kind ?? 'hose',
      from: { item: from.item, end: from.end ?? 'out', adapters: [] },
      to: { item: to.item, end: to.end ?? 'in', adapters: [] },
      points: [],
      passes: [],
      bore_m: chosen(run.bore_m),
      length_m: share(run.length),
      wall: run.kind === 'tube' ? 'drawn-tube' : 'hose',
      forward_m: way(0),
      toPort_m: way(1),
      rise_m: way(2),
      fittings: [
        { fitting: 'elbow-90', count: i === 0 || isLast ? 1 : 0 },
        { fitting: 'barb-step', count: 2 },
      ],
    };
    taken.lines.push(line);
    return line;
  });
}

/** Bores of common hose [m]; the first in which a metre of line costs no more than this is taken. */
const BORES_M = [0.004, 0.005, 0.006, 0.008, 0.01, 0.012, 0.016, 0.019, 0.025, 0.032, 0.038];
const EASY_PA_PER_M = 1500;
const DRAFT_TEMPERATURE_K = 288.15;

/** Bore of a line that a flow goes through easily [m]. */
export function boreFor_m(flow_m3PerS: number, fluid: FluidKey): number {
  const liquid = unwrap(fluidState({ key: fluid }, DRAFT_TEMPERATURE_K));
  const costs = (bore: number): number =>
    lineLaw(bore, 1, ROUGHNESS.hose.roughness_m, [], liquid)(flow_m3PerS).pressure_Pa;
  return BORES_M.find((bore) => costs(bore) <= EASY_PA_PER_M) ?? BORES_M.at(-1)!;
}

/** How far a tank reaches [m]; undefined where its shape leaves none. */
export function spanOfTank({ shape }: Pick<TankDocument, 'shape'>): Point | undefined {
  const mesh = shapeKind(shape).mesh(shape);
  if (!mesh.ok) return undefined;
  const { min, max } = meshBounds(mesh.value);
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
}

/** Where a hole in a tank's lid or floor stands in the vehicle, about [m]. */
export function portPlace(tank: TankDocument, { x_m, y_m, face }: PortDocument): Point | undefined {
  const span = spanOfTank(tank);
  const { mounting } = tank;
  return (
    span && [
      mounting.x_m.value + (x_m?.value ?? 0),
      mounting.y_m.value + (y_m?.value ?? 0),
      mounting.z_m.value + (face === 'floor' ? 0 : span[2]),
    ]
  );
}

/** From one place to another; undefined where either is not known. */
export const spanOf = (from: Point | undefined, to: Point | undefined): Point | undefined =>
  from && to ? [to[0] - from[0], to[1] - from[1], to[2] - from[2]] : undefined;

/** A line at least as long as its way, with some to spare. */
export const lengthFor = (span: Point | undefined, told_m: number | undefined, usual_m: number): Known => {
  if (told_m !== undefined) return measured(told_m, 0.1);
  const way = span ? Math.hypot(...span) * 1.3 + 0.3 : usual_m;
  return assumed(roundTo(Math.max(usual_m, way), 0.01), roundTo(Math.max(usual_m, way) * 0.3, 0.01));
};
