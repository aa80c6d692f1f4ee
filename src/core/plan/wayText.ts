import { failure, success, type Outcome } from '../outcome';
import { parseQuantity, roleUnit, type Reader } from '../units';
import type { WayStep } from './schema';

const STILL: WayStep = { forward_m: 0, toPort_m: 0, up_m: 0, noseUp_deg: 0, starboardDown_deg: 0, noseToPort_deg: 0 };

/** Words for a straight move, and which way it goes. */
const SHIFTS: Readonly<Record<string, readonly ['forward_m' | 'toPort_m' | 'up_m', 1 | -1]>> = {
  up: ['up_m', 1],
  down: ['up_m', -1],
  forward: ['forward_m', 1],
  fore: ['forward_m', 1],
  aft: ['forward_m', -1],
  back: ['forward_m', -1],
  'to port': ['toPort_m', 1],
  port: ['toPort_m', 1],
  'to starboard': ['toPort_m', -1],
  starboard: ['toPort_m', -1],
  rearward: ['forward_m', -1],
  'to the left': ['toPort_m', 1],
  left: ['toPort_m', 1],
  'to the right': ['toPort_m', -1],
  right: ['toPort_m', -1],
};
const TURNS: Readonly<Record<string, readonly ['noseUp_deg' | 'starboardDown_deg' | 'noseToPort_deg', 1 | -1]>> = {
  'nose up': ['noseUp_deg', 1],
  'nose down': ['noseUp_deg', -1],
  'starboard down': ['starboardDown_deg', 1],
  'port down': ['starboardDown_deg', -1],
  'nose to port': ['noseToPort_deg', 1],
  'nose to starboard': ['noseToPort_deg', -1],
  'right down': ['starboardDown_deg', 1],
  'left down': ['starboardDown_deg', -1],
  'nose to the left': ['noseToPort_deg', 1],
  'nose to the right': ['noseToPort_deg', -1],
};

/** "out" goes on the way it went last, by this [m]. */
const OUT_M = 2;
const MOST_STEPS = 60;

export const WAY_EXAMPLE = 'down 120, aft 200, nose down 15, out';

/**
 * Reads a way as a builder says it: moves one after another, parted by commas.
 * A bare number is in the reader's tape unit, an angle in degrees.
 */
export function parseWay(
  text: string,
  reader: Reader,
): Outcome<WayStep[], 'empty' | 'not-a-move' | 'not-a-size' | 'out-of-where' | 'too-many'> {
  const parts = text
    .split(/[,;\n]+/)
    .map((part) => part.trim().toLowerCase().replace(/\s+/g, ' '))
    .filter((part) => part !== '');
  if (parts.length === 0) return failure('empty', 'way', `Say how it moves, such as: ${WAY_EXAMPLE}.`);
  if (parts.length > MOST_STEPS)
    return failure('too-many', 'way', `Up to ${MOST_STEPS} moves are taken; these are ${parts.length}.`);
  const steps: WayStep[] = [];
  for (const [i, part] of parts.entries()) {
    if (part === 'out') {
      const last = [...steps]
        .reverse()
        .find(({ forward_m, toPort_m, up_m }) => forward_m !== 0 || toPort_m !== 0 || up_m !== 0);
      if (!last) return failure('out-of-where', `move ${i + 1}`, 'Say which way first: “out” goes on as it went last.');
      const length = Math.hypot(last.forward_m, last.toPort_m, last.up_m);
      steps.push({
        ...STILL,
        forward_m: (OUT_M * last.forward_m) / length,
        toPort_m: (OUT_M * last.toPort_m) / length,
        up_m: (OUT_M * last.up_m) / length,
      });
      continue;
    }
    const step = readMove(part, reader);
    if (!step.ok) return failure(step.error.code, `move ${i + 1}`, step.error.detail);
    steps.push(step.value);
  }
  return success(steps);
}

function readMove(part: string, reader: Reader): Outcome<WayStep, 'not-a-move' | 'not-a-size'> {
  const longestFirst = (words: readonly string[]): string[] => [...words].sort((a, b) => b.length - a.length);
  const turn = longestFirst(Object.keys(TURNS)).find((words) => part.startsWith(`${words} `));
  const shift = turn ? undefined : longestFirst(Object.keys(SHIFTS)).find((words) => part.startsWith(`${words} `));
  const words = turn ?? shift;
  if (words === undefined)
    return failure(
      'not-a-move',
      'way',
      `“${part}” is no move. Say up, down, forward, aft (or rearward), to port (or left) or to starboard (or right) with a length; nose up, nose down, starboard (or right) down, port (or left) down, nose to port (or to the left) or nose to starboard (or to the right) with an angle; or out.`,
    );
  const read = parseQuantity(
    part.slice(words.length + 1),
    turn ? { kind: 'angle', unit: 'deg', reader } : { kind: 'length', unit: roleUnit('tape', reader), reader },
  );
  if (!read.ok) return failure('not-a-size', 'way', `“${part}”: ${read.error.detail}`);
  if (turn) {
    const [key, sign] = TURNS[turn]!;
    return success({ ...STILL, [key]: (sign * read.value.si * 180) / Math.PI });
  }
  const [key, sign] = SHIFTS[shift!]!;
  return success({ ...STILL, [key]: sign * read.value.si });
}
