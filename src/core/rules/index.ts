/**
 * Findings: what is wrong with a plan, why, and how to mend it.
 *
 * A rule has raised something, is clear, or could not be judged for want of
 * an answer that it names (`needs`, `lacks.ts`).
 *
 * Read `rule.ts` for the shape of a rule, then any of the `*Rules.ts` tables,
 * one a stage. To add a rule, add an entry to its table, and to
 * `rules.test.ts` a system that raises it and one that does not.
 */
export {
  findingKeys,
  findingsOf,
  judge,
  judgeAnswer,
  judgedBy,
  judgedByBook,
  ruleOfKey,
  RULES,
  type JudgedKey,
} from './findings';
export { allJudged } from './gravity';
export type { Finding, Hit, Judgement, NotJudged, Rule, RuleContext, Severity, Stage } from './rule';
export { BOOK_RULES, BOOK_SOURCE, type BookRule, type Rulebook } from './books';
