import { FACE_SIDES, type ObstacleDocument, type SystemDocument, type WayStep } from '@/core/plan';
import type { FitGap, TankChange } from '@/core/answers';
import { formatQuantity, type Reader } from '@/core/units';
import type { Sides } from '../state/sides';

export const ROLE_WORDS: Readonly<Record<ObstacleDocument['role'], string>> = {
  obstacle: 'in the way',
  heat: 'hot',
  spray: 'what wheels throw',
  occupied: 'occupied space',
  reach: 'must stay reachable',
  fixing: 'may be fastened to',
};
export const WALL_WORDS = { wall: 'wall', open: 'open', removable: 'comes off' } as const;
export const HOW_WORDS = {
  straight: 'point to point',
  along: 'along the bay',
  across: 'across',
  up: 'upright',
} as const;

const size = (value_m: number, reader: Reader): string => formatQuantity(Math.abs(value_m), 'tape', { reader }).text;

/** Where of its travel a moving obstacle is when it comes nearest. */
export function travelWords(system: SystemDocument, gap: FitGap): string {
  const obstacle = system.fit.obstacles.find(({ id }) => id === gap.to);
  if (!obstacle || obstacle.motions.length === 0) return '';
  return obstacle.motions
    .map((motion, i) => {
      const at = gap.at[i] ?? 0;
      const [from, to] =
        motion.kind === 'slide'
          ? [motion.from_m.value, motion.to_m.value]
          : [(motion.from_deg.value * Math.PI) / 180, (motion.to_deg.value * Math.PI) / 180];
      const share = (at - from) / (to - from);
      return share < 0.02
        ? `at ${motion.fromName}`
        : share > 0.98
          ? `at ${motion.toName}`
          : Math.abs(at) < 0.02 * (to - from)
            ? 'at rest'
            : `${Math.round(100 * share)} % from ${motion.fromName} to ${motion.toName}`;
    })
    .join(', ');
}

const FACE_WORDS = {
  lid: 'Lid lowered',
  floor: 'Floor raised',
  fore: 'Fore face moved aft',
  aft: 'Aft face moved forward',
  port: 'Port side moved in',
  starboard: 'Starboard side moved in',
} as const;

/** A change of a tank as a builder says it. */
export function changeWords(change: TankChange, sides: Sides, reader: Reader): string {
  if (change.kind === 'face') return `${sides(FACE_WORDS[change.face])} ${size(change.by_m, reader)}`;
  if (change.kind === 'corner')
    return `${change.faces.map((face) => sides(FACE_SIDES[face])).join(' and ')} edge cut, ${size(change.leg_m, reader)} legs`;
  if (change.kind === 'notch')
    return `${change.name}: cut out ${change.size_m.map((value) => size(value, reader)).join(' × ')}`;
  return `Move the tank ${shiftWords(change.forward_m, change.toPort_m, change.up_m, sides, reader) || 'nowhere'}`;
}

function shiftWords(forward_m: number, toPort_m: number, up_m: number, sides: Sides, reader: Reader): string {
  const parts = [
    [forward_m, 'forward', 'aft'],
    [toPort_m, 'to port', 'to starboard'],
    [up_m, 'up', 'down'],
  ] as const;
  return parts
    .filter(([value]) => Math.abs(value) > 5e-4)
    .map(([value, plus, minus]) => `${sides(value > 0 ? plus : minus)} ${size(value, reader)}`)
    .join(' and ');
}

/** One step of a way as a builder says it. */
export function stepWords(step: WayStep, sides: Sides, reader: Reader): string {
  const turns = [
    [step.noseUp_deg, 'nose up', 'nose down'],
    [step.starboardDown_deg, 'starboard down', 'port down'],
    [step.noseToPort_deg, 'nose to port', 'nose to starboard'],
  ] as const;
  const turning = turns
    .filter(([value]) => Math.abs(value) > 0.05)
    .map(
      ([value, plus, minus]) =>
        `${sides(value > 0 ? plus : minus)} ${Math.abs(value).toFixed(Math.abs(value) < 10 ? 1 : 0)}°`,
    )
    .join(' and ');
  return (
    [shiftWords(step.forward_m, step.toPort_m, step.up_m, sides, reader), turning].filter(Boolean).join(' while ') ||
    'stays where it is'
  );
}
