import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { ANSWER_KEYS, ANSWERS, answerWork, findingsHoldFor, holdsFor, type AnswerKey } from '@/core/answers';
import { loadKernel } from '@/core/geometry';
import { parseSystemText, type SystemDocument } from '@/core/plan';
import { findingKeys, judge, judgedBy, RULES } from '@/core/rules';
import { allSteps, type Steps } from '@/core/steps';
import { VERBS } from '@/cli';

const DEMOS = readdirSync('demo').map((file): SystemDocument => {
  const parsed = parseSystemText(readFileSync(`demo/${file}`, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
});
const WORK = answerWork({ judge, findingKeys });

/** What is asked beside the document; of what takes long or goes on for ever nothing is asked here. */
function questionsOf(key: AnswerKey, system: SystemDocument): readonly (readonly unknown[])[] {
  const tank = system.tanks[0]!;
  switch (key) {
    case 'spreads':
    case 'way':
    case 'wayOrder':
    case 'largest':
    case 'card':
    case 'compared':
      return [];
    case 'attitudeMap':
      return [
        [0, 'slope', 3, 0, 0, 0],
        [0, 'g', 3, 5, -3, 1],
      ];
    case 'strapping':
      return [[0, 0.05, 'conditions']];
    case 'wayCheck':
      return [
        [tank.id, [{ forward_m: 0, toPort_m: 0, up_m: 1, noseUp_deg: 0, starboardDown_deg: 0, noseToPort_deg: 0 }]],
      ];
    case 'wayPicture':
      return [[tank.id]];
    case 'design':
    case 'refit':
      return tank.senders.length === 0 ? [] : [[0, 0, 'as-set']];
    case 'reserveHeight':
      return tank.pickups.length < 2 ? [] : [[0, tank.pickups[0]!.id, tank.pickups[1]!.id, 0.002]];
    case 'calibration':
      return tank.calibrations.length === 0 ? [] : [[0, 0, 5]];
    case 'sizes':
      return system.lines.slice(0, 1).map(({ id }) => [id]);
    case 'costliest':
      return [[0]];
    case 'moment':
      return [[{ pitch_deg: 3, roll_deg: 170, volumes_m3: system.tanks.map(() => 1e-4) }, 0]];
    case 'transfer':
      return system.tanks.length < 2 ? [] : [[1, 0]];
    case 'played':
      return [['parked']];
    case 'carried':
      return [[0, { forks_m: 0.4, runs: 'along', hook_m: 1 }]];
    case 'tips':
    case 'mountDrawing':
    case 'layouts':
    case 'mountChanges':
    case 'solid':
    case 'ventDesign':
    case 'stl':
    case 'fitDrawing':
    case 'changes':
    case 'templates':
    case 'built':
    case 'cuts':
      return [[0]];
    default:
      return [[]];
  }
}

const read = (key: AnswerKey, system: SystemDocument): Partial<SystemDocument> =>
  Object.fromEntries(ANSWERS[key].reads.map((part) => [part, system[part]]));
const worked = (key: AnswerKey, of: Partial<SystemDocument>, args: readonly unknown[]): unknown =>
  allSteps((WORK[key] as (...all: readonly unknown[]) => Steps<unknown>)(of, ...args));

beforeAll(loadKernel);

describe('the table of answers', () => {
  it('has work for each, no part of the document twice, and verbs that the command line has', () => {
    expect(Object.keys(WORK).sort()).toEqual([...ANSWER_KEYS].sort());
    const verbs = VERBS.map(({ name }) => name);
    for (const key of ANSWER_KEYS) {
      const row = ANSWERS[key];
      expect(new Set(row.reads).size, key).toBe(row.reads.length);
      if ('verb' in row) expect(verbs, key).toContain(row.verb);
    }
  });

  it('says of each answer that rules read that they do, and of no other', () => {
    const judgedKeys = new Set<AnswerKey>(RULES.map(({ reads }) => reads));
    const whole: readonly AnswerKey[] = ['card', 'compared'];
    for (const key of ANSWER_KEYS) expect(ANSWERS[key].judged, key).toBe(judgedKeys.has(key) || whole.includes(key));
    const [boat] = DEMOS as [SystemDocument];
    for (const key of ANSWER_KEYS.filter((one) => !judgedKeys.has(one)))
      expect(judgedBy(key, boat, undefined), key).toBeUndefined();
  });
});

/** Small enough to have every answer worked out, and with something in every one. */
const SMALL = DEMOS.filter(({ vehicle }) => vehicle.kind === 'boat' || vehicle.kind === 'competition');

describe.each(SMALL.map((system) => [system.name, system] as const))('%s', (_, system) => {
  it.each(ANSWER_KEYS)('%s: nothing but what it reads is needed', (key) => {
    for (const args of questionsOf(key, system))
      expect(worked(key, read(key, system), args), JSON.stringify(args)).toEqual(worked(key, system, args));
  });
});

describe.each(ANSWER_KEYS)('%s', (key) => {
  it('holds as long as nothing that it reads is another', () => {
    for (const system of DEMOS) {
      for (const part of Object.keys(system) as (keyof SystemDocument)[]) {
        if (typeof system[part] !== 'object') continue;
        const reads = (ANSWERS[key].reads as readonly string[]).includes(part);
        expect(holdsFor(key, system, { ...system, [part]: structuredClone(system[part]) }), part).toBe(!reads);
      }
      expect(holdsFor(key, system, { ...system })).toBe(true);
    }
  });

  it('what rules say by it holds until the plan is another, or something that it reads itself', () => {
    const [boat] = DEMOS as [SystemDocument];
    const tilted = { ...boat, conditions: { ...boat.conditions, pitch_deg: 3 } };
    const readsConditions = (ANSWERS[key].reads as readonly string[]).includes('conditions');
    expect(findingsHoldFor(key, boat, tilted)).toBe(!readsConditions);
    expect(findingsHoldFor(key, boat, { ...boat, constraints: { ...boat.constraints } })).toBe(false);
  });
});

describe.each(DEMOS.map((system) => [system.name, system] as const))('%s', (_, system) => {
  it('the rules of clearances, faces and reach say the same however it stands', () => {
    const tilted = { ...system, conditions: { ...system.conditions, pitch_deg: 11, duty_ratio: 0.1, fills: [] } };
    for (const key of ['clearances', 'sheets', 'reach'] as const) {
      const value = worked(key, system, []);
      expect(judgedBy(key, tilted, value), key).toEqual(judgedBy(key, system, value));
    }
  });
});
