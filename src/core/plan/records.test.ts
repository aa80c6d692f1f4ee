import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pourRecord } from '../../../tests/pourRecord';
import { asVersion6, sayableIn6 } from '../../../tests/version6';
import { unwrap } from '../outcome';
import {
  atConditionsOf,
  counting,
  differences,
  joinedRecords,
  loosePours,
  mergeSystems,
  migrate,
  parseSystem,
  parseSystemText,
  poursOf,
  samePlan,
  withRecords,
  withRecordsOf,
  withValue,
  type PourDocument,
} from '.';

const BOAT = unwrap(parseSystemText(readFileSync('demo/crab-boat.json', 'utf8')));
const LOG = BOAT.tanks[0]!.calibrations[0]!.id;
const pour = (id: string, more: Partial<PourDocument> = {}): PourDocument => pourRecord(id, { of: LOG, ...more });
const faultsOf = (records: readonly PourDocument[]): string[] => {
  const parsed = parseSystem({ ...BOAT, records });
  return parsed.ok ? [] : parsed.error.faults.map(({ path, message }) => `${path} ${message}`);
};

describe('records', () => {
  it('count with their last correction, in the order in which the first was written', () => {
    const [a, b] = [pour('a'), pour('b')];
    const a2 = pour('a2', { corrects: 'a', state: 'entry-struck' });
    const a3 = pour('a3', { corrects: 'a2', state: 'counts' });
    expect(counting([a, b, a2, a3])).toEqual([
      { id: 'a', now: a3, before: [a, a2] },
      { id: 'b', now: b, before: [] },
    ]);
  });

  it('every record is in just one line of the log, however they are corrected (seeded)', () => {
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 8 }), { maxLength: 30 }), (choices) => {
        const records: PourDocument[] = [];
        for (const [i, choice] of choices.entries()) {
          // Any that is there, corrected or not; or a new pour.
          const corrects = records[choice]?.id;
          records.push(pour(`p${i}`, corrects === undefined ? {} : { corrects }));
        }
        const lines = counting(records);
        expect(
          lines
            .flatMap(({ now, before }) => [...before, now])
            .map(({ id }) => id)
            .sort(),
        ).toEqual(records.map(({ id }) => id).sort());
        expect(lines).toHaveLength(records.filter(({ corrects }) => corrects === undefined).length);
        for (const { now, before } of lines)
          expect(records.indexOf(now)).toBeGreaterThan(Math.max(-1, ...before.map((each) => records.indexOf(each))));
        expect(faultsOf(records)).toEqual([]);
      }),
      { seed: 7, numRuns: 40 },
    );
  });

  it.each([
    ['an id twice', [pour('a'), pour('a')], 'records[1].id "a" is the id of an earlier record'],
    ['a correction of none', [pour('b', { corrects: 'a' })], 'records[0].corrects names the record "a"'],
    ['one of itself', [pour('a', { corrects: 'a' })], 'records[0].corrects names the record "a"'],
    ['one of a later record', [pour('b', { corrects: 'a' }), pour('a')], 'records[0].corrects names the record "a"'],
    ['one of another log', [pour('a'), pour('b', { corrects: 'a', of: 'other' })], 'records[1].corrects must name'],
  ])('%s is refused at its path', (_, records, says) => {
    expect(faultsOf(records)[0]).toContain(says);
  });

  it('two devices may correct the same one: both stand, the one that was kept last counts', () => {
    const [base, mine, theirs] = [
      withRecords(BOAT, [pour('a')]),
      withRecords(BOAT, [pour('a'), pour('mine', { corrects: 'a', state: 'entry-struck' })]),
      withRecords(BOAT, [pour('a'), pour('theirs', { corrects: 'a', state: 'spilt' })]),
    ];
    const merged = mergeSystems(base, mine, theirs);
    if (!merged.ok) throw new Error(merged.detail);
    expect(faultsOf(merged.value.records)).toEqual([]);
    expect(poursOf(merged.value, LOG).at(-1)).toMatchObject({
      id: 'a',
      now: { id: 'mine' },
      before: [{ id: 'a' }, { id: 'theirs' }],
    });
  });

  it('are no part of the plan: no difference, and the same plan', () => {
    const more = withRecords(BOAT, [pour('new')]);
    expect(samePlan(BOAT, more)).toBe(true);
    expect(differences(BOAT, more)).toEqual([]);
    expect(samePlan(BOAT, withValue(more, ['description'], 'Another'))).toBe(false);
  });

  it('outlive their calibration, and are told as loose', () => {
    const without = withValue(BOAT, ['tanks', 0, 'calibrations'], []);
    expect(parseSystem(without)).toMatchObject({ ok: true });
    expect(loosePours(without)).toHaveLength(poursOf(BOAT, LOG).length);
    expect(loosePours(BOAT)).toEqual([]);
  });

  it('of two copies go together, each once, and neither loses one', () => {
    const mine = withRecords(BOAT, [pour('mine')]);
    const theirs = withRecords(withValue(BOAT, ['description'], 'Theirs'), [pour('theirs')]);
    const merged = mergeSystems(BOAT, mine, theirs);
    expect(merged.ok && merged.value.description).toBe('Theirs');
    expect(merged.ok && merged.value.records.slice(-2).map(({ id }) => id)).toEqual(['theirs', 'mine']);
    expect(joinedRecords(mine.records, mine.records)).toBe(mine.records);
    // A step back in the plan keeps what was written down meanwhile.
    expect(withRecordsOf(atConditionsOf(BOAT, mine), mine).records).toBe(mine.records);
  });

  it('of a file of version 6 are its pours, each of its calibration, in their order', () => {
    expect(unwrap(migrate(asVersion6(BOAT)))).toEqual(sayableIn6(BOAT));
  });
});
