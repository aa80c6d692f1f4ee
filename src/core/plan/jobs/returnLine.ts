import { plainName } from '../../formats';
import { assumed, chosen, fromPart } from '../../schema/known';
import { feedPath } from '../circuits';
import { freshId } from '../edit';
import type { LineDocument, SystemDocument } from '../schema';
import { lengthFor, linesOfRun, portPlace, spanOf, spanOfTank, toMm, type Point } from './kit';

/** Engines that send back what they do not burn by an end of their own. */
const SENDS_BACK = new Set(['diesel-engine', 'generator']);
/** Where the return comes in: beside the feed, as shares of the lid, and so deep, since from above it whips air in. */
const AT = [0.25, 0.2] as const;
const DROP_RATIO = 0.8;
const LONGEST_DROP_M = 5;
const BORE_M = 0.008;

/** The return of the first consumer to the tank that feeds it, where it sends back and has none yet. */
export function withReturn(system: SystemDocument): SystemDocument {
  const [consumer] = system.consumers;
  if (!consumer || !SENDS_BACK.has(consumer.kind) || system.lines.some(({ purpose }) => purpose === 'return'))
    return system;
  const path = feedPath(system, consumer.id);
  const t = system.tanks.findIndex(({ pickups }) => pickups.some(({ id }) => id === path.at(-1)));
  const tank = system.tanks[t];
  const span = tank && spanOfTank(tank);
  if (!tank || !span) return system;
  const feeds = tank.pickups.find(({ id }) => id === path.at(-1))!;
  const port: SystemDocument['tanks'][number]['ports'][number] = {
    id: freshId(system, 'return'),
    name: 'Return',
    role: 'return',
    face: 'lid',
    x_m: chosen(toMm(AT[0] * span[0])),
    y_m: chosen(toMm(AT[1] * span[1])),
    bore_m: fromPart(BORE_M),
    length_m: chosen(0),
    drop_m: chosen(Math.min(LONGEST_DROP_M, toMm(DROP_RATIO * span[2]))),
  };
  // Where the consumer stands follows from the lines that lead to it.
  const lines = system.lines.filter(({ id }) => path.includes(id));
  const start = portPlace(
    tank,
    tank.ports.find(({ id }) => id === feeds.port)!,
  );
  const stands =
    start &&
    lines.reduce<Point>(
      (at, { forward_m, toPort_m, rise_m }) => [at[0] + forward_m.value, at[1] + toPort_m.value, at[2] + rise_m.value],
      start,
    );
  const way = spanOf(stands, portPlace(tank, port));
  const added: SystemDocument = {
    ...system,
    tanks: system.tanks.map((each, k) => (k === t ? { ...each, ports: [...each.ports, port] } : each)),
  };
  const feedLength = lines.reduce((sum, { length_m }) => sum + length_m.value, 0);
  const made = linesOfRun(added, {
    purpose: 'return',
    stops: [
      { item: consumer.id, name: plainName(consumer.name, 40), end: 'out' },
      { item: port.id, name: 'Return' },
    ],
    bore_m: BORE_M,
    length: lengthFor(way, undefined, feedLength),
    span: way,
  }).map((line): LineDocument => ({ ...line, length_m: assumed(line.length_m.value, 0.3 * line.length_m.value) }));
  return { ...added, lines: [...added.lines, ...made] };
}
