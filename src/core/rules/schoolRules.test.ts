import { describe, expect, it } from 'vitest';
import { applied, BAFFLE, ofJob, ON_AXLES, RAISED_BY, SOUND, T } from '../../../tests/raisedSystems';
import { evaluateSystem } from '../answers';
import { unwrap } from '../outcome';
import { assumed, chosen, type SystemDocument } from '../plan';
import { messageText } from '../units';
import { findingsOf } from '.';

const found = (system: SystemDocument, id: string) =>
  findingsOf(system, unwrap(evaluateSystem(system, 'full', 'without-fit'))).filter((finding) => finding.id === id);

describe('schools that were chosen', () => {
  it('fuel held at the pickup: raised until it is planned, silent where nobody chose', () => {
    const id = 'inside.surge-unlike-plan';
    const flap = { width_m: chosen(0.05), height_m: chosen(0.04), passes: 'higher', leak_ratio: chosen(0.05) };
    const planned = {
      baffles: [[`${T}plates`, [BAFFLE]]],
      foam: [[`${T}foam_ratio`, assumed(0.03, 0.01)]],
      'trap-door': [[`${T}plates`, [{ ...BAFFLE, flap }]]],
    } as const;
    expect(found(SOUND, id)).toEqual([]);
    for (const [surge, changes] of Object.entries(planned)) {
      const chose = applied(SOUND, [['practice.surge', surge]]);
      expect(found(chose, id), surge).toHaveLength(1);
      expect(found(applied(chose, changes), id), surge).toEqual([]);
    }
  });

  it('lined or bare: the liner that is named is what counts, both ways', () => {
    const id = 'tank.lining-unlike-plan';
    const liner = [[`${T}inside`, [{ id: 'liner', name: 'Liner', material: 'epoxy-novolac' }]]] as const;
    for (const [lining, none, named] of [
      ['lined', 1, 0],
      ['bare', 0, 1],
    ] as const) {
      const chose = applied(SOUND, [['practice.lining', lining]]);
      expect(found(chose, id)).toHaveLength(none);
      expect(found(applied(chose, liner), id)).toHaveLength(named);
    }
  });

  it('a catch tank that is to take all is warned of when it does not; a small one is a note', () => {
    const small = ofJob('expelled', { school: 'small' });
    expect(found(small, 'expelled.too-small').map(({ severity }) => severity)).toEqual(['note']);
    const full = applied(small, [['practice.catchTank', 'full']]);
    expect(found(full, 'expelled.too-small').map(({ severity }) => severity)).toEqual(['warn']);
    expect(found(ofJob('expelled', { school: 'full' }), 'expelled.too-small')).toEqual([]);
  });

  it('a catch tank at a wheel is told of, unless it is there as ballast', () => {
    const at = applied(ofJob('expelled'), [
      ['vehicle.kind', 'road'],
      ['stance', ON_AXLES],
      ['stance.axles[1].x_m', chosen(0.2)],
    ]);
    expect(found(at, 'expelled.over-wheels')).toHaveLength(1);
    expect(found(applied(at, [['practice.expelledPlace', 'ballast']]), 'expelled.over-wheels')).toEqual([]);
    // Just before and just behind the wheels it is clear of them.
    const { along_m } = unwrap(evaluateSystem(at, 'numbers')).expelled[0]!;
    for (const x_m of [along_m![1] + 0.36, along_m![0] - 0.36])
      expect(found(applied(at, [['stance.axles[1].x_m', chosen(x_m)]]), 'expelled.over-wheels')).toEqual([]);
  });

  it('a transfer into what is full already is told of as that', () => {
    const down = (RAISED_BY['line.transfer-overfills'] as (of: SystemDocument) => SystemDocument)(SOUND);
    const [lower, ...rest] = down.conditions.fills;
    const full = { ...down, conditions: { ...down.conditions, fills: [{ ...lower!, fill_ratio: 0.97 }, ...rest] } };
    const says = found(full, 'line.transfer-overfills').map(({ what }) => messageText(what, 'metric'));
    expect(says).toHaveLength(1);
    expect(says[0]).toContain('full to its limit already');
    expect(messageText(found(down, 'line.transfer-overfills')[0]!.what, 'metric')).toMatch(/limit in .*(min|h|s)/);
  });

  it('thin flats are a note where beads were chosen, and dressed welds only matter in thin metal', () => {
    const large = applied(SOUND, [
      [`${T}shape.length_m`, chosen(0.6)],
      [`${T}material.thickness_m`, chosen(0.0015)],
    ]);
    expect(found(large, 'tank.thin-sheet').map(({ severity }) => severity)).toEqual(['warn']);
    const beaded = applied(large, [['practice.flats', 'beads']]);
    expect(found(beaded, 'tank.thin-sheet').map(({ severity }) => severity)).toEqual(['note']);
    const dressed = applied(large, [['practice.welds', 'dressed']]);
    expect(found(dressed, 'tank.dressed-thin')).toHaveLength(1);
    expect(found(applied(dressed, [[`${T}material.thickness_m`, chosen(0.003)]]), 'tank.dressed-thin')).toEqual([]);
    expect(found(applied(dressed, [[`${T}material.alloy`, 'hdpe']]), 'tank.dressed-thin')).toEqual([]);
  });
});
