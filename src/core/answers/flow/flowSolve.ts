import { airWay, compileNetwork } from '../../model/compileNetwork';
import { inletNode, isStarved, outletNode, type Draw, type FlowInputs, type TankLevel } from '../../model/networkParts';
import { drivesOf, isElectric, isShutOff, kindOf, pumpPoints, voltsAtPump, type PumpDocument } from '../../components';
import { feedPath, type Circuits } from '../../plan/circuits';
import type { ComponentDocument, ConsumerDocument } from '../../plan/schema';
import {
  parsePumpCurve,
  partAround,
  wiredPumpLaw,
  withoutIslands,
  type NetworkCode,
  type NetworkSolution,
} from '../../network';
import { derived } from '../../memo';
import { failure, success, type Outcome } from '../../outcome';
import { solvedNetwork, withNames } from '../remembered';

export type FlowCode = NetworkCode | 'not-joined' | 'pickup-in-air' | 'vent-shut' | 'valve-shut' | 'dead-headed';

/** A solution with the voltage that each wired pump then has. */
export type SteadySolution = { readonly solution: NetworkSolution; readonly volts: ReadonlyMap<string, number> };

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
  const network = compileNetwork(inputs, [...draws, ...others]);
  const part = keep === undefined ? withoutIslands(network) : partAround(network, inletNode(keep));
  const solved = solvedNetwork(part);
  if (!solved.ok) return solved;
  const { supply_V } = inputs.state;
  const wired = inputs.system.components.filter(
    (each): each is PumpDocument =>
      each.kind === 'pump' && each.running && isElectric(each) && each.wiring !== undefined,
  );
  return success({
    solution: withNames(part, solved.value),
    volts: new Map(
      wired.map((pump) => [pump.id, voltsAtPump(supply_V, pump, workedAgainst_Pa(inputs, pump, solved.value))]),
    ),
  });
}

/**
 * What a pump's motor works against: the rise over it, and where its own check valve stands shut against more, what it
 * gives at no flow.
 */
export function workedAgainst_Pa({ state }: FlowInputs, pump: PumpDocument, solution: NetworkSolution): number {
  if (!pump.running || !solution.links.get(pump.id)?.shut) return riseOf(pump, solution);
  const { voltageRatio, shutOffVoltageRatio = voltageRatio } = drivesOf(pump, state.supply_V);
  // Its wires leave it nothing: it stands.
  if (!(voltageRatio > 0)) return 0;
  const curve = parsePumpCurve(pumpPoints(pump), pump.name);
  const law = curve.ok ? wiredPumpLaw(curve.value, voltageRatio, shutOffVoltageRatio, pump.name) : curve;
  return law.ok ? -law.value(0).pressure_Pa : 0;
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

/** Each question to a network asks it of every other consumer. */
const reasonsIn = derived((_: FlowInputs) => new Map<ConsumerDocument, Blocked | undefined>());

/** The plain reasons why nothing can flow to a consumer, before any solving. */
export function whyBlocked(inputs: FlowInputs, consumer: ConsumerDocument): Blocked | undefined {
  const known = reasonsIn(inputs);
  if (!known.has(consumer)) known.set(consumer, blockedBy(inputs, consumer));
  return known.get(consumer);
}

function blockedBy(inputs: FlowInputs, consumer: ConsumerDocument): Blocked | undefined {
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
