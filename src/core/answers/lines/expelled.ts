import { fluidState, type FluidState } from '../../fluids';
import { compileNetwork } from '../../model/compileNetwork';
import { outletNode, type FlowInputs, type TankLevel } from '../../model/networkParts';
import { standingUp, type TankModel } from '../../model/compileTank';
import { mouthPoint } from '../../model/portMouth';
import { placeOf } from '../../model/compileFit';
import { dot, meshBounds, posedMesh, volumeBelow } from '../../geometry';
import type { FluidKey } from '../../reference/fluids';
import { partAround, solveNetwork } from '../../network';
import { failure, success, type Outcome } from '../../outcome';
import { joinedTo } from '../../plan/circuits';
import type { ComponentDocument } from '../../plan/schema';
import type { Envelope } from '../../tank';
import { coolantOf, type Coolant } from './coolant';

type Source = Extract<ComponentDocument, { kind: 'crankcase' | 'cooling-system' }>;

/** What an engine throws out, and the tank that takes it. */
export type Expelled = {
  /** Of the part that it comes out of. */
  readonly source: string;
  readonly name: string;
  readonly kind: Source['kind'];
  /** The first tank on its way; none where it leads to none. */
  readonly tank: { readonly id: string; readonly name: string } | undefined;
  /** The most that may come at once [m³]. */ readonly comes: Outcome<number, ExpelledCode>;
  /** What the tank has room for over what stands in it, up to its fill limit [m³]. */
  readonly room_m3: number | undefined;
  /** Of a crankcase: over the air outside, with all its gas on its way out [Pa]. */
  readonly pressure: Outcome<number, ExpelledCode> | undefined;
  /** Of a cooling system: over the air outside, at which its coolant boils at its hottest [Pa]. */
  readonly boils: Outcome<number, ExpelledCode> | undefined;
  /** Of a cooling system: whether what stands in the tank covers the mouth that it is drawn back by. */
  readonly isCovered: boolean | undefined;
  /** Of a cooling system: marks of its bottle, and where it boils; none where it leads to none. */
  readonly coolant: Coolant | undefined;
  /** Of a crankcase's tank: left in it by its lowest drain, standing level [m³]; all of it where it has none. */
  readonly drainLeaves_m3: number | undefined;
  /** Of its tank: from where to where it is along the vehicle, from aft [m]. */
  readonly along_m: readonly [number, number] | undefined;
};
export type ExpelledCode = 'no-tank' | 'other-fluid' | 'temperature-range' | 'no-way-out' | 'not-solved';

/** Gas leaves a crankcase as hot as this at most: common practice [K]. */
const HOT_GAS_K = 373.15;

/**
 * What comes out of each crankcase and cooling system of a plan, in the plan's order.
 *
 * @param envelope slopes asked for
 */
export function expelledOf(inputs: FlowInputs, envelope: Envelope): Expelled[] {
  return inputs.system.components.flatMap((part) =>
    part.kind === 'crankcase' || part.kind === 'cooling-system' ? [expelledFrom(part, inputs, envelope)] : [],
  );
}

function expelledFrom(part: Source, inputs: FlowInputs, envelope: Envelope): Expelled {
  const mouth = firstMouth(inputs, part.id);
  const { level } = mouth ?? {};
  const limit = level && level.tank.gross_m3 * level.tank.document.fillLimit_ratio.value;
  const port = mouth?.level.tank.ports.find(({ document }) => document.id === mouth.port);
  return {
    source: part.id,
    name: part.name,
    kind: part.kind,
    tank: level && { id: level.tank.document.id, name: level.tank.document.name },
    comes: part.kind === 'crankcase' ? success(part.oil_m3.value) : swell_m3(part, level),
    room_m3: level && limit !== undefined ? Math.max(0, limit - level.volume_m3) : undefined,
    pressure: part.kind === 'crankcase' ? backPressure(part.id, inputs) : undefined,
    boils: part.kind === 'cooling-system' ? boilsAt(part, level, inputs.state.ambientAbs_Pa) : undefined,
    isCovered:
      part.kind === 'cooling-system' && level && port
        ? level.volume_m3 > 0 && dot(level.up, mouthPoint(port)) < level.offset_m
        : undefined,
    coolant:
      part.kind === 'cooling-system' && level && port && COOLANTS.has(level.tank.batch.key)
        ? coolantOf(part, level, port, {
            ambientAbs_Pa: inputs.state.ambientAbs_Pa,
            now_K: inputs.state.fuelTemperature_K,
            envelope,
          })
        : undefined,
    drainLeaves_m3: part.kind === 'crankcase' && level ? drainLeaves_m3(level.tank) : undefined,
    along_m: level && alongOf(level.tank),
  };
}

/** What does not run out by the lowest of a tank's drains when it stands level; all that it holds where it has none. */
function drainLeaves_m3(tank: TankModel): number {
  const up = standingUp(tank, 0, 0);
  const drains = tank.ports.filter(({ document }) => document.role === 'drain');
  return Math.min(
    tank.gross_m3,
    ...drains.map(({ point_m }) => volumeBelow(tank.mesh, { normal: up, offset_m: dot(up, point_m) })),
  );
}

function alongOf({ mesh, document }: TankModel): [number, number] {
  const { min, max } = meshBounds(posedMesh(mesh, placeOf(document.mounting)));
  return [min[0], max[0]];
}

/** The first port of a tank on the way from a part, through parts and lines of whatever purpose. */
function firstMouth(
  { system, levels }: Pick<FlowInputs, 'system' | 'levels'>,
  from: string,
): { readonly level: TankLevel; readonly port: string } | undefined {
  const ports = new Map(
    levels.flatMap((level) => level.tank.ports.map(({ document }) => [document.id, level] as const)),
  );
  // In the order in which they are come to.
  for (const port of joinedTo(system, [from])) {
    const level = ports.get(port);
    if (level) return { level, port };
  }
  return undefined;
}

type CoolingSystem = Extract<Source, { kind: 'cooling-system' }>;

/**
 * What a system full of coolant swells by from its coldest to its hottest. The metal round it swells too, by a small
 * share of that, which is left out: the safe side.
 */
function swell_m3(part: CoolingSystem, level: TankLevel | undefined): Outcome<number, ExpelledCode> {
  const cold = coolantAt(part, level, part.cold_K.value);
  const hot = coolantAt(part, level, part.hot_K.value);
  if (!cold.ok) return cold;
  if (!hot.ok) return hot;
  return success(part.coolant_m3.value * Math.max(0, cold.value.density_kgPerM3 / hot.value.density_kgPerM3 - 1));
}

/** The pressure over the air outside at which what is in a cooling system boils at its hottest. */
function boilsAt(
  part: CoolingSystem,
  level: TankLevel | undefined,
  ambientAbs_Pa: number,
): Outcome<number, ExpelledCode> {
  const hot = coolantAt(part, level, part.hot_K.value);
  return hot.ok ? success(hot.value.vapourPressureAbs_Pa - ambientAbs_Pa) : hot;
}

const COOLANTS: ReadonlySet<FluidKey> = new Set(['coolant', 'water']);

/** What is in a cooling system: the same as in the tank that it leads to. */
function coolantAt(
  part: CoolingSystem,
  level: TankLevel | undefined,
  temperature_K: number,
): Outcome<FluidState, ExpelledCode> {
  if (!level) return failure('no-tank', part.id, `${part.name} leads to no tank yet.`);
  const { batch, document } = level.tank;
  if (!COOLANTS.has(batch.key))
    return failure('other-fluid', part.id, `${part.name} leads to ${document.name}, and what is in it is no coolant.`);
  return fluidState(batch, temperature_K);
}

/**
 * Steady pressure in a crankcase whose gas goes out by hoses, tanks, filters and breathers.
 *
 * The gas is taken as air, slow enough to be incompressible, once at the temperature that is set and once hot: what is
 * cold is heavier, what is hot is stickier, and the greater of the two is kept.
 */
function backPressure(id: string, inputs: FlowInputs): Outcome<number, ExpelledCode> {
  const name = inputs.system.components.find((part) => part.id === id)!.name;
  const pressures: number[] = [];
  for (const fuelTemperature_K of [inputs.state.fuelTemperature_K, HOT_GAS_K]) {
    const at = { ...inputs, state: { ...inputs.state, fuelTemperature_K } };
    const network = partAround(compileNetwork(at, []), outletNode(id));
    const solved = solveNetwork(network);
    if (!solved.ok)
      return solved.error.code === 'no-path' || solved.error.code === 'no-boundary'
        ? failure('no-way-out', id, `From ${name} no way leads out to the open air.`)
        : failure('not-solved', solved.error.at, solved.error.detail);
    pressures.push(solved.value.nodes.get(outletNode(id))!.gauge_Pa);
  }
  return success(Math.max(...pressures));
}
