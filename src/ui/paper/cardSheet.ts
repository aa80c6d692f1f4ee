import { joinablePairs, joinedBy, standsFor } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import type { Block } from '@/core/reports';
import { SCHOOL_WORDS } from '../vents/schoolWords';

/** How valves, pumps, vents and caps have to stand, for all tanks that are joined: a card that hangs beside them. */
export function cardSheet(system: SystemDocument): Block[] {
  const joined = joinablePairs(system).flatMap(([s, t]) => {
    const by = joinedBy(system, s, t);
    return by ? [{ s, t, by }] : [];
  });
  return joined.flatMap(({ s, t, by }): Block[] => [
    { kind: 'heading', text: `${system.tanks[s]!.name} to ${system.tanks[t]!.name}: ${SCHOOL_WORDS[by].label}` },
    { kind: 'text', text: SCHOOL_WORDS[by].caution, isBold: true },
    {
      kind: 'table',
      columns: [
        { title: 'part or opening', share: 3, isBold: true },
        { title: 'to move it', share: 2, isBold: true },
        { title: 'else', share: 2 },
        { title: 'checked', share: 1 },
      ],
      rows: standsFor(system, s, t, by).map(({ name, moving, resting }) => [name, moving, resting, '']),
    },
  ]);
}
