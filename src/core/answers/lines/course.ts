import { compileNetwork } from '../../model/compileNetwork';
import { isStarved, type FlowInputs, type TankLevel } from '../../model/networkParts';
import { levelForVolume } from '../../geometry';
import type { NetworkSolution } from '../../network';
import { unwrap } from '../../outcome';
import { drawable_m3 } from '../../tank';
import { steadySolution } from '../flow/flowSolve';

/**
 * Why a transfer ends: all is moved; its source has run dry to the pickup, or
 * its target is full to the limit; the levels have come to rest; nothing moves
 * at all; or the flow on the way is not known.
 */
export type TransferEnd = 'moved' | 'source-dry' | 'target-full' | 'at-rest' | 'nothing-moves' | 'failed';

export type TransferCourse = {
  readonly volume_m3: number;
  readonly time_s: number | undefined;
  readonly ends: TransferEnd;
  readonly endsAt: string | undefined;
};

/** Steps over the volume to be moved: each is one of Runge's midpoint method. */
const STEPS = 24;
/** Less than this is what seats leak [m³/s]. */
const MOVES_M3_PER_S = 1e-8;
/** A flow that a step would bring to less than this share of what it was is approached by halving the step. */
const FALLS = 0.5;
const LEAST_STEP = 1e-3;

type Volumes = ReadonlyMap<string, number>;

/**
 * How a transfer goes on as levels change: the flow is steady at every moment,
 * and the volume moved is what is stepped over, so that each tank's own gain
 * or loss follows from the flows at its mouths and pickups, whatever else
 * draws from it meanwhile.
 *
 * @param line through which the volume is counted
 * @param sense 1 as the line is written, -1 against it
 * @param asked_m3 to be moved
 */
export function transferCourse(
  inputs: FlowInputs,
  line: string,
  sense: 1 | -1,
  asked_m3: number,
  steps = STEPS,
): TransferCourse {
  let volumes: Volumes = new Map(inputs.levels.map(({ tank, volume_m3 }) => [tank.document.id, volume_m3]));
  let [moved, time] = [0, 0];
  const most = asked_m3 / steps;
  const ended = (ends: TransferEnd, endsAt?: string): TransferCourse => ({
    volume_m3: moved,
    time_s: moved > 0 && ends !== 'failed' ? time : undefined,
    ends: moved > 0 ? ends : ends === 'at-rest' ? 'nothing-moves' : ends,
    endsAt,
  });
  for (let turn = 0; turn < 40 * steps; turn++) {
    const left = asked_m3 - moved;
    if (left <= 1e-9 * asked_m3) return ended('moved');
    const now = ratesAt(inputs, volumes, line, sense);
    if (!now) return ended('failed');
    if (now.flow_m3PerS < MOVES_M3_PER_S) return ended(...whyStopped(inputs, volumes, now));
    const bound = nearestBound(inputs, volumes, now);
    if (bound.volume_m3 <= 1e-9 * asked_m3) return ended(bound.ends, bound.name);
    let step = Math.min(left, most, bound.volume_m3);
    let middle = ratesAt(inputs, after(volumes, now, step / 2), line, sense);
    while (middle && middle.flow_m3PerS < FALLS * now.flow_m3PerS && step > LEAST_STEP * most) {
      step /= 2;
      middle = ratesAt(inputs, after(volumes, now, step / 2), line, sense);
    }
    if (!middle) return ended('failed');
    if (middle.flow_m3PerS < MOVES_M3_PER_S) return ended(...whyStopped(inputs, after(volumes, now, step / 2), middle));
    time += step / middle.flow_m3PerS;
    volumes = after(volumes, middle, step);
    moved += step;
  }
  return ended('at-rest');
}

type Rates = { readonly flow_m3PerS: number; readonly gains: Volumes };

/** Flow through the line, and what each tank gains [m³/s], with so much in each. */
function ratesAt(inputs: FlowInputs, volumes: Volumes, line: string, sense: 1 | -1): Rates | undefined {
  const at = atVolumes(inputs, volumes);
  const solved = steadySolution(at, []);
  if (!solved.ok) return undefined;
  const { links } = solved.value.solution;
  return { flow_m3PerS: sense * (links.get(line)?.flow_m3PerS ?? 0), gains: gainsOf(at, links) };
}

function gainsOf({ levels }: FlowInputs, links: NetworkSolution['links']): Volumes {
  return new Map(
    levels.map(({ tank }) => [
      tank.document.id,
      tank.ports.reduce((sum, { document }) => sum + (links.get(`${document.id}:mouth`)?.flow_m3PerS ?? 0), 0) -
        tank.pickups.reduce((sum, { document }) => sum + (links.get(`${document.id}:tube`)?.flow_m3PerS ?? 0), 0),
    ]),
  );
}

/** The same system with other volumes in its tanks. */
function atVolumes(inputs: FlowInputs, volumes: Volumes): FlowInputs {
  return {
    ...inputs,
    levels: inputs.levels.map(({ tank, up }): TankLevel => {
      const volume_m3 = Math.min(tank.gross_m3, Math.max(0, volumes.get(tank.document.id)!));
      return { tank, volume_m3, up, offset_m: unwrap(levelForVolume(tank.mesh, up, volume_m3)).offset_m };
    }),
  };
}

/** Volumes after so much more has passed the line. */
const after = (volumes: Volumes, { flow_m3PerS, gains }: Rates, step_m3: number): Volumes =>
  new Map([...volumes].map(([id, volume]) => [id, volume + (gains.get(id)! / flow_m3PerS) * step_m3]));

type Bound = { readonly volume_m3: number; readonly ends: TransferEnd; readonly name: string };

/**
 * What can still pass until a tank that is drawn from is down to its pickup, or one that fills is full to its limit.
 */
function nearestBound({ levels }: FlowInputs, volumes: Volumes, { flow_m3PerS, gains }: Rates): Bound {
  const bounds = levels.flatMap(({ tank, up }): Bound[] => {
    const { id, name } = tank.document;
    const gain = gains.get(id)!;
    // Rounding may leave less than nothing in it.
    const volume = Math.min(tank.gross_m3, Math.max(0, volumes.get(id)!));
    if (gain > MOVES_M3_PER_S)
      return [
        {
          volume_m3: ((tank.gross_m3 * tank.document.fillLimit_ratio.value - volume) / gain) * flow_m3PerS,
          ends: 'target-full',
          name,
        },
      ];
    if (gain > -MOVES_M3_PER_S) return [];
    const drawable = tank.pickups.map(({ inlet }) => drawable_m3(tank, inlet, up, volume)).filter((some) => some > 0);
    return drawable.length === 0
      ? []
      : [{ volume_m3: (Math.min(...drawable) / -gain) * flow_m3PerS, ends: 'source-dry', name }];
  });
  return bounds.reduce((least, each) => (each.volume_m3 < least.volume_m3 ? each : least), {
    volume_m3: Infinity,
    ends: 'at-rest',
    name: '',
  });
}

/** Nothing passes any more: a pickup draws air, or the levels keep it. */
function whyStopped(inputs: FlowInputs, volumes: Volumes, { gains }: Rates): [TransferEnd, string | undefined] {
  const dry = atVolumes(inputs, volumes).levels.find(
    (level) =>
      level.tank.pickups.length > 0 &&
      level.tank.pickups.every((pickup) => isStarved(level, pickup)) &&
      (gains.get(level.tank.document.id) ?? 0) <= MOVES_M3_PER_S &&
      touches(inputs, level),
  );
  return dry ? ['source-dry', dry.tank.document.name] : ['at-rest', undefined];
}

const touches = (inputs: FlowInputs, { tank }: TankLevel): boolean =>
  compileNetwork(inputs, []).links.some(({ id }) => tank.pickups.some(({ document }) => id === `${document.id}:tube`));
