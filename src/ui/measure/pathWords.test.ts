import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseSystemText, toPath, type SystemDocument } from '@/core/plan';
import { allKnown } from '@/core/answers';
import { ROLES, UNITS } from '@/core/units';
import { pathWords } from './pathWords';

const demo = (file: string): SystemDocument => {
  const parsed = parseSystemText(readFileSync(`demo/${file}`, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
};

/** What the suffix of a key says its unit is. */
const SUFFIX: Readonly<Record<string, readonly string[]>> = {
  m: ['length'],
  K: ['temperature'],
  m3: ['volume'],
  Pa: ['pressure'],
  N: ['force'],
  kg: ['mass'],
  NPerM: ['stiffness'],
  m3PerS: ['flow'],
  ohm: ['resistance'],
  V: ['voltage'],
  deg: ['angle'],
  ratio: ['ratio', 'count'],
  s: ['time'],
  mPerS: ['speed'],
  mPerS2: ['acceleration'],
  kgPerM3: ['density'],
  PaS: ['count'],
  A: ['current'],
  Ah: ['charge'],
  W: ['power'],
  kgPerJ: ['consumption'],
};

describe('every quantity of every demo system', () => {
  it.each(readdirSync('demo'))('%s: has words, a role of its own unit, an owner and a stage', (file) => {
    const system = demo(file);
    for (const { path } of allKnown(system)) {
      const words = pathWords(system, path);
      const key = String(path.at(-1));
      expect(words.label, key).not.toBe(key);
      expect(SUFFIX[key.split('_').at(-1)!], key).toContain(ROLES[words.role].kind);
      expect(Object.keys(UNITS)).toContain(ROLES[words.role].kind);
      expect(words.owner.length).toBeGreaterThan(0);
    }
  });
});

describe('stages', () => {
  const boat = demo('crab-boat.json');
  it.each([
    ['tanks[0].shape.length_m', 'tank', 'inside length'],
    ['tanks[0].ports[1].bore_m', 'vents', 'bore'],
    ['tanks[0].ports[2].x_m', 'ports', 'distance from aft'],
    ['tanks[0].pickups[0].heightOffFloor_m', 'ports', 'height off the floor'],
    ['tanks[0].senders[0].armLength_m', 'gauge', 'arm length'],
    ['lines[0].length_m', 'lines', 'length'],
    ['components[1].output_ratio', 'lines', 'real output, as a share of its curve'],
    ['consumers[0].burnFull_m3PerS', 'range', 'burn at full load'],
    ['consumers[0].neededFlow_m3PerS', 'lines', 'needed flow'],
    ['vehicle.speed_mPerS', 'range', 'speed'],
    ['envelope.noseUp_deg', 'tank', 'nose up'],
    ['wishes.reserve_ratio', 'range', 'reserve'],
  ])('%s is looked for at %s', (path, stage, label) => {
    expect(pathWords(boat, toPath(path))).toMatchObject({ stage, label });
  });

  it('names the part that a value belongs to', () => {
    expect(pathWords(boat, toPath('tanks[0].ports[1].bore_m')).owner).toBe('Vent to the coaming');
    expect(pathWords(boat, toPath('lines[3].rise_m')).owner).toBe('Lift pump to injection pump');
    expect(pathWords(boat, toPath('wishes.reserve_ratio')).owner).toBe('System');
  });
});
