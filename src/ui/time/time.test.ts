import { readFileSync } from 'node:fs';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { playedFor, type Played } from '@/core/answers';
import { loadKernel } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { parseSystemText, quiet, type Scenario, type SystemDocument } from '@/core/plan';
import { allSteps } from '@/core/steps';
import { openSystem } from '../state/editor';
import { chooseScenario, goToTime, keepCourse, showSpan, coursesOf } from './courses';
import { figuresOf } from './figures';
import { freeName } from './scenarioStore';
import { spanAbout, spanWith } from './span';
import { beginsWords, leanWords, timeAxis, toldOf } from './timeWords';

const SNOW = unwrap(parseSystemText(readFileSync('demo/snow-vehicle.json', 'utf8')));
const play = (system: SystemDocument, asked: unknown): Played => unwrap(allSteps(playedFor(system, asked)));

beforeAll(loadKernel);

describe('what is shown of a course', () => {
  it('is within it, as long as was asked, and has the moment in it', () => {
    for (const duration_s of [10, 3600])
      for (const at_s of [0, 0.3, duration_s / 2, duration_s])
        for (const long_s of [0.1, 5, 1e5]) {
          const [from_s, to_s] = spanAbout(at_s, long_s, duration_s);
          expect(from_s).toBeGreaterThanOrEqual(0);
          expect(to_s).toBeLessThanOrEqual(duration_s + 1e-9);
          expect(to_s - from_s).toBeCloseTo(Math.min(long_s, duration_s), 9);
          expect(at_s >= from_s - 1e-9 && at_s <= to_s + 1e-9).toBe(true);
        }
    expect(spanWith([2, 4], 3, 10)).toEqual([2, 4]);
    expect(spanWith([2, 4], 8, 10)).toEqual([7, 9]);
    expect([timeAxis(60), timeAxis(3600), timeAxis(1e5)].map(({ symbol }) => symbol)).toEqual(['s', 'min', 'h']);
  });
});

describe('in words', () => {
  it('how it leans, and what it begins with', () => {
    expect(leanWords(0, 0, 'metric')).toBe('level');
    expect(leanWords(-8, 12.5, 'metric')).toBe('nose down 8°, right side down 12.5°');
    const scenario = quiet('x', 60);
    expect(beginsWords(scenario, SNOW, 'metric')).toBe('Begins as the conditions have it.');
    const half = { ...scenario, fills: [{ tank: 'aux', fill_ratio: 0.5 }] };
    expect(beginsWords(half, SNOW, 'metric')).toMatch(
      /^Begins with 50 % in Auxiliary tank; all else as the conditions/,
    );
  });

  it('all that is set and all that happens, in order, and what is gone as gone', () => {
    const scenario: Scenario = {
      ...quiet('x', 600),
      sets: [
        { at_s: 100, part: 'transfer-pump', on: true },
        { at_s: 900, part: 'transfer-pump', on: false },
        { at_s: 50, part: 'ghost', on: true },
      ],
      openings: [{ at_s: 100, port: 'vent', stands: 'stuck' }],
    };
    const events = [
      { t_s: 100, kind: 'spills' as const, of: 'vent', name: 'Vent' },
      { t_s: 100, kind: 'set' as const, of: 'transfer-pump', name: 'Transfer pump' },
    ];
    const told = toldOf(events, scenario, SNOW, 'metric');
    expect(told.map(({ says, severity }) => `${says} ${severity ?? ''}`)).toEqual([
      'ghost, which is not there ',
      'Transfer pump: runs ',
      'Vent with rollover valve: its valve sticks open ',
      'Liquid comes out by Vent stop',
    ]);
  });

  it('a name that is free', () => {
    const own = [quiet('Fill, own', 1), quiet('Fill, own 2', 1)];
    expect(freeName(own, 'Fill')).toBe('Fill, own 3');
    expect(freeName([], 'y'.repeat(90))).toHaveLength(80);
  });
});

describe('two courses side by side', () => {
  it('their figures are those of the tally', () => {
    const played = play(SNOW, 'fill-main-38');
    const figures = new Map(figuresOf(played, 'metric'));
    const [pour] = played.tally.pours;
    expect(figures.get('Nozzle in Filler')).toBe('clicks off after 1 min 36 s');
    expect(figures.get('In the tank then, Filler')).toBe(`${(pour!.volume_m3 * 1000).toPrecision(3)} L`);
    expect(figures.get('Grave findings')).toBe(
      String(played.verdict.filter((line) => line.severity === 'stop').length),
    );
    const idle = new Map(figuresOf(play(SNOW, 'parked'), 'metric'));
    expect([...idle.keys()].some((label) => label.includes('gets all it needs'))).toBe(false);
  });

  beforeEach(() => openSystem('one', SNOW));

  it('the one before is kept where the system was another, and one that failed is none', () => {
    const now = { of: SNOW, played: { ok: true as const, value: play(SNOW, 'parked') } };
    const other: SystemDocument = { ...SNOW, name: 'Other' };
    keepCourse('parked', now);
    keepCourse('parked', now);
    expect(coursesOf('one').runs.parked!.before).toBeUndefined();
    const failed = { ok: false as const, error: { code: 'stuck', at: '', detail: '' } };
    keepCourse('parked', { of: other, played: failed });
    expect(coursesOf('one').runs.parked!.before).toBe(now);
    keepCourse('parked', { of: other, played: now.played });
    expect(coursesOf('one').runs.parked!.before).toBe(now);
  });

  it('what it comes to first is looked at first; another scenario is seen whole; another system has its own', () => {
    const played = play(SNOW, 'parked');
    keepCourse('parked', { of: SNOW, played: { ok: true, value: played } });
    chooseScenario('parked');
    expect(coursesOf('one').at_s).toBe(played.verdict.find(({ t_s }) => t_s !== undefined)!.t_s);
    showSpan([100, 200]);
    goToTime(5000, 43_200);
    expect(coursesOf('one').span).toEqual([4950, 5050]);
    chooseScenario('hot');
    expect(coursesOf('one')).toMatchObject({ chosen: 'hot', at_s: 0, span: undefined });
    openSystem('two', SNOW);
    chooseScenario('rolled');
    expect(coursesOf('two').runs).toEqual({});
  });
});
