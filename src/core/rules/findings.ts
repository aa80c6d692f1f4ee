import { numbersOf, type AnswerKey, type Evaluation, type Results } from '../answers';
import type { Plan } from '../plan/schema';
import { withPositions } from '../state';
import { BOOK_RULES, BOOK_SOURCE } from './books';
import { CIRCUIT_RULES } from './circuitRules';
import { JOINT_RULES } from './jointRules';
import { ROUTE_RULES } from './routeRules';
import { WIRE_RULES } from './wireRules';
import { FIT_RULES } from './fitRules';
import { GAUGE_RULES } from './gaugeRules';
import { INSIDE_RULES } from './insideRules';
import { PORT_RULES } from './portRules';
import { LINE_RULES } from './lineRules';
import { PICKUP_RULES } from './pickupRules';
import { RANGE_RULES } from './rangeRules';
import { REACH_RULES } from './reachRules';
import { MOUNT_FIT_RULES } from './mountFitRules';
import { MADE_RULES } from './mountMadeRules';
import { MOUNT_RULES } from './mountRules';
import { STAND_RULES } from './standRules';
import { byGravity } from './gravity';
import { lacking, type Partly } from './lacks';
import type {
  Finding,
  FitRuleContext,
  Judgement,
  MountRuleContext,
  StandRuleContext,
  NotJudged,
  ReachRuleContext,
  Rule,
  RuleContext,
  SheetRuleContext,
} from './rule';
import { SCHOOL_RULES } from './schoolRules';
import { TANK_RULES } from './tankRules';
import { CONTACT_RULES } from './contactRules';
import { DOSING_RULES } from './dosingRules';
import { EXPELLED_RULES } from './expelledRules';
import { VENT_RULES } from './ventRules';

/** Answers that rules judge by, and what they see of each. */
type Contexts = {
  readonly details: RuleContext;
  readonly clearances: FitRuleContext;
  readonly reach: ReachRuleContext;
  readonly sheets: SheetRuleContext;
  readonly mounts: MountRuleContext;
  readonly stands: StandRuleContext;
};
export type JudgedKey = keyof Contexts;
type ContextOf<K extends JudgedKey> = Contexts[K];

/** Rules that look at one answer: judged when that has come. */
const reading = <K extends JudgedKey>(reads: K, rules: readonly Rule<ContextOf<K>>[]) =>
  rules.map((rule) => ({ ...rule, reads }) as Rule & { readonly reads: JudgedKey });

/** Every rule, in the order of the stages, each with the answer that it reads. */
export const RULES = [
  ...reading('clearances', FIT_RULES),
  ...reading('clearances', MOUNT_FIT_RULES),
  ...reading('reach', REACH_RULES),
  ...reading('details', TANK_RULES),
  ...reading('details', INSIDE_RULES),
  ...reading('sheets', PORT_RULES),
  ...reading('details', PICKUP_RULES),
  ...reading('details', LINE_RULES),
  ...reading('details', JOINT_RULES),
  ...reading('details', CIRCUIT_RULES),
  ...reading('details', ROUTE_RULES),
  ...reading('details', WIRE_RULES),
  ...reading('details', VENT_RULES),
  ...reading('details', EXPELLED_RULES),
  ...reading('details', DOSING_RULES),
  ...reading('details', CONTACT_RULES),
  ...reading('details', SCHOOL_RULES),
  ...reading('details', GAUGE_RULES),
  ...reading('details', RANGE_RULES),
  ...reading('mounts', MOUNT_RULES),
  ...reading('mounts', MADE_RULES),
  ...reading('stands', STAND_RULES),
];

/** What every rule has to say of a plan in a state, valves and pumps as they stand, gravest findings first. */
export function judge(system: Plan, evaluation: Evaluation): Judgement {
  const context = contextOf(system, evaluation);
  return mergedJudgement(judged(RULES, context), judgedByBook(context));
}

const contextOf = (system: Plan, evaluation: Evaluation): RuleContext => ({
  system: withPositions(system, evaluation.state.positions),
  evaluation,
  numbers: numbersOf(system, evaluation),
});

/** Two judgements as one, gravest findings first. */
const mergedJudgement = (one: Judgement, other: Judgement): Judgement => ({
  findings: [...one.findings, ...other.findings].sort(byGravity),
  notJudged: [...one.notJudged, ...other.notJudged],
  clear: [...one.clear, ...other.clear],
});

/**
 * What the rulebook that is chosen has to say: each of its clauses is gone against, kept, or not judged, with what the
 * plan would have to say for that. Of another book nothing is said.
 */
export function judgedByBook(context: RuleContext): Judgement {
  const findings: Finding[] = [];
  const notJudged: NotJudged[] = [];
  const clear: string[] = [];
  for (const { id, book, clause, title, stage, severity, why, mend, test, lacks } of BOOK_RULES) {
    if (book !== context.system.rulebook) continue;
    const hits = test?.(context) ?? [];
    findings.push(
      ...hits.map(({ what, path, severity: own }): Finding => ({
        id,
        title: `${title} (${clause})`,
        stage,
        severity: own ?? severity,
        what,
        why,
        mend,
        source: `${clause}, ${BOOK_SOURCE}`,
        status: 'from memory',
        ...(path ? { path } : {}),
      })),
    );
    if (hits.length > 0) continue;
    const missing = lacks?.(context);
    if (missing === undefined) clear.push(id);
    else notJudged.push({ id, title: `${title} (${clause})`, stage, lacks: missing });
  }
  return { findings, notJudged, clear };
}

/** Every finding a system raises at its conditions, gravest first. */
export const findingsOf = (system: Plan, evaluation: Evaluation): readonly Finding[] =>
  judge(system, evaluation).findings;

/** What the rules say that read one answer; of what has failed or is not there they judge nothing. */
export const judgeAnswer = <K extends JudgedKey>(key: K, context: ContextOf<K>): Judgement =>
  judged(
    RULES.filter(({ reads }) => reads === key),
    context as RuleContext,
  );

/** The same of an answer as it comes, by its key in the table; nothing where no rule reads it or it has failed. */
export function judgedBy(key: AnswerKey, system: Plan, value: unknown): Judgement | undefined {
  switch (key) {
    case 'details': {
      const results = value as Results;
      if (!results.ok) return undefined;
      const context = { ...results, system: withPositions(system, results.evaluation.state.positions) };
      return mergedJudgement(judgeAnswer('details', context), judgedByBook(context));
    }
    case 'clearances':
      return judgeAnswer('clearances', { system, evaluation: { fit: value as Evaluation['fit'] } });
    case 'reach':
      return judgeAnswer('reach', { system, evaluation: { reach: value as Evaluation['reach'] } });
    case 'mounts':
      return judgeAnswer('mounts', { system, evaluation: { mounts: value as Evaluation['mounts'] } });
    case 'stands':
      return judgeAnswer('stands', { system, evaluation: { stands: value as Evaluation['stands'] } });
    case 'sheets':
      return judgeAnswer('sheets', { system, evaluation: { sheets: value as Evaluation['sheets'] } });
    default:
      return undefined;
  }
}

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
export function findingKeys(system: Plan, evaluation: Evaluation): string[] {
  const context = contextOf(system, evaluation);
  const book = BOOK_RULES.filter(({ book }) => book === context.system.rulebook);
  return [...RULES, ...book].flatMap(({ id, severity: usual, test }) =>
    (test?.(context) ?? []).map(({ severity }) => `${id}/${severity ?? usual}`),
  );
}

/** The rule behind a finding's key. */
export const ruleOfKey = (key: string): Pick<Rule, 'id' | 'title'> | undefined => {
  const [id] = key.split('/');
  return RULES.find((rule) => rule.id === id) ?? BOOK_RULES.find((rule) => rule.id === id);
};
