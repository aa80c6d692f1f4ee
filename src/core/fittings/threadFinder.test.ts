import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { THREAD_SYSTEMS, THREADS, type ThreadRow } from '../reference/threads';
import { findThread, parsePitch, type ThreadReading } from '.';

const mm = (value: number): number => value / 1000;
const outside = (diameter_mm: number, more: Partial<ThreadReading> = {}): ThreadReading => ({
  on: 'outside',
  diameter_m: mm(diameter_mm),
  diameterSpread_m: mm(0.1),
  ...more,
});
const names = (reading: ThreadReading): string[] =>
  unwrap(findThread(reading)).candidates.map(({ thread }) => thread.name);
const byName = (name: string): ThreadRow => THREADS.find((thread) => thread.name === name)!;

describe('an unknown thread', () => {
  it('13.0 mm over the crests with 19 turns an inch is a British quarter; parallel or taper is told by laying a straight edge along it', () => {
    const found = unwrap(findThread(outside(13.0, { pitch_m: mm(25.4 / 19), pitchSpread_m: mm(0.03) })));
    expect(
      found.candidates
        .slice(0, 2)
        .map(({ thread }) => thread.name)
        .sort(),
    ).toEqual(['G 1/4', 'R 1/4']);
    expect(found.tell?.how).toEqual(['taper']);
    expect(names(outside(13.0, { pitch_m: mm(25.4 / 19), pitchSpread_m: mm(0.03), tapers: false }))[0]).toBe('G 1/4');
  });

  it('13.5 mm that narrows, 18 turns an inch, is 1/4 NPT and not the British one', () => {
    expect(names(outside(13.5, { pitch_m: mm(25.4 / 18), pitchSpread_m: mm(0.03), tapers: true }))[0]).toBe('1/4 NPT');
  });

  it('14.2 mm with 18 turns is a -6, flare or O-ring boss by its nose', () => {
    const found = unwrap(findThread(outside(14.2, { pitch_m: mm(25.4 / 18), tapers: false })));
    expect(found.candidates.map(({ thread }) => thread.name)).toEqual(
      expect.arrayContaining(['-6 flare (9/16-18)', '-6 O-ring boss (9/16-18)']),
    );
    expect(found.tell?.how).toEqual(['nose']);
    expectClose(found.candidates[0]!.share, found.candidates[1]!.share, { rel: 1e-12, why: 'the same thread in both' });
  });

  it('without a pitch, the pitch is what to look at', () => {
    const { candidates, tell } = unwrap(findThread(outside(13.9)));
    expect(tell?.how[0]).toBe('pitch');
    const [one, other] = tell!.between.map(byName);
    expect(candidates[0]!.thread).toBe(one);
    expect(Math.abs(one!.pitch_m - other!.pitch_m)).toBeGreaterThan(4e-5);
  });

  it('inside: M14 x 1.5 has crests at 12.4 mm', () => {
    expect(
      names({ on: 'inside', diameter_m: mm(12.45), diameterSpread_m: mm(0.1), pitch_m: mm(1.5), tapers: false })[0],
    ).toBe('M14 x 1.5');
  });

  it('every thread of the table, measured well, comes first or shares the first place', () => {
    for (const thread of THREADS) {
      const tapers = THREAD_SYSTEMS[thread.system].taper_ratio > 0;
      const found = unwrap(
        findThread({
          on: 'outside',
          diameter_m: thread.major_m - 0.08 * thread.pitch_m,
          diameterSpread_m: mm(0.1),
          pitch_m: thread.pitch_m,
          pitchSpread_m: mm(0.02),
          tapers,
        }),
      );
      const best = found.candidates[0]!.share;
      expect(
        found.candidates.filter(({ share }) => share > best * 0.99).map(({ thread: { name } }) => name),
        thread.name,
      ).toContain(thread.name);
    }
  });

  it('shares add up to one, fall, and the truth is rarely missed under the stated errors (seeded)', () => {
    let missed = 0;
    const runs = 300;
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: THREADS.length - 1 }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (k, d, p) => {
          const thread = THREADS[k]!;
          const tapers = THREAD_SYSTEMS[thread.system].taper_ratio > 0;
          const { candidates } = unwrap(
            findThread({
              on: 'outside',
              diameter_m: thread.major_m - 0.08 * thread.pitch_m + d * mm(0.1),
              diameterSpread_m: mm(0.1),
              pitch_m: thread.pitch_m + p * mm(0.03),
              pitchSpread_m: mm(0.03),
              tapers,
            }),
          );
          expect(candidates.reduce((sum, { share }) => sum + share, 0)).toBeLessThanOrEqual(1 + 1e-12);
          candidates.slice(1).forEach(({ share }, i) => expect(share).toBeLessThanOrEqual(candidates[i]!.share));
          if (!candidates.some((candidate) => candidate.thread === thread)) missed++;
        },
      ),
      { seed: 20261125, numRuns: runs },
    );
    expect(missed / runs).toBeLessThan(0.02);
  });

  it.each<[string, ThreadReading, RegExp]>([
    ['no thread is so fine', outside(13, { pitch_m: mm(0.1) }), /0\.3 to 7 mm/],
    ['no thread is so large', outside(200), /3 to 80 mm/],
    ['a measurement without a spread', outside(13, { diameterSpread_m: 0 }), /how well it was measured/],
    [
      'a pitch that no thread near has',
      outside(13, { pitch_m: mm(4), pitchSpread_m: mm(0.02) }),
      /No thread of the table/,
    ],
  ])('%s: said so', (_, reading, message) => {
    const found = findThread(reading);
    expect(found.ok ? '' : found.error.detail).toMatch(message);
  });
});

describe('a pitch as it is read', () => {
  it.each([
    ['1.5', 1.5e-3],
    ['1,5 mm', 1.5e-3],
    ['18', 0.0254 / 18],
    ['18 tpi', 0.0254 / 18],
    ['11 1/2 tpi', 0.0254 / 11.5],
    ['4 tpi', 0.0254 / 4],
    ['27 turns an inch', 0.0254 / 27],
  ])('%s', (text, pitch) => {
    expectClose(unwrap(parsePitch(text)).pitch_m, pitch, { rel: 1e-12, why: 'a millimetre or a turn an inch' });
  });

  it.each(['', 'fine', '0', '-3', '18 furlongs', '1.5.5'])('"%s" is none, and says what is', (text) => {
    const read = parsePitch(text);
    expect(read.ok ? '' : read.error.detail).toContain('11 1/2 tpi');
  });
});

describe('the thread table', () => {
  // ISO 965 (and B1.1): the minor diameter of a basic thread is D - 1.0825 P; a drill lies between that and the pitch
  // diameter D - 0.6495 P, from memory.
  it.each(
    THREADS.filter(({ system }) => system !== 'npt' && system !== 'bsp-taper').map(
      (thread) => [thread.name, thread] as const,
    ),
  )('%s: its drill lies between its minor and its pitch diameter', (_, { major_m, pitch_m, tapDrill_m }) => {
    expect(tapDrill_m).toBeGreaterThan(major_m - 1.3 * pitch_m);
    expect(tapDrill_m).toBeLessThan(major_m - 0.6495 * pitch_m);
  });

  it('pipe drills leave metal for the taper: under the pitch diameter at the gauge plane', () => {
    for (const { system, major_m, pitch_m, tapDrill_m } of THREADS) {
      if (system !== 'npt' && system !== 'bsp-taper') continue;
      expect(tapDrill_m).toBeLessThan(major_m - 0.64 * pitch_m);
      expect(tapDrill_m).toBeGreaterThan(major_m - 2.2 * pitch_m);
    }
  });

  it('within a system sizes grow, and no name stands twice', () => {
    expect(new Set(THREADS.map(({ name }) => name)).size).toBe(THREADS.length);
    for (const system of Object.keys(THREAD_SYSTEMS)) {
      const sizes = THREADS.filter((thread) => thread.system === system).map(({ major_m }) => major_m);
      expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
    }
  });

  it('a taper of 1 in 16 is 1° 47′ a side (ASME B1.20.1, from memory)', () => {
    expectClose((Math.atan(THREAD_SYSTEMS.npt.taper_ratio / 2) * 180) / Math.PI, 1 + 47 / 60, {
      abs: 0.01,
      why: 'half the taper',
    });
    expect(byName('1/2 NPT').pitch_m).toBeCloseTo(0.0254 / 14, 12);
  });
});
