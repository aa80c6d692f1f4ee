import { beforeAll, expect, it } from 'vitest';
import { loadKernel } from '../../geometry/kernel';
import { unwrap } from '../../outcome';
import { JOBS, parseSystem, withWay, type SystemDocument } from '../../plan';
import { judge } from '../../rules';
import { evaluateSystem } from '../evaluate';
import type { LineAnswers } from '..';

beforeAll(loadKernel);

const linesOf = (system: SystemDocument): LineAnswers => unwrap(evaluateSystem(system)).lines!;
const auxiliary = JOBS.find(({ key }) => key === 'auxiliary')!;
const SYSTEM = unwrap(parseSystem(auxiliary.draft('Two tanks', auxiliary.usual)));
const last = SYSTEM.lines.filter(({ purpose }) => purpose === 'transfer').at(-1)!;
const bent = (rise_m: SystemDocument['lines'][number]['rise_m']): SystemDocument => ({
  ...SYSTEM,
  lines: SYSTEM.lines.map((line) => (line.id === last.id ? { ...line, rise_m } : line)),
});

it('the way of a line between two places is what the lines before it leave, by hand', () => {
  const [main, aux] = SYSTEM.tanks as [SystemDocument['tanks'][number], SystemDocument['tanks'][number]];
  const placeOf = (tank: typeof main, id: string): number[] => {
    const port = tank.ports.find((each) => each.id === id)!;
    if (tank.shape.kind !== 'box') throw new Error('a box');
    return [
      tank.mounting.x_m.value + port.x_m!.value,
      tank.mounting.y_m.value + port.y_m!.value,
      tank.mounting.z_m.value + tank.shape.height_m.value,
    ];
  };
  const run = SYSTEM.lines.filter(({ purpose }) => purpose === 'transfer');
  const from = placeOf(aux, aux.pickups[0]!.port);
  const to = placeOf(main, last.to.item);
  const before = run.slice(0, -1);
  const left = [0, 1, 2].map(
    (k) =>
      to[k]! - from[k]! - before.reduce((sum, line) => sum + [line.forward_m, line.toPort_m, line.rise_m][k]!.value, 0),
  );
  const { way_m } = linesOf(SYSTEM).paths.find(({ line }) => line === last.id)!;
  // The lid has a thickness, and what is seated on it stands a little higher: millimetres.
  for (const k of [0, 1, 2]) expect(Math.abs(way_m[k]! - left[k]!)).toBeLessThan(0.02);
});

it('a guess that does not meet is a note, one that was measured a warning, and the places mend both', () => {
  for (const [origin, severity] of [
    ['assumed', 'note'],
    ['measured', 'warn'],
  ] as const) {
    const system = bent({ value: 2, origin, spread: 0.05 });
    const { findings } = judge(system, unwrap(evaluateSystem(system)));
    expect(findings.find(({ id }) => id === 'line.ends-apart')?.severity, origin).toBe(severity);
    const { way_m } = linesOf(system).paths.find(({ line }) => line === last.id)!;
    const mended = unwrap(parseSystem(withWay(system, last.id, way_m)));
    expect(linesOf(mended).apart).toEqual([]);
    const line = mended.lines.find(({ id }) => id === last.id)!;
    expect(line.length_m.value).toBeGreaterThanOrEqual(Math.hypot(...way_m) - 0.01);
  }
});
