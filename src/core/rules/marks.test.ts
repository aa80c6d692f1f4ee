import { describe, expect, it } from 'vitest';
import { applied, RAISED_BY, SOUND } from '../../../tests/raisedSystems';
import { evaluateSystem } from '../answers';
import { unwrap } from '../outcome';
import type { FillerMark, SystemDocument } from '../plan';
import { findingsOf } from '.';

describe('marks of two fillers', () => {
  const marked = (one: FillerMark | undefined, other: FillerMark | undefined) => {
    const two = RAISED_BY['fill.mixed-up'] as (system: SystemDocument) => SystemDocument;
    return applied(two(SOUND), [
      ['tanks[0].ports[0].mark', one],
      ['tanks[1].ports[0].mark', other],
    ]);
  };
  const found = (system: SystemDocument): string[] =>
    findingsOf(system, unwrap(evaluateSystem(system)))
      .filter(({ id }) => id === 'fill.mixed-up')
      .map(({ what }) => what.text);

  it('told apart by words and colour both, and by neither alone', () => {
    expect(found(marked({ says: 'DIESEL', colour: 'yellow' }, { says: 'WATER', colour: 'blue' }))).toEqual([]);
    const faults = [
      [undefined, undefined, 'neither says what goes in'],
      [{ says: 'DIESEL', colour: 'yellow' }, undefined, 'one does not say what goes in'],
      [{ says: 'FUEL', colour: 'yellow' }, { says: ' fuel', colour: 'blue' }, 'both say the same'],
      [{ says: 'DIESEL', colour: 'blue' }, { says: 'WATER', colour: 'blue' }, 'both are blue'],
      [{ says: 'DIESEL' }, { says: 'WATER', colour: 'blue' }, 'their colours are not both said'],
    ] as const;
    for (const [one, other, fault] of faults) expect(found(marked(one, other))[0]).toContain(fault);
  });
});
