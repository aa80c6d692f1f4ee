import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { applied, SOUND } from '../../../../tests/raisedSystems';
import { unwrap } from '../../outcome';
import { stretch_ratio, type Join } from '../../reference/joins';
import { findingsOf } from '../../rules';
import { evaluateSystem, jointsOf } from '..';

const hose = (size: string): Join => ({ system: 'barb', size, side: 'female' });
const barb = (size: string): Join => ({ system: 'barb', size, side: 'male' });
const found = (system: Parameters<typeof evaluateSystem>[0]) =>
  findingsOf(system, unwrap(evaluateSystem(system, 'full', 'without-fit'))).filter(
    ({ id }) => id === 'line.hose-stretched',
  );

/** A 3/8 hose at a 1/2 barb: at the filter before the pump, or at the one behind it. */
const at = (line: number, part: number, end: 'in' | 'out', which: 'from' | 'to') =>
  applied(SOUND, [
    [`lines[${line}].${which}.join`, { system: 'barb', size: '3/8', side: 'female' }],
    [`components[${part}].ends`, [{ end, system: 'barb', size: '1/2', side: 'male' }]],
  ]);

describe('a hose over the next larger barb', () => {
  it('stretches by the bores of the two, one size up and no further, and only a hose over a barb', () => {
    expectClose(stretch_ratio(hose('3/8'), barb('1/2'))!, 12.7 / 9.5 - 1, { rel: 1e-12, why: 'bores of the table' });
    expectClose(stretch_ratio(hose('1/4'), barb('5/16'))!, 7.9 / 6.4 - 1, { rel: 1e-12, why: 'bores of the table' });
    for (const [one, other] of [
      [hose('3/8'), barb('3/8')],
      [hose('3/8'), barb('5/8')],
      [hose('1/2'), barb('3/8')],
      [barb('3/8'), barb('1/2')],
      [hose('3/8'), { system: 'npt', size: '1/2', side: 'male' } as const],
      [hose('2 3/8'), barb('2 3/8')],
    ] as const)
      expect(stretch_ratio(one, other)).toBeUndefined();
  });

  it('does not go together until somebody says that it is stretched', () => {
    const system = at(0, 0, 'in', 'to');
    const joint = jointsOf(system).find(({ line, at: end }) => line === system.lines[0]!.id && end === 'to')!;
    expect(joint).toMatchObject({ state: 'broken' });
    expect(joint.stretch_ratio).toBeGreaterThan(0.3);
    const stretched = applied(system, [['lines[0].to.stretched', true]]);
    expect(jointsOf(stretched).find(({ line, at: end }) => line === joint.line && end === 'to')).toMatchObject({
      state: 'mates',
      isStretched: true,
    });
    expect(found(stretched).map(({ severity }) => severity)).toEqual(['note']);
    // What is said of a pair that does not allow it changes nothing.
    const far = applied(stretched, [['components[0].ends', [{ end: 'in', ...barb('5/8') }]]]);
    expect(jointsOf(far).find(({ line, at: end }) => line === joint.line && end === 'to')).toMatchObject({
      state: 'broken',
    });
  });

  it('is never the answer under pump pressure', () => {
    const pump = SOUND.components.findIndex(({ kind }) => kind === 'pump');
    const after = SOUND.lines.findIndex(({ from }) => from.item === SOUND.components[pump]!.id);
    const pressed = applied(at(after, pump, 'out', 'from'), [
      [`lines[${after}].from.stretched`, true],
      ['consumers[0].neededPressure_Pa.value', 60e3],
      [
        `components[${pump}].curve`,
        [
          { flow_m3PerS: 0, rise_Pa: 2e5 },
          { flow_m3PerS: 1e-4, rise_Pa: 0 },
        ],
      ],
    ]);
    expect(found(pressed).map(({ severity }) => severity)).toEqual(['stop']);
  });
});
