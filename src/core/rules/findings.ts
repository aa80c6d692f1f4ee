import { numbersOf, type Evaluation, type FitOutcome, type ReachOutcome, type SheetsOutcome } from '../evaluate';
import type { SystemDocument } from '../document/schema';
import { CIRCUIT_RULES } from './circuitRules';
import { FIT_RULES } from './fitRules';
import { GAUGE_RULES } from './gaugeRules';
import { INSIDE_RULES } from './insideRules';
import { PORT_RULES } from './portRules';
import { LINE_RULES } from './lineRules';
import { PICKUP_RULES } from './pickupRules';
import { RANGE_RULES } from './rangeRules';
import { REACH_RULES } from './reachRules';
import type { Finding, Rule, Severity } from './rule';
import { TANK_RULES } from './tankRules';
import { VENT_RULES } from './ventRules';

export const RULES: readonly Rule[] = [...FIT_RULES, ...REACH_RULES, ...TANK_RULES, ...INSIDE_RULES, ...PORT_RULES, ...PICKUP_RULES, ...LINE_RULES, ...CIRCUIT_RULES, ...VENT_RULES, ...GAUGE_RULES, ...RANGE_RULES];

const ORDER: Readonly<Record<Severity, number>> = { stop: 0, warn: 1, note: 2 };

/** Every finding a system raises at its conditions, gravest first. */
export function findingsOf(system: SystemDocument, evaluation: Evaluation): Finding[] {
  return raised(RULES, { system, evaluation, numbers: numbersOf(system, evaluation) });
}

/** The findings of the fit alone, which the interface works out apart from the numbers. */
export const fitFindingsOf = (system: SystemDocument, fit: FitOutcome | undefined): Finding[] => raised(FIT_RULES, { system, evaluation: { fit } });

/** The findings of what hands and tools get to, which takes longest of all. */
export const reachFindingsOf = (system: SystemDocument, reach: ReachOutcome | undefined): Finding[] => raised(REACH_RULES, { system, evaluation: { reach } });

/** The findings of the faces' sheets, which are worked out beside the numbers too. */
export const sheetFindingsOf = (system: SystemDocument, sheets: SheetsOutcome | undefined): Finding[] => raised(PORT_RULES, { system, evaluation: { sheets } });

function raised<Context>(rules: readonly Rule<Context>[], context: Context): Finding[] {
  return rules.flatMap((rule) => rule.test(context).map(({ what, path, severity }): Finding => ({
    id: rule.id, title: rule.title, stage: rule.stage, severity: severity ?? rule.severity, what,
    why: rule.why, mend: rule.mend, source: rule.source, status: rule.status, ...(path ? { path } : {}),
  }))).sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
}

/** Findings as id/severity, to tell when one comes, goes or grows graver. */
export const findingKeys = (system: SystemDocument, evaluation: Evaluation): string[] => findingsOf(system, evaluation).map((finding) => `${finding.id}/${finding.severity}`);

/** The rule behind a finding's key. */
export const ruleOfKey = (key: string): Rule | undefined => RULES.find((rule) => rule.id === key.split('/')[0]);
