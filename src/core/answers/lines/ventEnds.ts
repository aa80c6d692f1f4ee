import { dot, effectiveGravity, subtract, type Vec3 } from '../../geometry';
import { envelopeOf } from '../../model/compileTank';
import { partPositions, type FlowInputs } from '../../model/networkParts';
import { unwrap } from '../../outcome';
import { joinedTo } from '../../plan/circuits';
import type { Plan } from '../../plan/schema';
import { envelopeSteps } from '../../tank';
import { waterplaneOf } from '../../weight';

/** Where a vent comes to the open: at the end of what is on it, or at its port. */
export type VentEnd = {
  readonly port: string;
  readonly name: string;
  /** The part that it ends at; none where nothing is on it. */ readonly end: string | undefined;
  /** In vehicle axes; undefined where the plan does not say. */ readonly at_m: Vec3 | undefined;
};

/** A vent that is no longer than this ends where its port is; where a longer one ends it does not say [m]. */
const STUB_M = 0.06;

/** Of each vent of each tank, in the plan's order; those that end in another tank or a can are left out. */
export function ventEndsOf({ system, levels }: Pick<FlowInputs, 'system' | 'levels'>): VentEnd[] {
  const positions = partPositions(system, levels);
  return system.tanks.flatMap(({ ports }) =>
    ports.flatMap(({ id, name, role, length_m }): VentEnd[] => {
      if (role !== 'vent') return [];
      const vents = { lines: system.lines.filter(({ purpose }) => purpose === 'vent' || purpose === 'overflow') };
      const joined = joinedTo(vents, [id]);
      const end = system.components.find((part) => part.kind === 'outlet' && joined.has(part.id));
      const others = system.tanks.flatMap((tank) => (tank.ports === ports ? [] : tank.ports.map((port) => port.id)));
      if (!end && others.some((other) => joined.has(other))) return [];
      if (end?.kind === 'outlet' && end.place === 'can') return [];
      // What is on it and ends nowhere is not placed either.
      const isKnown = end !== undefined || (joined.size === 1 && length_m.value <= STUB_M);
      return [
        { port: id, name: end?.name ?? name, end: end?.id, at_m: isKnown ? positions.get(end?.id ?? id) : undefined },
      ];
    }),
  );
}

/** How high something is over the water that a hull floats in, or over the ground. */
export type OverWater =
  | {
      readonly over: 'water';
      /** As it floats when weighed; and the least at the slopes asked for [m]. */
      readonly level_m: number;
      readonly leaning_m: number;
    }
  | { readonly over: 'ground'; readonly level_m: number };

/**
 * @param at_m in vehicle axes
 * @returns undefined where nothing is said of a hull, nor of the ground
 */
export function overWater(plan: Pick<Plan, 'stance' | 'envelope'>, at_m: Vec3): OverWater | undefined {
  const { stance } = plan;
  if (stance?.hull) {
    const { stations, waterline_m } = stance.hull;
    const plane = waterplaneOf(stations.map(({ x_m, beam_m }) => ({ x_m: x_m.value, beam_m: beam_m.value })));
    if (!plane) return undefined;
    // A hull that is leant by a little turns about the middle of its waterline, and neither sinks nor rises.
    const from: Vec3 = [plane.middle_m, stance.middle_m.value, waterline_m.value];
    const heightAt = (pitch_rad: number, roll_rad: number): number => {
      const { up } = unwrap(effectiveGravity({ pitch_rad, roll_rad, acceleration_mPerS2: [0, 0, 0] }));
      return dot(up, subtract(at_m, from));
    };
    const { pitch_rad, roll_rad } = envelopeOf(plan);
    return {
      over: 'water',
      level_m: heightAt(0, 0),
      leaning_m: Math.min(
        ...envelopeSteps(pitch_rad).flatMap((pitch) => envelopeSteps(roll_rad).map((roll) => heightAt(pitch, roll))),
      ),
    };
  }
  const ground_m = stance?.height?.ground_m.value;
  return ground_m === undefined ? undefined : { over: 'ground', level_m: at_m[2] - ground_m };
}
