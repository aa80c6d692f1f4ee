import type { LineAnswers } from '../answers';
import type { RuleContext } from './rule';

/** What was worked out of the lines; nothing when only numbers were asked for. */
export const from = <T>({ evaluation }: RuleContext, of: (lines: LineAnswers) => readonly T[]): readonly T[] =>
  evaluation.lines ? of(evaluation.lines) : [];

/** Where a line stands in the plan. */
export const lineAt = ({ system }: RuleContext, id: string): (string | number)[] => [
  'lines',
  system.lines.findIndex((line) => line.id === id),
];

/** Where a part stands in the plan. */
export const componentAt = ({ system }: RuleContext, id: string): (string | number)[] => [
  'components',
  system.components.findIndex((part) => part.id === id),
];

/** Of a consumer, or of a component. */
export const ownerAt = (context: RuleContext, id: string): (string | number)[] => {
  const k = context.system.consumers.findIndex((consumer) => consumer.id === id);
  return k >= 0 ? ['consumers', k] : componentAt(context, id);
};

/** Names as a list in words. */
export const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
