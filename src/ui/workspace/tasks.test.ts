import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { allKnown } from '@/core/answers';
import { parseSystemText, toPath, type SystemDocument } from '@/core/plan';
import { RULES } from '@/core/rules';
import { placeIn, placeOfField, standingOf, TASKS, taskOfRule, tasksOf } from './tasks';

const demo = (file: string): SystemDocument => {
  const parsed = parseSystemText(readFileSync(`demo/${file}`, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
};

describe('tasks', () => {
  it('every rule of a stage is mended at exactly one of its tasks', () => {
    for (const [stage, tasks] of Object.entries(TASKS))
      expect(tasks.flatMap(({ rules }) => rules).sort(), stage).toEqual(
        RULES.filter((rule) => rule.stage === stage)
          .map(({ id }) => id)
          .sort(),
      );
  });

  it('keys are told apart within a stage, and a stage of one task is not divided', () => {
    for (const [stage, tasks] of Object.entries(TASKS)) {
      expect(new Set(tasks.map(({ key }) => key)).size).toBe(tasks.length);
      expect(tasksOf(stage)).toHaveLength(tasks.length > 1 ? tasks.length : 0);
    }
    expect(tasksOf('findings')).toEqual([]);
  });

  it.each(readdirSync('demo'))('%s: no value falls through to the last resort but those of the trip', (file) => {
    const system = demo(file);
    const fallen = allKnown(system)
      .filter(({ path }) => placeOfField(system, path).stage === 'range')
      .map(({ path }) => path.filter((key) => typeof key === 'string').join('.'));
    for (const path of fallen) expect(path).toMatch(/^(vehicle|wishes\.(?!moves)|consumers\.burn)/);
  });

  const boat = demo('crab-boat.json');
  it.each([
    ['tanks[0].shape.length_m', 'tank', 'shape'],
    ['tanks[0].mounting.x_m', 'fit', 'clearance'],
    ['tanks[0].mounting.pitch_deg', 'tank', 'slopes'],
    ['envelope.noseUp_deg', 'tank', 'slopes'],
    ['envelope.braking_mPerS2', 'tank', 'baffles'],
    ['tanks[0].ports[1].bore_m', 'vents', 'vents'],
    ['tanks[0].ports[2].x_m', 'ports', 'list'],
    ['tanks[0].senders[0].gauge.full_ohm', 'gauge', 'needle'],
    ['tanks[0].senders[0].armLength_m', 'gauge', 'sender'],
    ['consumers[0].burnFull_m3PerS', 'range', 'range'],
    ['consumers[0].neededFlow_m3PerS', 'lines', 'delivery'],
    ['wishes.moves_m3', 'lines', 'circuits'],
    ['surprise', 'range', 'range'],
  ])('%s is entered at %s, %s', (path, stage, task) => {
    expect(placeOfField(boat, toPath(path))).toMatchObject({ stage, task });
  });

  it('a value is looked for at the stage that was asked for where it is entered there too', () => {
    expect(placeIn('ports', boat, toPath('tanks[0].ports[1].bore_m'))).toMatchObject({ stage: 'ports', task: 'list' });
    expect(placeIn('lines', boat, toPath('tanks[0].pickups[0].bore_m'))).toMatchObject({
      stage: 'ports',
      task: 'pickups',
    });
    expect(placeIn('findings', boat, toPath('lines[0].bore_m'))).toMatchObject({ stage: 'lines', task: 'schematic' });
  });

  it('a rule that no task knows is at the first of its stage', () => {
    expect(taskOfRule({ id: 'line.siphons', stage: 'lines' })).toBe('failure');
    expect(taskOfRule({ id: 'line.unheard-of', stage: 'lines' })).toBe('delivery');
  });
});

describe('how a place stands', () => {
  const NONE = { findings: [], notJudged: [], onTheWay: [], failed: [] };
  const finding = (id: string, severity: 'stop' | 'warn' | 'note') => ({ id, stage: 'lines' as const, severity });
  const [warned, stopped] = [finding('line.siphons', 'warn'), finding('line.cannot-deliver', 'stop')];

  it('by its worst finding, at the stage and at the task where that is mended', () => {
    const judged = { ...NONE, findings: [warned, stopped, finding('line.held-too-far', 'note')] };
    expect(standingOf(judged, 'lines')).toBe('stop');
    expect(standingOf(judged, 'lines', 'delivery')).toBe('stop');
    expect(standingOf(judged, 'lines', 'failure')).toBe('warn');
    expect(standingOf(judged, 'lines', 'schematic')).toBeUndefined();
    expect(standingOf(judged, 'tank')).toBeUndefined();
  });

  it('is never clear before all is known: looking, failed and not judged are each told', () => {
    expect(standingOf({ ...NONE, onTheWay: ['clearances'] }, 'fit', 'clearance')).toBe('looking');
    expect(standingOf({ ...NONE, failed: ['reach'], onTheWay: ['clearances'] }, 'fit')).toBe('unknown');
    const notJudged = [{ id: 'gauge.lies', stage: 'gauge' as const }];
    expect(standingOf({ ...NONE, notJudged }, 'gauge', 'needle')).toBe('unknown');
    expect(standingOf({ ...NONE, notJudged }, 'gauge', 'scales')).toBeUndefined();
    expect(standingOf({ ...NONE, findings: [warned], onTheWay: ['reach'] }, 'lines')).toBe('warn');
    expect(standingOf(NONE, 'lines')).toBeUndefined();
  });

  it('a sheet of paper has no standing', () => {
    expect(standingOf({ ...NONE, onTheWay: ['clearances'] }, 'paper')).toBeUndefined();
  });
});
