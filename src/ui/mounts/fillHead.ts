import type { StandCase, TipFill } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';

/** With what in the tanks. */
export function fillHead(system: SystemDocument, { fill, tanks }: StandCase): string {
  if (fill === 'only') return `Only ${tanks.map((t) => system.tanks[t]!.name).join(' and ')} full`;
  return FILL_HEADS[fill];
}
const FILL_HEADS: Readonly<Record<TipFill, string>> = { empty: 'Empty', half: 'Half full', full: 'Full' };
