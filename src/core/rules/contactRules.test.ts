import { describe, expect, it } from 'vitest';
import { applied, SOUND, T } from '../../../tests/raisedSystems';
import { evaluateSystem } from '../answers';
import { unwrap } from '../outcome';
import { COMPATIBILITY, INSIDE_KEYS, SEALING_KEYS } from '../reference/compatibility';
import type { SystemDocument } from '../plan';
import { contactsOf } from './contactRules';
import { findingsOf } from '.';

const found = (system: SystemDocument) => findingsOf(system, unwrap(evaluateSystem(system, 'full', 'without-fit')));
const contacts = (system: SystemDocument) => found(system).filter(({ id }) => id === 'contact.does-not-stand-it');

describe('materials named where fluid touches them', () => {
  it('each material in diesel is judged as the table has it, wherever it is named', () => {
    const ratings = { good: [], limited: ['note'], bad: ['stop'], unknown: ['warn'] };
    for (const { key, ratings: of } of COMPATIBILITY) {
      const severities = ratings[of.diesel];
      const inside = applied(SOUND, [[`${T}inside`, [{ id: 'thing', name: 'Thing', material: key }]]]);
      expect(
        contacts(inside).map(({ severity }) => severity),
        key,
      ).toEqual(severities);
      if (!SEALING_KEYS.includes(key)) continue;
      for (const path of [`${T}ports[0].seal`, 'lines[0].from.seal', 'lines[1].to.seal'])
        expect(
          contacts(applied(SOUND, [[path, key]])).map(({ severity }) => severity),
          key,
        ).toEqual(severities);
    }
  }, 120_000);

  it('go with the fluid that is in the tank, and lead to where they were named', () => {
    const named = applied(SOUND, [[`${T}ports[0].seal`, 'nbr']]);
    expect(contacts(named)).toEqual([]);
    const other = applied(named, [['fluids[0].fluid', 'e85']]);
    expect(contactsOf(other)[0]!.fluid).toBe('alcohol-blend');
    const rating = COMPATIBILITY.find(({ key }) => key === 'nbr')!.ratings['alcohol-blend'];
    expect(contacts(other).length).toBe(rating === 'good' ? 0 : 1);
    expect(contactsOf(other)[0]!.path).toEqual(['tanks', 0, 'ports', 0, 'seal']);
  });

  it('a liner stands between wall and fuel, and is judged instead of it', () => {
    const steel = applied(SOUND, [[`${T}material.alloy`, 'mild-steel']]);
    const walls = (system: SystemDocument) => found(system).filter(({ id }) => id === 'tank.material-and-fluid').length;
    expect(walls(steel)).toBe(1);
    const lined = applied(steel, [[`${T}inside`, [{ id: 'liner', name: 'Liner', material: 'epoxy-novolac' }]]]);
    expect(walls(lined)).toBe(0);
  });

  it('what can be named is in the table', () => {
    for (const key of [...INSIDE_KEYS, ...SEALING_KEYS])
      expect(COMPATIBILITY.some((row) => row.key === key)).toBe(true);
  });
});
