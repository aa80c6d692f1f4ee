import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { parseSystem, parseSystemText, type SystemDocument } from '@/core/plan';
import { faceSheets } from '@/core/answers';
import { joinOfItem } from '@/core/plan/circuits';
import { joinBore_m } from '@/core/reference/joins';
import { loadKernel } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { PORT_PARTS } from '@/core/reference/portParts';
import { carriersFor, partsFor, withFace, withNudge, withPart, withPlace, withSpare, withSpigot } from './portEdits';

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

  it('spigots stand on their plate, apart from each other, take no hole, and go with it', () => {
    const ring = SNOW.tanks[0]!.ports.findIndex(({ part }) => part === 'sender-5');
    const carrier = SNOW.tanks[0]!.ports[ring]!;
    const wide = withPart(SNOW, 0, ring, 'pump-ring');
    const three = [0, 1, 2].reduce((system) => withSpigot(system, 0, ring), wide);
    const spigots = (system: SystemDocument) => system.tanks[0]!.ports.filter(({ on }) => on === carrier.id);
    expect(valid(three)).toBe(true);
    expect(spigots(three)).toHaveLength(3);
    const apart = spigots(three).flatMap((a, i) =>
      spigots(three)
        .slice(i + 1)
        .map((b) => Math.hypot(a.x_m!.value - b.x_m!.value, a.y_m!.value - b.y_m!.value)),
    );
    expect(Math.min(...apart)).toBeGreaterThan(0.02);
    const holes = unwrap(faceSheets(three, 0)).flatMap(({ ports }) => ports.map(({ id }) => id));
    for (const { id } of spigots(three)) expect(holes).not.toContain(id);
    // A hose is held whose barb is as wide as the spigot.
    const join = joinOfItem({ kind: 'port', port: spigots(three)[0]! } as Parameters<typeof joinOfItem>[0], 'in')!;
    expect(join).toMatchObject({ system: 'barb', size: '3/8', side: 'male' });
    expect(Math.abs(joinBore_m(join) - spigots(three)[0]!.bore_m.value)).toBeLessThan(0.001);
    // Its plate on another face, they are there too, as far from its middle as before.
    const turned = withFace(three, 0, ring, 'fore');
    expect(valid(turned)).toBe(true);
    const there = turned.tanks[0]!.ports[ring]!;
    spigots(turned).forEach((spigot, k) => {
      const before = spigots(three)[k]!;
      expect(Math.hypot(spigot.y_m!.value - there.y_m!.value, spigot.z_m!.value - there.z_m!.value)).toBeCloseTo(
        Math.hypot(before.x_m!.value - carrier.x_m!.value, before.y_m!.value - carrier.y_m!.value),
        3,
      );
    });
    // A spigot on another face has left its plate.
    const p = three.tanks[0]!.ports.findIndex(({ on }) => on !== undefined);
    const left = withFace(three, 0, p, 'aft');
    expect(left.tanks[0]!.ports[p]!.on).toBeUndefined();
    expect(valid(left)).toBe(true);
    // What is no plate carries none, nor does a spigot.
    const { ports } = three.tanks[0]!;
    expect(carriersFor(ports, ports[p]!).map(({ id }) => id)).toEqual([carrier.id]);
    for (const on of [ports[p + 1]!.id, 'nowhere', ports.find(({ face }) => face === 'floor')!.id])
      expect(
        valid({
          ...three,
          tanks: [
            { ...three.tanks[0]!, ports: ports.map((each, k) => (k === p ? { ...each, on } : each)) },
            ...three.tanks.slice(1),
          ],
        }),
      ).toBe(false);
  });

  it('put at a point of a sheet, it comes out there', () => {
    const system = withPlace(SNOW, 0, { index: 2 }, lid(), [0.2, 0.15]);
    const [u, v] = unwrap(faceSheets(system, 0))
      .find(({ name }) => name === 'Lid')!
      .ports.find(({ index }) => index === 2)!.at_m;
    expect(u).toBeCloseTo(0.2, 6);
    expect(v).toBeCloseTo(0.15, 6);
  });

  it('a boss of a sight tube goes where it is put, along the wall with its fellow, up by itself', () => {
    const trailer = unwrap(parseSystemText(readFileSync('demo/forest-trailer.json', 'utf8')));
    const aft = (system: SystemDocument) =>
      unwrap(faceSheets(system, 0)).find(({ ports }) => ports.some(({ boss }) => boss === 'upper_m'))!;
    const sheet = aft(trailer);
    const upper = sheet.ports.find(({ boss }) => boss === 'upper_m')!;
    const to = [upper.at_m[0] + 0.03, upper.at_m[1] - 0.02] as const;
    const moved = withPlace(trailer, 0, upper, sheet, to);
    const [lower, there] = (['lower_m', 'upper_m'] as const).map(
      (end) => aft(moved).ports.find(({ boss }) => boss === end)!.at_m,
    );
    expect(there![0]).toBeCloseTo(to[0], 6);
    expect(there![1]).toBeCloseTo(to[1], 6);
    expect(lower![0]).toBeCloseTo(to[0], 6);
    expect(moved.tanks[0]!.sightTubes[0]!.lower_m).toEqual(trailer.tanks[0]!.sightTubes[0]!.lower_m);
    const nudged = withNudge(moved, 0, upper, sheet, [0, 0.02]);
    expect(aft(nudged).ports.find(({ boss }) => boss === 'upper_m')!.at_m[1]).toBeCloseTo(upper.at_m[1], 6);
    expect(valid(nudged)).toBe(true);
  });

  it('nudged five times it goes five steps, whatever the sheet shows', () => {
    const sheet = lid();
    const five = Array.from({ length: 5 }).reduce(
      (system: SystemDocument) => withNudge(system, 0, { index: 2 }, sheet, [0, 0.01]),
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
