import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { unwrap } from '../outcome';
import { parseSystemText } from '../plan';
import { cardOf, evaluateSystem, failedCard, NUMBER_KEYS, numbersOf, sentCardSchema, type Sensitivity } from './';

const SYSTEM = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const NUMBERS = numbersOf(SYSTEM, unwrap(evaluateSystem(SYSTEM, 'numbers', 'without-fit')));
const COUNTED = {
  findings: ['stop', 'warn', 'warn', 'note'].map((severity) => ({ severity })),
  notJudged: [{}, {}, {}],
};
const SENSITIVITY: Sensitivity = { influences: [], spreads: { holds: 2e-3, usable: 0 }, unknown: ['delivers'] };
const isTaken = (card: unknown, conditions: unknown = SYSTEM.conditions): boolean =>
  sentCardSchema.isValidSync({ card, conditions }, { strict: true });

describe('a card', () => {
  it('has every number that there is, as it is, and counts what every rule says', () => {
    const card = cardOf(NUMBERS, COUNTED);
    expect(card).toMatchObject({ stops: 1, warns: 2, notes: 1, notJudged: 3 });
    for (const key of NUMBER_KEYS) {
      const [number, shown] = [NUMBERS[key], card.numbers.find((one) => one.key === key)];
      expect(shown, key).toEqual(number.ok ? { key, ...number.value } : undefined);
    }
    expect(card.numbers.length).toBeGreaterThan(3);
  });

  it('tells a spread of nothing from one that is not known, and from one that nobody worked out', () => {
    const { numbers } = cardOf(NUMBERS, COUNTED, SENSITIVITY);
    const of = (key: string) => numbers.find((one) => one.key === key)!;
    expect(of('holds').spread).toBe(2e-3);
    expect(of('usable').spread).toBe(0);
    expect(of('delivers')).toMatchObject({ hasNoSpread: true });
    expect(of('delivers').spread).toBeUndefined();
    expect([of('goes').spread, of('goes').hasNoSpread]).toEqual([undefined, undefined]);
  });

  it('is taken by the door as it was made, and nothing else is', () => {
    for (const card of [cardOf(NUMBERS, COUNTED), cardOf(NUMBERS, COUNTED, SENSITIVITY), failedCard('why')])
      expect(isTaken(card)).toBe(true);
    const card = cardOf(NUMBERS, COUNTED);
    const [first] = card.numbers;
    for (const wrong of [
      undefined,
      { ...card, more: 1 },
      { ...card, stops: 0.5 },
      { ...card, numbers: [{ ...first, spread: -1 }] },
      { ...card, numbers: [{ ...first, key: 'other' }] },
      { ...card, numbers: [{ ...first, role: 'other' }] },
    ])
      expect(isTaken(wrong), JSON.stringify(wrong)).toBe(false);
    for (const conditions of [null, {}, { ...SYSTEM.conditions, pitch_deg: 90 }])
      expect(isTaken(card, conditions)).toBe(false);
  });
});
