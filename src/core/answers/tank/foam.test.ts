import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { applied, SOUND, T } from '../../../../tests/raisedSystems';
import { expectClose } from '../../../../tests/expectClose';
import { loadKernel, meshVolume } from '../../geometry';
import { tankModel } from '../../model';
import { unwrap } from '../../outcome';
import { chosen, parseSystemText, type SystemDocument } from '../../plan';
import { evaluateSystem } from '..';
import { foamBlocks } from './foam';

beforeAll(loadKernel);
const CUT = { over_m: chosen(0.03), clear_m: chosen(0.02), squeezed_ratio: chosen(0.5) };
const foamed = (changes: readonly (readonly [string, unknown])[] = []): SystemDocument =>
  applied(SOUND, [[`${T}foam_ratio`, chosen(0.03)], [`${T}foam`, CUT], ...changes]);
const blocksOf = (system: SystemDocument) => foamBlocks(unwrap(tankModel(system, 0)));

describe('the foam of a tank', () => {
  it('is larger than the space, with a well round each thing that hangs in it', () => {
    const [block, ...more] = blocksOf(foamed());
    expect(more).toEqual([]);
    block!.space_m.forEach((size, axis) =>
      expectClose(block!.block_m[axis]! - size, 0.03, { abs: 1e-12, why: 'cut larger' }),
    );
    const { pickups, senders } = SOUND.tanks[0]!;
    const hanging = pickups.filter(({ kind }) => kind !== 'bottom-outlet');
    expect(block!.wells.map(({ of }) => of).sort()).toEqual([...hanging, ...senders].map(({ name }) => name).sort());
    const pickup = block!.wells.find(({ of }) => of === hanging[0]!.name)!;
    expectClose(pickup.volume_m3, (Math.PI / 4) * pickup.length_m ** 2 * block!.space_m[2], {
      rel: 1e-12,
      why: 'a round well from floor to lid',
    });
  });

  it('wider wells leave less of it, and none more than all', () => {
    const fills = [0.005, 0.02, 0.05, 0.19].map(
      (clear) => blocksOf(foamed([[`${T}foam.clear_m`, chosen(clear)]]))[0]!.fills_ratio,
    );
    fills.forEach((fill, i) => {
      expect(fill).toBeGreaterThanOrEqual(0);
      expect(fill).toBeLessThan(i === 0 ? 1 : fills[i - 1]! + 1e-12);
    });
  });

  it('each compartment has its own, and a well for all that passes through it', () => {
    const system = unwrap(parseSystemText(readFileSync('demo/hill-climb-car.json', 'utf8')));
    const t = system.tanks.findIndex(({ foam }) => foam !== undefined);
    const tank = unwrap(tankModel(system, t));
    const blocks = foamBlocks(tank);
    expect(blocks).toHaveLength(tank.division.compartments.length);
    const { pickups, senders } = tank.document;
    const hanging = [...pickups.filter(({ kind }) => kind !== 'bottom-outlet'), ...senders].map(({ name }) => name);
    expect([...new Set(blocks.flatMap(({ wells }) => wells.map(({ of }) => of)))].sort()).toEqual(hanging.sort());
    // Its feed pickup goes through the cell into the sump below.
    expect(blocks.map(({ wells }) => wells.some(({ of }) => of === 'Feed pickup'))).toEqual([true, true]);
    blocks.forEach(({ space_m, fills_ratio }, b) => {
      expect(space_m[0] * space_m[1] * space_m[2]).toBeGreaterThan(
        meshVolume(tank.division.compartments[b]!.mesh) * (1 - 1e-9),
      );
      expect(fills_ratio).toBeLessThanOrEqual(1);
    });
  });

  it('foam that takes nothing is none: it is not cut, and stills nothing', () => {
    const none = foamed([[`${T}foam_ratio`, chosen(0)]]);
    expect(blocksOf(none)).toEqual([]);
    expect(unwrap(evaluateSystem(none)).tanks[0]!.inside.compartments[0]).not.toHaveProperty('foam');
  });

  it('none where nothing is said of how it is cut', () => {
    expect(blocksOf(applied(SOUND, [[`${T}foam_ratio`, chosen(0.03)]]))).toEqual([]);
  });

  it('stills thick liquids more than thin ones, and lets them run as much more slowly', () => {
    const swing = (fluid: SystemDocument['fluids'][number]['fluid']) =>
      unwrap(
        evaluateSystem({
          ...foamed([['envelope.braking_mPerS2', chosen(4)]]),
          fluids: SOUND.fluids.map((each) => ({ ...each, fluid })),
        }),
      ).tanks[0]!.inside.compartments[0]!.foam!;
    const [petrol, diesel] = [swing('petrol'), swing('diesel')];
    expect(diesel.damping.lengthwise).toBeGreaterThan(3 * petrol.damping.lengthwise);
    expect(diesel.crossing_s! / petrol.crossing_s!).toBeCloseTo(
      diesel.damping.lengthwise / petrol.damping.lengthwise,
      6,
    );
  });
});
