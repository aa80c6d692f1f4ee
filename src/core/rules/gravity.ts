import type { Finding, Judgement, Severity } from './rule';

// Apart from the rules themselves: pages put findings together that workers made, and load no rule for it.

const ORDER: Readonly<Record<Severity, number>> = { stop: 0, warn: 1, note: 2 };

/** Several groups of rules as one. */
export const allJudged = (parts: readonly Judgement[]): Judgement => ({
  findings: parts.flatMap(({ findings }) => findings).sort(byGravity),
  notJudged: parts.flatMap(({ notJudged }) => notJudged),
  clear: parts.flatMap(({ clear }) => clear),
});

/** Gravest first. */
export const byGravity = (a: Finding, b: Finding): number => ORDER[a.severity] - ORDER[b.severity];
