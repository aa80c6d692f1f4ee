import type { SpotDocument } from '@/core/plan';
import type { ReachAnswer, ReachWhen } from '@/core/answers';
import { formatQuantity, type Reader } from '@/core/units';
import type { Sides } from '../state/sides';

export const WHEN_WORDS: Readonly<Record<ReachWhen, string>> = {
  fitted: 'with the tank in',
  uncovered: 'with covers off',
  bench: 'only on the bench',
  never: 'not at all',
};

/** The same of one place. */
export const whenWords = ({ when, isMount }: ReachAnswer): string =>
  isMount && when === 'bench' ? 'before the tank goes in' : WHEN_WORDS[when];

export const SPOT_WORDS: Readonly<Record<SpotDocument['kind'], string>> = {
  bolt: 'a bolt to tighten',
  weld: 'a seam to weld',
  gauge: 'a gauge to read',
  filler: 'a mouth to fill at',
  grip: 'something for a hand',
};

const SIDES = [
  ['forward', 'aft'],
  ['to port', 'to starboard'],
  ['up', 'down'],
] as const;
/** A direction that leans less than this along an axis is not said to. */
const LEAN = 0.35;

const wayWords = (way: readonly [number, number, number], sides: Sides): string =>
  SIDES.flatMap(([plus, minus], k) => (Math.abs(way[k]!) > LEAN ? [sides(way[k]! > 0 ? plus : minus)] : [])).join(
    ' and ',
  );

/** What is done there and with what, or what stands in the way. */
export function reachWords(answer: ReachAnswer, sides: Sides, reader: Reader): string {
  const { job, when, names, at } = answer;
  const done = doneWith(job, at, answer.acrossFlats_m, sides, reader);
  const list = names.join(', ');
  if (when === 'uncovered') return `First off: ${list}. ${done}`;
  if (when === 'bench')
    return `In the way: ${list}. ${answer.isMount ? 'Before it' : 'On the bench'}: ${done[0]!.toLowerCase()}${done.slice(1)}`;
  return when === 'never' && list ? `In the way: ${list}. ${done}` : done;
}

function doneWith(
  job: ReachAnswer['job'],
  at: ReachAnswer['at'],
  acrossFlats_m: number | undefined,
  sides: Sides,
  reader: Reader,
): string {
  const flats = acrossFlats_m === undefined ? '' : ` ${formatQuantity(acrossFlats_m, 'tape', { reader }).text}`;
  if (job === 'tighten') {
    if (!at)
      return acrossFlats_m === undefined ? 'No spanner of the table is as large as its hexagon.' : `Spanner${flats}.`;
    const tool =
      {
        'ring-spanner': 'Spanner',
        'cranked-spanner': 'Cranked ring spanner',
        socket: 'Socket',
        'long-socket': 'Socket on an extension',
      }[at.key as string] ?? 'Spanner';
    return `${tool}${flats}, free over ${at.arc_deg > 359 ? 'the whole turn' : `${Math.round(at.arc_deg)}°`}.`;
  }
  if (job === 'screws')
    return at?.key === 'short-driver' ? 'Stubby screwdriver on its screws.' : 'Screwdriver on its screws.';
  if (job === 'fill')
    return at ? `Nozzle and hand, grip ${wayWords(at.handle, sides) || 'level'}.` : 'Nozzle and hand.';
  if (job === 'weld')
    return at?.key === 'wire-gun'
      ? 'Wire-feed gun only: no room for torch and rod.'
      : at
        ? 'Torch and rod.'
        : 'Torch and rod, or a wire-feed gun.';
  if (job === 'read') return 'An eye at reading distance.';
  return at?.key === 'bent-hand' ? 'A hand laid flat, fingers bent down.' : 'A hand with a straight arm.';
}
