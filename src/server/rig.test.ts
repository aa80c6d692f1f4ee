import { readFileSync } from 'node:fs';
import { describe, expect, it, vi } from 'vitest';
import { parseSystemText } from '@/core/plan';
import { unwrap } from '@/core/outcome';
import { endRig, pourBody, pourInto, readRig, rigQuery, startRig } from './rig';
import { checked } from './http';
import { MOST_OF_A_RIG, rigStream, streamsNow } from './rigStreams';

const BOAT = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const QUERY = { sender: 'sender', seed: 4, speed: 60, fault: 'none' as const };

describe('a simulated rig', () => {
  it('runs by the clock it is given, pours, settles, and tells its truth when it ends', async () => {
    const started = unwrap(await startRig(BOAT, QUERY, 'one', 0));
    expect(started).toMatchObject({ id: 'one', simulated: true, signal: 'resistance', pulsesPerLitre: 100 });
    const empty = readRig('one', 100)!;
    expect(pourInto('one', 0.06, 0.0005, 200)).toMatchObject({ simulated: true, pouring: true });
    // 60 L at half a litre a second are two minutes of the rig, two seconds of the clock.
    expect(readRig('one', 1500)!.pouring).toBe(true);
    const later = readRig('one', 4000)!;
    expect(later.pouring).toBe(false);
    expect(Math.abs(later.pulses - 6000)).toBeLessThan(150);
    expect(Math.abs(readRig('one', 6000)!.reading - empty.reading)).toBeGreaterThan(10);
    expect(endRig('one')).toMatchObject({ simulated: true, sticksBelow_ratio: 0, diesAt_ratio: null });
    expect(readRig('one', 7000)).toBeUndefined();
    expect(pourInto('one', 0.01, 0.001, 7000)).toBeUndefined();
    expect(endRig('one')).toBeUndefined();
  });

  it('another number is another tank, the same one the same', async () => {
    const truth = async (seed: number) => {
      unwrap(await startRig(BOAT, { ...QUERY, seed }, `seed-${seed}`, 0));
      return endRig(`seed-${seed}`);
    };
    expect(await truth(5)).toEqual(await truth(5));
    expect(await truth(5)).not.toEqual(await truth(6));
  });

  it('no more run at once than a bench holds, and those forgotten make room', async () => {
    for (let i = 0; i < 16; i++) unwrap(await startRig(BOAT, QUERY, `many-${i}`, 0));
    expect(await startRig(BOAT, QUERY, 'over', 1000)).toMatchObject({ ok: false, error: { code: 'too-many' } });
    expect(await startRig(BOAT, QUERY, 'later', 4_000_000)).toMatchObject({ ok: true });
    endRig('later');
  });

  it('four pages can look at one rig by one timer, and what they held is given back', async () => {
    vi.useFakeTimers();
    unwrap(await startRig(BOAT, QUERY, 'seen', Date.now()));
    const leaves = Array.from({ length: MOST_OF_A_RIG }, () => new AbortController());
    const streams = leaves.map(({ signal }) => rigStream('seen', signal) as ReadableStream<Uint8Array>);
    expect(vi.getTimerCount()).toBe(1);
    expect(rigStream('seen', new AbortController().signal)).toBe('too-many');
    expect(rigStream('ghost', new AbortController().signal)).toBeUndefined();
    const readers = streams.map((stream) => stream.getReader());
    vi.advanceTimersByTime(400);
    for (const reader of readers)
      expect(new TextDecoder().decode((await reader.read()).value)).toMatch(/^data: .*"simulated":true.*\n\n$/);
    leaves[0]!.abort();
    await readers[1]!.cancel();
    expect(streamsNow('seen')).toEqual({ ofRig: MOST_OF_A_RIG - 2, all: MOST_OF_A_RIG - 2 });
    endRig('seen');
    vi.advanceTimersByTime(400);
    expect(streamsNow('seen')).toEqual({ ofRig: 0, all: 0 });
    expect(vi.getTimerCount()).toBe(0);
    vi.useRealTimers();
  });

  it('a reader that does not keep up is let go', async () => {
    vi.useFakeTimers();
    unwrap(await startRig(BOAT, QUERY, 'slow', Date.now()));
    rigStream('slow', new AbortController().signal);
    vi.advanceTimersByTime(60_000);
    expect(streamsNow('slow').ofRig).toBe(0);
    endRig('slow');
    vi.useRealTimers();
  });

  it('a sender that is not there is told', async () => {
    expect(await startRig(BOAT, { ...QUERY, sender: 'ghost' }, 'ghost', 0)).toMatchObject({
      ok: false,
      error: { code: 'no-sender' },
    });
  });

  it.each([
    [{}, /sender is missing/],
    [{ sender: 'sender', speed: '0' }, /speed must be from 1 to 120/],
    [{ sender: 'sender', fault: 'explodes' }, /fault must be one of none, sticks, dies/],
    [{ sender: 'sender', seed: '1.5' }, /seed must be a whole number/],
  ])('the query %j', (query, words) => {
    const read = checked(() => rigQuery.validateSync(query, { abortEarly: false }));
    expect(read).toMatchObject({ ok: false, detail: expect.stringMatching(words) as string });
  });

  it.each([
    [{}, /volume_m3 is missing/],
    [{ volume_m3: '5' }, /must be a number/],
    [{ volume_m3: 50 }, /from -20 to 20/],
    [{ volume_m3: 0.005, flow_m3PerS: 0 }, /flow_m3PerS must be from/],
    [{ volume_m3: 0.005, beer: true }, /beer/],
  ])('the pour %j', (pour, words) => {
    expect(checked(() => pourBody.validateSync(pour, { strict: true, abortEarly: false }))).toMatchObject({
      ok: false,
      detail: expect.stringMatching(words) as string,
    });
  });
});
