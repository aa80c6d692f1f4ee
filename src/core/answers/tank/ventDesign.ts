import { airState, fluidState } from '../../fluids';
import {
  dot,
  effectiveGravity,
  flatFaces,
  levelForVolume,
  onFace,
  toTankFrame,
  type FlatFace,
  type Vec3,
} from '../../geometry';
import { envelopeOf, type TankModel } from '../../model/compileTank';
import { ventLossLaw } from '../../model/vents';
import { ventLaw } from '../../network';
import { failure, success, type Outcome } from '../../outcome';
import { reachedTanks } from '../../plan/circuits';
import type { PlanAt } from '../../plan/schema';
import { BULK } from '../../reference/bulk';
import { PANEL_STOCKS } from '../../reference/panelStock';
import { VENT_HOLES_M, VENT_HOSES_M, VENT_USUAL } from '../../reference/vents';
import { envelopeSteps, panelBulge_m, panelYields_Pa } from '../../tank';
import { ZERO_CELSIUS_K } from '../../units';
import { documentAt, type EvaluationCode } from '../at';
import { overWater, type OverWater } from '../lines';
import { evaluateSystem, type Evaluation } from '../evaluate';

/** A limit on what presses, and whose it is: the builder's, the usual one, or what the walls bear. */
export type VentLimit = { readonly value_Pa: number; readonly by: 'said' | 'usual' | 'walls' };

/** A flat wall between edges and baffles, as the rectangle round it. */
export type FlatWall = {
  /** Which way it looks, in the tank's frame. */ readonly normal: Vec3;
  readonly wide_m: number;
  readonly long_m: number;
  readonly yields_Pa: number;
  /** How far it stands out at the larger of the two limits. */ readonly bulge_m: number;
};

/** A size of a vent, and what it comes to. */
export type VentSize = {
  readonly kind: 'hole' | 'hose';
  readonly bore_m: number;
  readonly under_Pa: number;
  readonly over_Pa: number;
  readonly isEnough: boolean;
};

/** How high the line of a vent has to rise over its port, straight up from it, so that nothing runs out. */
export type VentRise = {
  readonly id: string;
  readonly name: string;
  /** At the slopes asked for, standing; and at the hardest that it brakes, drives and corners. */
  readonly standing_m: number;
  readonly moving_m: number;
  /** What it ends at, and how high that is; undefined where it ends in a can or tank, or where that is not said. */
  readonly end: { readonly name: string; readonly isPlaced: boolean; readonly over: OverWater | undefined } | undefined;
};

export type VentDesign = {
  readonly fill_m3PerS: number;
  /** Most that is drawn at once, and what of it each takes. */ readonly draw_m3PerS: number;
  readonly drawn: readonly { readonly name: string; readonly flow_m3PerS: number }[];
  /** Why it is not known what pumps move out of it, where it is not: that comes on top. */
  readonly drawUnknown: string | undefined;
  readonly over: VentLimit;
  readonly under: VentLimit;
  /** The one that gives first; none where it has no flat wall, or its metal is not known. */
  readonly wall: FlatWall | undefined;
  /** Why no wall is judged. */ readonly whyNoWall: 'no-flats' | 'unknown-metal' | undefined;
  readonly hoseLength_m: number;
  readonly sizes: readonly VentSize[];
  /** The least that does, to the micrometre. */ readonly least: Readonly<Record<'hole' | 'hose', number | undefined>>;
  /** What its own vents come to together. */ readonly now:
    Pick<VentSize, 'over_Pa' | 'under_Pa' | 'isEnough'> | undefined;
  readonly rises: readonly VentRise[];
  readonly heat: Outcome<Heat, EvaluationCode>;
  /** An overflow can that takes what heat and the worst slope drive out, once; not known where heat is not. */
  readonly can_m3: number | undefined;
};

/** Filled to its limit at the set temperature, and warmed. */
export type Heat = {
  readonly cold_K: number;
  readonly hot_K: number;
  readonly filled_m3: number;
  readonly hot_m3: number;
  readonly free_m3: number;
  /** Runs over; 0 where there is room. */ readonly over_m3: number;
  /** To be filled to no more than this share, so that it stays within [-]. */ readonly most_ratio: number;
  /** What is in it at other temperatures, each as a share of what it is at 15 °C: the volume correction factor. */
  readonly corrections: readonly VolumeCorrection[];
  /** What a line that is full and shut at both ends rises by for each kelvin, if its walls give nothing [Pa/K]. */
  readonly locked_PaPerK: number;
};
/** A filling at a temperature: times the factor it is what it would be at 15 °C. */
export type VolumeCorrection = {
  readonly temperature_K: number;
  readonly factor_ratio: number;
  readonly volume_m3: number;
  /** Beyond where the law of its density is said to hold. */ readonly isExtrapolated: boolean;
};
export type VentDesignCode = EvaluationCode | 'no-such-tank';

/** What a drilled hole is long [m]: a sheet's thickness, or a cap's. */
const HOLE_LENGTH_M = 0.002;
/** A vent that is not there yet gets a hose so long [m]. */
const USUAL_HOSE_M = 1;
/** Common practice, as the rule has it: a small tank is poured full in no less than this [s]. */
const FASTEST_FILL_S = 20;
const [LEAST_M, MOST_M] = [1e-4, 0.2];
/** Widths smaller than this are folds and flanges, and no wall [m]. */
const LEAST_WALL_M = 0.03;
/** A baffle holds a wall that it runs along within so much [m]. */
const REACHES_M = 0.005;

/** What the vent of a tank has to be: for how it is filled and drawn from, how it leans, and how warm it gets. */
export function ventDesign(system: PlanAt, t: number): Outcome<VentDesign, VentDesignCode> {
  const at = documentAt(system);
  if (!at.ok) return at;
  const tank = at.value.model.tanks[t];
  if (!tank) return failure('no-such-tank', 'tank', `There is no tank ${t}; there are ${at.value.model.tanks.length}.`);
  const evaluated = evaluateSystem(system, 'full', 'without-fit');
  if (!evaluated.ok) return evaluated;
  const { document, gross_m3 } = tank;
  const { limits } = system;
  const { fuelTemperature_K, ambientAbs_Pa } = at.value.state;
  const holds_m3 = gross_m3 * document.fillLimit_ratio.value;
  const fill_m3PerS = limits.fill_m3PerS?.value ?? Math.min(VENT_USUAL.fill_m3PerS, holds_m3 / FASTEST_FILL_S);
  const drawn = drawnFrom(system, evaluated.value, t);
  const draw_m3PerS = drawn.reduce((sum, { flow_m3PerS }) => sum + flow_m3PerS, 0);
  const weakest = weakestWall(tank);
  const limit = (given: number | undefined, usual: number): VentLimit => {
    if (given !== undefined) return { value_Pa: given, by: 'said' };
    const walls = weakest.wall && VENT_USUAL.share * weakest.wall.yields_Pa;
    return walls !== undefined && walls < usual ? { value_Pa: walls, by: 'walls' } : { value_Pa: usual, by: 'usual' };
  };
  const over = limit(limits.over_Pa?.value, VENT_USUAL.over_Pa);
  const under = limit(limits.under_Pa?.value, VENT_USUAL.under_Pa);
  const air = airState(fuelTemperature_K, ambientAbs_Pa);
  const vents = document.ports.filter(({ role }) => role === 'vent');
  const hoseLength_m = vents[0]?.length_m.value ?? USUAL_HOSE_M;
  const lengthOf = (kind: VentSize['kind']): number => (kind === 'hole' ? HOLE_LENGTH_M : hoseLength_m);
  const pressed = (bore_m: number, length_m: number) => {
    // What stands in the vent that is there stands in each size of it.
    const law = vents[0] ? ventLossLaw(vents[0], air, bore_m, length_m) : ventLaw(bore_m, length_m, air);
    return { under_Pa: law(draw_m3PerS).pressure_Pa, over_Pa: law(fill_m3PerS).pressure_Pa };
  };
  const isEnough = (by: { readonly under_Pa: number; readonly over_Pa: number }): boolean =>
    by.under_Pa <= under.value_Pa && by.over_Pa <= over.value_Pa;
  const sizes = (
    [
      ['hole', VENT_HOLES_M],
      ['hose', VENT_HOSES_M],
    ] as const
  ).flatMap(([kind, bores]) =>
    bores.map((bore_m): VentSize => {
      const by = pressed(bore_m, lengthOf(kind));
      return { kind, bore_m, ...by, isEnough: isEnough(by) };
    }),
  );
  const least = (kind: VentSize['kind']): number | undefined => {
    let [low, high] = [LEAST_M, MOST_M];
    if (!isEnough(pressed(high, lengthOf(kind)))) return undefined;
    while (high - low > 1e-7) {
      const middle = (low + high) / 2;
      if (isEnough(pressed(middle, lengthOf(kind)))) high = middle;
      else low = middle;
    }
    return high;
  };
  const now = sharedBy(
    vents.map((vent) => (flow: number) => ventLossLaw(vent, air)(flow).pressure_Pa),
    fill_m3PerS,
    draw_m3PerS,
  );
  const heat = heated(tank, fuelTemperature_K, limits.hot_K?.value ?? VENT_USUAL.hot_K);
  const lost_m3 = Math.max(0, ...evaluated.value.tanks[t]!.floodedVents.map((vent) => vent.lost_m3));
  return success({
    fill_m3PerS,
    draw_m3PerS,
    drawn,
    drawUnknown: evaluated.value.lines?.circuits.failed,
    over,
    under,
    wall: weakest.wall && { ...weakest.wall, bulge_m: weakest.bulge_m(Math.max(over.value_Pa, under.value_Pa)) },
    whyNoWall: weakest.why,
    hoseLength_m,
    sizes,
    least: { hole: least('hole'), hose: least('hose') },
    now: now && { ...now, isEnough: isEnough(now) },
    rises: vents.map((vent) => ({
      ...riseOver(system, tank, vent, holds_m3),
      end: endOf(system, evaluated.value, vent.id),
    })),
    heat,
    can_m3: heat.ok ? heat.value.over_m3 + lost_m3 : undefined,
  });
}

/** What is drawn from a tank when all that it feeds take what they need, and pumps move what they move. */
function drawnFrom(system: PlanAt, { lines }: Evaluation, t: number): VentDesign['drawn'] {
  const tank = system.tanks[t]!;
  const fed = system.consumers
    .filter(({ id }) => reachedTanks(system, id).some((reached) => reached.tank === t))
    .map(({ name, neededFlow_m3PerS }) => ({ name, flow_m3PerS: neededFlow_m3PerS.value }));
  const own = new Set(tank.pickups.map(({ id }) => id));
  const moved = (lines?.circuits.transfers ?? []).flatMap(({ name, line, flow_m3PerS }) =>
    sourceOf(system, line).some((item) => own.has(item)) ? [{ name, flow_m3PerS: Math.max(0, flow_m3PerS) }] : [],
  );
  return [...fed, ...moved].filter(({ flow_m3PerS }) => flow_m3PerS > 0);
}

/** What stands before a line, back to where it comes from. */
function sourceOf({ lines }: Pick<PlanAt, 'lines'>, line: string): readonly string[] {
  const items: string[] = [];
  let at = lines.find(({ id }) => id === line);
  while (at && !items.includes(at.from.item)) {
    const { item } = at.from;
    items.push(item);
    at = lines.find(({ to }) => to.item === item);
  }
  return items;
}

/** What vents come to that share a flow: all of them at one pressure. */
function sharedBy(
  laws: readonly ((flow_m3PerS: number) => number)[],
  fill_m3PerS: number,
  draw_m3PerS: number,
): { readonly over_Pa: number; readonly under_Pa: number } | undefined {
  if (laws.length === 0) return undefined;
  const flowAt = (law: (flow: number) => number, pressure_Pa: number): number =>
    bisected((flow) => law(flow) - pressure_Pa, 1);
  const pressureFor = (flow_m3PerS: number): number =>
    bisected((pressure_Pa) => laws.reduce((sum, law) => sum + flowAt(law, pressure_Pa), 0) - flow_m3PerS, 1e7);
  const [only] = laws;
  return laws.length === 1
    ? { over_Pa: only!(fill_m3PerS), under_Pa: only!(draw_m3PerS) }
    : { over_Pa: pressureFor(fill_m3PerS), under_Pa: pressureFor(draw_m3PerS) };
}

/** Where what grows from below nothing comes to nothing, between 0 and the most. */
function bisected(value: (x: number) => number, most: number): number {
  let [low, high] = [0, most];
  for (let n = 0; n < 60; n++) {
    const middle = (low + high) / 2;
    if (value(middle) >= 0) high = middle;
    else low = middle;
  }
  return high;
}

type Weakest = {
  readonly wall: Omit<FlatWall, 'bulge_m'> | undefined;
  readonly why: VentDesign['whyNoWall'];
  readonly bulge_m: (pressure_Pa: number) => number;
};

/** The flat wall that gives first, between the baffles that hold it. */
function weakestWall({ document, body }: TankModel): Weakest {
  const stock = PANEL_STOCKS[document.material.alloy];
  const none = { wall: undefined, bulge_m: () => 0 };
  if (!stock) return { ...none, why: 'unknown-metal' };
  const thickness_m = document.material.thickness_m.value;
  const walls = flatFaces(body.shell).flatMap((face) => {
    const [wide_m, long_m] = freeSpan(face, body.plates);
    const panel = { wide_m, long_m, thickness_m, modulus_Pa: stock.modulus_Pa, poisson: stock.poisson };
    return Math.min(wide_m, long_m) < LEAST_WALL_M
      ? []
      : [
          {
            panel,
            wall: { normal: face.frame.normal, wide_m, long_m, yields_Pa: panelYields_Pa(panel, stock.yield_Pa) },
          },
        ];
  });
  const [first] = walls.sort((a, b) => a.wall.yields_Pa - b.wall.yields_Pa);
  return first
    ? { wall: first.wall, why: undefined, bulge_m: (pressure_Pa) => panelBulge_m(first.panel, pressure_Pa) }
    : { ...none, why: 'no-flats' };
}

/** The largest rectangle of a face that no baffle divides: the longest stretch along each of its axes. */
function freeSpan({ frame, loops }: FlatFace, plates: TankModel['body']['plates']): readonly [number, number] {
  const outer = loops[0]!;
  const spans = ([0, 1] as const).map((k) => {
    const along = k === 0 ? frame.u : frame.v;
    const far = Math.max(...outer.map((point) => point[k]));
    const cuts = plates.flatMap(({ plate }): number[] => {
      // A baffle that stops short of a wall does not hold it.
      if (plate.topGap_m > REACHES_M && frame.normal[2] > Math.SQRT1_2) return [];
      const across = along[plate.axis];
      if (Math.abs(across) < Math.SQRT1_2) return [];
      const corner = onFace(frame, [0, 0]);
      const at = (plate.at_m - corner[plate.axis]) / across;
      return at > 0 && at < far ? [at] : [];
    });
    const stops = [0, ...cuts.sort((a, b) => a - b), far];
    return Math.max(...stops.slice(1).map((stop, i) => stop - stops[i]!));
  });
  return [Math.min(...spans), Math.max(...spans)];
}

type Vent = PlanAt['tanks'][number]['ports'][number];

function endOf(system: PlanAt, { lines }: Evaluation, vent: string): VentRise['end'] {
  const end = lines?.ventEnds.find(({ port }) => port === vent);
  return end && { name: end.name, isPlaced: end.at_m !== undefined, over: end.at_m && overWater(system, end.at_m) };
}

function riseOver(system: PlanAt, tank: TankModel, vent: Vent, holds_m3: number): Omit<VentRise, 'end'> {
  const point = tank.ports.find(({ document }) => document.id === vent.id)!.point_m;
  const rise = (pitch_rad: number, roll_rad: number, acceleration_mPerS2: Vec3): number => {
    const gravity = effectiveGravity({ pitch_rad, roll_rad, acceleration_mPerS2 });
    if (!gravity.ok) return 0;
    const up = toTankFrame(gravity.value.up, tank.mounting);
    const level = levelForVolume(tank.mesh, up, holds_m3);
    // Beyond a quarter turn no rise from the lid helps.
    if (!level.ok || up[2] <= 0) return Infinity;
    return Math.max(0, (level.value.offset_m - dot(up, point)) / up[2]);
  };
  const { pitch_rad, roll_rad } = envelopeOf(system);
  const { braking_mPerS2: brakes, driving_mPerS2: drives, cornering_mPerS2: corners } = system.envelope;
  const standing_m = Math.max(
    ...envelopeSteps(pitch_rad).flatMap((pitch) => envelopeSteps(roll_rad).map((roll) => rise(pitch, roll, [0, 0, 0]))),
  );
  const moving: readonly Vec3[] = [
    [-brakes.value, 0, 0],
    [drives.value, 0, 0],
    [0, corners.value, 0],
    [0, -corners.value, 0],
  ];
  return {
    id: vent.id,
    name: vent.name,
    standing_m,
    moving_m: Math.max(...moving.map((acceleration) => rise(0, 0, acceleration))),
  };
}

/** From a hard frost to a tank in the sun [°C]. */
const CORRECTED_C = [-20, 0, 15, 30, 45, 60] as const;
const REFERENCE_C = 15;

/** A filling that has a density at the volume that is known, at other temperatures. */
function correctionsOf(batch: TankModel['batch'], filled_m3: number, filled_kgPerM3: number): VolumeCorrection[] {
  const at = (celsius: number) => fluidState(batch, celsius + ZERO_CELSIUS_K);
  const reference = at(REFERENCE_C);
  if (!reference.ok) return [];
  return CORRECTED_C.flatMap((celsius): VolumeCorrection[] => {
    const state = at(celsius);
    if (!state.ok) return [];
    const { density_kgPerM3, extrapolated } = state.value;
    return [
      {
        temperature_K: celsius + ZERO_CELSIUS_K,
        factor_ratio: density_kgPerM3 / reference.value.density_kgPerM3,
        volume_m3: (filled_m3 * filled_kgPerM3) / density_kgPerM3,
        isExtrapolated: extrapolated,
      },
    ];
  });
}

/** What a filling comes to as it warms, by its densities. */
function heated(
  { batch, gross_m3, document }: TankModel,
  cold_K: number,
  hot_K: number,
): Outcome<Heat, EvaluationCode> {
  const [cold, hot] = [fluidState(batch, cold_K), fluidState(batch, hot_K)];
  if (!cold.ok) return cold;
  if (!hot.ok) return hot;
  const grows = cold.value.density_kgPerM3 / hot.value.density_kgPerM3;
  const filled_m3 = gross_m3 * document.fillLimit_ratio.value;
  const hot_m3 = filled_m3 * grows;
  return success({
    cold_K,
    hot_K,
    filled_m3,
    hot_m3,
    free_m3: gross_m3 - filled_m3,
    over_m3: Math.max(0, hot_m3 - gross_m3),
    most_ratio: Math.min(1, 1 / grows),
    corrections: correctionsOf(batch, filled_m3, cold.value.density_kgPerM3),
    locked_PaPerK: BULK.modulus_Pa * cold.value.expansion_perK,
  });
}
