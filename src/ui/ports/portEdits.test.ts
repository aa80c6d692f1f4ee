import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { parseSystem, parseSystemText, type SystemDocument } from '@/core/plan';
import { faceSheets } from '@/core/answers';
import { loadKernel } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { PORT_PARTS } from '@/core/reference/portParts';
import { partsFor, withFace, withNudge, withPart, withPlace, withSpare } from './portEdits';

beforeAll(loadKernel);
const SNOW = unwrap(parseSystemText(readFileSync('demo/snow-vehicle.json', 'utf8')));
const valid = (system: SystemDocument): boolean => parseSystem(system).ok;
const lid = () => unwrap(faceSheets(SNOW, 0)).find(({ name }) => name === 'Lid')!;

describe('edits of ports', () => {
  it('a spare is a port like any other, plugged', () => {
    const system = withSpare(SNOW, 0);
    expect(system.tanks[0]!.ports.at(-1)).toMatchObject({ role: 'spare', face: 'lid', part: 'bung-npt-1-4' });
    expect(valid(system)).toBe(true);
  });

  it('put at a point of a sheet, it comes out there', () => {
    const system = withPlace(SNOW, 0, 2, lid(), [0.2, 0.15]);
    const [u, v] = unwrap(faceSheets(system, 0))
      .find(({ name }) => name === 'Lid')!
      .ports.find(({ index }) => index === 2)!.at_m;
    expect(u).toBeCloseTo(0.2, 6);
    expect(v).toBeCloseTo(0.15, 6);
  });

  it('nudged five times it goes five steps, whatever the sheet shows', () => {
    const sheet = lid();
    const five = Array.from({ length: 5 }).reduce(
      (system: SystemDocument) => withNudge(system, 0, 2, sheet, [0, 0.01]),
      SNOW,
    );
    const before = sheet.ports.find(({ index }) => index === 2)!.at_m;
    const after = unwrap(faceSheets(five, 0))
      .find(({ name }) => name === 'Lid')!
      .ports.find(({ index }) => index === 2)!.at_m;
    expect(after[1] - before[1]).toBeCloseTo(0.05, 6);
    expect(after[0]).toBeCloseTo(before[0], 9);
  });

  it('of another part, what was said of hole and screws goes; of none, the part goes', () => {
    const ring = withPart(SNOW, 0, 3, 'sender-6');
    expect(ring.tanks[0]!.ports[3]).toMatchObject({
      part: 'sender-6',
      bore_m: { origin: 'part' },
      clock_deg: { value: 0 },
    });
    expect(withPart(ring, 0, 3, undefined).tanks[0]!.ports[3]).not.toHaveProperty('part');
    for (const { key } of PORT_PARTS) expect(valid(withPart(SNOW, 0, 2, key)), key).toBe(true);
  });

  it('on another face it has the coordinates that the face wants', () => {
    for (const face of ['floor', 'fore', 'aft', 'port', 'starboard'] as const)
      expect(valid(withFace(SNOW, 0, 0, face)), face).toBe(true);
  });

  it('offers first what a port of its role is usually made of', () => {
    expect(partsFor('filler')[0]!.group).toBe('neck');
    expect(partsFor('sender')[0]!.group).toBe('ring');
    expect(partsFor('feed')).toHaveLength(PORT_PARTS.length);
  });
});
