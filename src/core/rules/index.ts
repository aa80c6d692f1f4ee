/**
 * Findings: what is wrong with a plan, why, and how to mend it.
 *
 * Read `rule.ts` for the shape of a rule, then any of the `*Rules.ts` tables,
 * one a stage. To add a rule, add an entry to its table, and to
 * `rules.test.ts` a system that raises it and one that does not.
 */
export { findingKeys, findingsOf, fitFindingsOf, sheetFindingsOf, reachFindingsOf, ruleOfKey, RULES } from './findings';
export type { Finding, Hit, Rule, RuleContext, Severity, Stage } from './rule';
