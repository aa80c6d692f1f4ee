import type { Circuits } from '../../plan/circuits';
import type { Scenario } from '../../plan/schemaScenario';
import type { Position, Positions } from '../../state';
import type { TimeEvent } from './played';

/**
 * How parts stand at a time of a course that somebody or a level switch has moved by then; all others stand as drawn.
 *
 * @param events of the course, in order of time
 */
export function positionsAt(
  { sets }: Pick<Scenario, 'sets'>,
  events: readonly TimeEvent[],
  { components }: Pick<Circuits, 'components'>,
  t_s: number,
): Positions {
  const moves = [
    ...sets.map(({ at_s, part, on, position }) => {
      const kind = components.find(({ id }) => id === part)?.kind;
      return { t_s: at_s, part, is: positionOf(kind, on, position) };
    }),
    ...events.flatMap(({ t_s: at_s, kind, of }) =>
      kind === 'switch-stops' || kind === 'switch-starts'
        ? [{ t_s: at_s, part: of, is: { kind: 'pump', running: kind === 'switch-starts' } as const }]
        : [],
    ),
  ].sort((a, b) => a.t_s - b.t_s);
  return Object.fromEntries(
    moves.flatMap(({ t_s: at_s, part, is }): [string, Position][] => (is && at_s <= t_s ? [[part, is]] : [])),
  );
}

type Set = Scenario['sets'][number];

/** What an entry of a scenario makes of a part; nothing where it is none of that kind. */
export function positionOf(kind: string | undefined, on: Set['on'], position: Set['position']): Position | undefined {
  switch (kind) {
    case 'valve':
      return on === undefined ? undefined : { kind, open: on };
    case 'coupler':
      return on === undefined ? undefined : { kind, joined: on };
    case 'pump':
      return on === undefined ? undefined : { kind, running: on };
    case 'selector':
      return position === undefined ? undefined : { kind, position };
    default:
      return undefined;
  }
}
