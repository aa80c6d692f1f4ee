import { gunzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { draftSystem, meshText, type SystemDocument } from '@/core/plan';
import { revolvedMesh } from '@/core/geometry';
import { loadPacking, sendingOf } from './sending';

const DRAFT = draftSystem({ name: 'Draft', vehicle: 'road', consumer: 'heater', power_W: 4e3, holds_m3: 0.02 });
/** A scanned drum of so many rings of 48 corners. */
const scanned = (rings: number): SystemDocument => {
  const meridian = Array.from(
    { length: rings + 1 },
    (_, i) => [i / rings, i === 0 || i === rings ? 0 : 0.2 + 0.01 * Math.sin(7 * i)] as const,
  );
  return {
    ...DRAFT,
    tanks: [
      { ...DRAFT.tanks[0]!, shape: { kind: 'mesh', file: 'scan.stl', ...meshText(revolvedMesh(meridian, 'x', 48)) } },
    ],
  };
};

describe('what is sent', () => {
  it('a small system as it is, in a request that outlives its page', () => {
    expect(sendingOf(DRAFT)).toEqual({
      body: JSON.stringify(DRAFT),
      keepalive: true,
      headers: { 'content-type': 'application/json' },
    });
  });

  it('a large one as it is, as long as what packs it has not come', () => {
    const system = scanned(400);
    expect(sendingOf(system)).toEqual({
      body: JSON.stringify(system),
      keepalive: false,
      headers: { 'content-type': 'application/json' },
    });
  });

  it.each([24, 400])('a large one packed, whole again when it is unpacked: %d rings', async (rings) => {
    await loadPacking();
    const system = scanned(rings);
    const { body, headers, keepalive } = sendingOf(system);
    expect(headers).toMatchObject({ 'content-encoding': 'gzip' });
    const bytes = body as Uint8Array;
    expect(JSON.parse(gunzipSync(bytes).toString())).toEqual(system);
    expect(bytes.length).toBeLessThan(0.8 * JSON.stringify(system).length);
    // The browser refuses what is larger than 64 KiB in such a request: then it must not be one.
    expect(keepalive).toBe(bytes.length <= 60_000);
  });
});
