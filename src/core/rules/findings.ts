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
import { lacking, type Partly } from './lacks';
import type { Finding, Judgement, NotJudged, Rule, Severity } from './rule';
import { TANK_RULES } from './tankRules';
import { VENT_RULES } from './ventRules';

export const RULES: readonly Rule[] = [
  ...FIT_RULES,
  ...REACH_RULES,
  ...TANK_RULES,
  ...INSIDE_RULES,
  ...PORT_RULES,
  ...PICKUP_RULES,
  ...LINE_RULES,
  ...CIRCUIT_RULES,
  ...VENT_RULES,
  ...GAUGE_RULES,
  ...RANGE_RULES,
];

const ORDER: Readonly<Record<Severity, number>> = { stop: 0, warn: 1, note: 2 };

/** What every rule has to say of a system at its conditions, gravest findings first. */
export const judge = (system: SystemDocument, evaluation: Evaluation): Judgement =>
  judged(RULES, { system, evaluation, numbers: numbersOf(system, evaluation) });

/** Every finding a system raises at its conditions, gravest first. */
export const findingsOf = (system: SystemDocument, evaluation: Evaluation): readonly Finding[] =>
  judge(system, evaluation).findings;

/**
 * The rules of what the interface works out beside the rest, each group from its own answer: of the fit, of what hands
 * and tools get to, of the faces' sheets.
 */
const APART: ReadonlySet<string> = new Set([...FIT_RULES, ...REACH_RULES, ...PORT_RULES].map(({ id }) => id));

/** What the rules say that need none of these. */
export const judgeRest = (system: SystemDocument, evaluation: Evaluation): Judgement =>
  judged(
    RULES.filter(({ id }) => !APART.has(id)),
    { system, evaluation, numbers: numbersOf(system, evaluation) },
  );
export const judgeFit = (system: SystemDocument, fit: FitOutcome | undefined): Judgement =>
  judged(FIT_RULES, { system, evaluation: { fit } });
export const judgeReach = (system: SystemDocument, reach: ReachOutcome | undefined): Judgement =>
  judged(REACH_RULES, { system, evaluation: { reach } });
export const judgeSheets = (system: SystemDocument, sheets: SheetsOutcome | undefined): Judgement =>
  judged(PORT_RULES, { system, evaluation: { sheets } });

/** Several groups of rules as one. */
export const allJudged = (parts: readonly Judgement[]): Judgement => ({
  findings: parts.flatMap(({ findings }) => findings).sort(byGravity),
  notJudged: parts.flatMap(({ notJudged }) => notJudged),
  clear: parts.flatMap(({ clear }) => clear),
});

const byGravity = (a: Finding, b: Finding): number => ORDER[a.severity] - ORDER[b.severity];

function judged<Context extends Partly>(rules: readonly Rule<Context>[], context: Context): Judgement {
  const findings: Finding[] = [];
  const notJudged: NotJudged[] = [];
  const clear: string[] = [];
  for (const { id, title, stage, severity: usual, needs, test, why, mend: how, source, status } of rules) {
    const hits = test(context);
    findings.push(
      ...hits.map(({ what, path, severity, mend }): Finding => ({
        id,
        title,
        stage,
        severity: severity ?? usual,
        what,
        why,
        mend: mend ?? how,
        source,
        status,
        ...(path ? { path } : {}),
      })),
    );
    if (hits.length > 0) continue;
    const lacks = lacking(needs, context);
    if (lacks === undefined) clear.push(id);
    else notJudged.push({ id, title, stage, lacks });
  }
  return { findings: findings.sort(byGravity), notJudged, clear };
}

/** Findings as id/severity, to tell when one comes, goes or grows graver. */
export const findingKeys = (system: SystemDocument, evaluation: Evaluation): string[] =>
  findingsOf(system, evaluation).map((finding) => `${finding.id}/${finding.severity}`);

/** The rule behind a finding's key. */
export const ruleOfKey = (key: string): Rule | undefined => RULES.find((rule) => rule.id === key.split('/')[0]);
