import { airWay } from '../../model/compileNetwork';
import { atVolts, compileNetwork } from '../../model/compileNetwork';
import {
  inletNode,
  isStarved,
  outletNode,
  pumpVolts,
  type Draw,
  type FlowInputs,
  type TankLevel,
} from '../../model/networkParts';
import { isElectric, isShutOff, kindOf, type PumpDocument } from '../../components';
import { feedPath, type Circuits } from '../../plan/circuits';
import type { ComponentDocument, ConsumerDocument } from '../../plan/schema';
import { partAround, withoutIslands, type NetworkCode, type NetworkSolution } from '../../network';
import { failure, success, type Outcome } from '../../outcome';
import { voltsAtPump } from './electrics';
import { solvedNetwork, withNames } from '../remembered';

export type FlowCode = NetworkCode | 'not-joined' | 'pickup-in-air' | 'vent-shut' | 'valve-shut' | 'dead-headed';

/** A solution with the voltage that each wired pump then has. */
export type SteadySolution = { readonly solution: NetworkSolution; readonly volts: ReadonlyMap<string, number> };

const VOLT_ROUNDS = 40;
const VOLTS_SETTLED = 1e-6;

/**
 * Steady flow with the draws asked for, all other consumers that can be fed
 * drawing what they need, and every pump at the voltage that its own current
 * leaves it.
 *
 * @param keep consumer whose part of the system is looked at; all of it where left out
 */
export function steadySolution(
  inputs: FlowInputs,
  draws: readonly Draw[],
  keep?: string,
): Outcome<SteadySolution, NetworkCode> {
  const asked = new Set(draws.map(({ consumer }) => consumer));
  const others = inputs.system.consumers
    .filter((other) => !asked.has(other.id) && !whyBlocked(inputs, other))
    .map((other): Draw => ({ consumer: other.id, outflow_m3PerS: other.neededFlow_m3PerS.value }));
  const all = [...draws, ...others];
  const wired = inputs.system.components.filter(
    (part): part is PumpDocument =>
      part.kind === 'pump' && part.running && isElectric(part) && part.wiring !== undefined,
  );
  const network = compileNetwork(inputs, all);
  const part = keep === undefined ? withoutIslands(network) : partAround(network, inletNode(keep));
  const settled = remembered(inputs);
  const searches = new Map(
    wired.map((pump) => [pump.id, voltsFrom(pumpVolts(inputs, pump.id), settled.get(pump.id)?.slope)]),
  );
  let volts = new Map(wired.map((pump) => [pump.id, settled.get(pump.id)?.volts ?? pumpVolts(inputs, pump.id)]));
  for (let round = 0; ; round++) {
    const solved = solvedNetwork(atVolts(part, inputs, volts));
    if (!solved.ok) return solved;
    const next = new Map(wired.map((pump) => [pump.id, voltsAtPump(inputs.state, pump, riseOf(pump, solved.value))]));
    const moving = wired.find(({ id }) => !(Math.abs(next.get(id)! - volts.get(id)!) < VOLTS_SETTLED));
    if (!moving) {
      for (const { id } of wired) settled.set(id, { volts: volts.get(id)!, slope: searches.get(id)!.slope() });
      return success({ solution: withNames(part, solved.value), volts });
    }
    if (round === VOLT_ROUNDS)
      return failure(
        'not-settled',
        moving.name,
        `The voltage at ${moving.name} does not settle: its wires lose so much that its current and its pressure chase each other. Thicker or shorter wire mends it.`,
      );
    volts = new Map(wired.map(({ id }) => [id, searches.get(id)!.next(volts.get(id)!, next.get(id)!)]));
  }
}

type SettledVolts = { readonly volts: number; readonly slope: number };

/** Where the pumps of a system settled last: the next question is mostly near. */
const settledVolts = new WeakMap<FlowInputs, Map<string, SettledVolts>>();

function remembered(inputs: FlowInputs): Map<string, SettledVolts> {
  const kept = settledVolts.get(inputs) ?? new Map<string, SettledVolts>();
  settledVolts.set(inputs, kept);
  return kept;
}

/**
 * The search for a voltage that leaves itself: more volts, more pressure, more
 * current, fewer volts, so that what is left falls as what is tried rises, and
 * there is but one. By the secant, and half way where that leads out of what
 * is known to hold it.
 *
 * @param known slope of what is left over what is tried, from a search nearby
 */
function voltsFrom(
  supply_V: number,
  known = -1,
): { readonly next: (tried_V: number, left_V: number) => number; readonly slope: () => number } {
  let [low, high, slope] = [0, supply_V, known];
  let before: { readonly tried: number; readonly over: number } | undefined;
  return {
    slope: () => slope,
    next: (tried, left) => {
      const over = left - tried;
      if (over > 0) low = Math.max(low, tried);
      else high = Math.min(high, tried);
      if (before && tried !== before.tried) slope = Math.min(-1, (over - before.over) / (tried - before.tried));
      before = { tried, over };
      const next = tried - over / slope;
      return next > low && next < high ? next : (low + high) / 2;
    },
  };
}

/** Rise of pressure over a pump; none where it takes no part. */
export function riseOf(pump: Pick<PumpDocument, 'id'>, { nodes }: NetworkSolution): number {
  const [inlet, outlet] = [nodes.get(inletNode(pump.id)), nodes.get(outletNode(pump.id))];
  return inlet && outlet ? outlet.gauge_Pa - inlet.gauge_Pa : 0;
}

type Blocked = {
  readonly ok: false;
  readonly error: { readonly code: FlowCode; readonly at: string; readonly detail: string };
};

/** The plain reasons why nothing can flow to a consumer, before any solving. */
export function whyBlocked(inputs: FlowInputs, consumer: ConsumerDocument): Blocked | undefined {
  const { system, levels } = inputs;
  const path = feedPath(system, consumer.id);
  const source = path.at(-1)!;
  const level = levels.find(({ tank }) => tank.document.pickups.some((pickup) => pickup.id === source));
  if (!level) return failure('not-joined', consumer.name, `No line leads from a tank's pickup to ${consumer.name}.`);
  const pickup = level.tank.pickups.find(({ document }) => document.id === source);
  if (!pickup || isStarved(level, pickup))
    return failure(
      'pickup-in-air',
      source,
      `At this fill and slope the pickup of ${level.tank.document.name} draws air.`,
    );
  const stop = shutOn(system, path);
  if (stop) return shutAway(system, path, stop);
  return airBlocked(inputs, level);
}

function airBlocked(inputs: FlowInputs, level: TankLevel): Blocked | undefined {
  const { name } = level.tank.document;
  const air = airWay(inputs, level);
  switch (air.way) {
    case 'open':
      return undefined;
    case 'none':
      return failure('vent-shut', name, `${name} has no vent: no air follows the fuel out.`);
    case 'flooded':
      return failure(
        'vent-shut',
        name,
        `Every vent of ${name} lies under the liquid at this fill and slope: no air follows freely.`,
      );
    case 'shut':
      return failure('vent-shut', name, `${air.by} shuts the vent line of ${name}: no air follows the fuel out.`);
    case 'leaning':
      return failure(
        'vent-shut',
        name,
        `At this lean the valve of ${air.by} shuts ${name} off: no air follows the fuel out.`,
      );
    case 'sealed':
      return failure(
        'vent-shut',
        name,
        `The vent line of ${name} comes nowhere to the open: no air follows the fuel out.`,
      );
  }
}

/** The first part on a way that somebody has shut, from the tank on. */
function shutOn(system: Circuits, path: readonly string[]): ComponentDocument | undefined {
  return [...path]
    .reverse()
    .map((id) => system.components.find((part) => part.id === id))
    .find((part) => part !== undefined && (isShutOff(part) || turnedAway(system, path, part)));
}

/** True of a part whose position does not join the two ends that a way uses. */
function turnedAway(system: Circuits, path: readonly string[], part: ComponentDocument): boolean {
  const pairs = kindOf(part).joins?.(part);
  if (!pairs) return false;
  const at = path.indexOf(part.id);
  const [after, before] = [path[at - 1], path[at + 1]].map((id) => system.lines.find((line) => line.id === id));
  if (!after || !before) return false;
  return !pairs.some((pair) => pair.includes(after.from.end) && pair.includes(before.to.end));
}

function shutAway(system: Circuits, path: readonly string[], stop: ComponentDocument): Blocked {
  const words = `${stop.name} ${kindOf(stop).inTheWay ?? 'is shut'}.`;
  const pump = path
    .slice(path.indexOf(stop.id))
    .map((id) => system.components.find((part) => part.id === id))
    .find((part): part is PumpDocument => part?.kind === 'pump' && part.running);
  if (!pump || pump.relief_Pa) return failure('valve-shut', stop.name, words);
  return failure(
    'dead-headed',
    stop.name,
    `${words} ${pump.name} runs against it and moves nothing: it heats up, and its line stands at the most that it can push.`,
  );
}
