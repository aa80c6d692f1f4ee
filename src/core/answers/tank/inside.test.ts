import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { chosen, parseSystemText, toPath, withValue, type SystemDocument } from '../../plan';
import { unwrap } from '../../outcome';
import { comparedFigures, evaluateSystem, MANOEUVRES, tankSolid } from '..';

const read = (file: string): SystemDocument => {
  const parsed = parseSystemText(readFileSync(file, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
};
const BOAT = read('tests/fixtures/box-boat.json');
const CAR = read('demo/hill-climb-car.json');
const changed = (system: SystemDocument, path: string, value: unknown): SystemDocument =>
  withValue(system, toPath(path), value);
const evaluated = (system: SystemDocument) => unwrap(evaluateSystem(system, 'full', 'without-fit'));
/** The car at a fill at which the rest has run away. */
const low = (fill: number): SystemDocument => changed(CAR, 'conditions.fills[0].fill_ratio', fill);

describe('inside a tank', () => {
  it('compartments add up to the tank, and their liquid to its filling', () => {
    for (const file of ['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer']) {
      for (const tank of evaluated(read(`demo/${file}.json`)).tanks) {
        expectClose(
          tank.inside.compartments.reduce((sum, compartment) => sum + compartment.volume_m3, 0),
          tank.gross_m3,
          { rel: 1e-7, why: `${file}, ${tank.name}: cut, not changed` },
        );
        expectClose(
          tank.inside.compartments.reduce((sum, compartment) => sum + compartment.liquid_m3, 0),
          tank.fill.volume_m3,
          { rel: 1e-7, why: 'one level' },
        );
      }
    }
  });

  it('a flapped sump feeds the engine for what it holds at the draw, longer than the same sump with an open mouth', () => {
    const held = evaluated(low(0.12)).tanks[0]!.inside.feeds[0]!;
    const open = evaluated(changed(low(0.12), 'tanks[0].plates', [])).tanks[0]!.inside.feeds[0]!;
    expect(held.refill).toBeDefined();
    expect(held.holds.braking.time_s).toBeGreaterThan(5);
    expect(open.holds.braking.time_s).toBe(0);
    for (const manoeuvre of MANOEUVRES) {
      expect(held.holds[manoeuvre].time_s).toBeGreaterThanOrEqual(open.holds[manoeuvre].time_s);
      // What leaks can only shorten it; where the pickup stays wet there is no end.
      if (held.holds[manoeuvre].time_s < Infinity)
        expect(held.holds[manoeuvre].time_s).toBeLessThanOrEqual(
          held.holds[manoeuvre].volume_m3 / held.draw_m3PerS + 1e-9,
        );
    }
  });

  it('no draw, no end to what is held; no pickup, nothing to feed', () => {
    expect(evaluated(changed(low(0.12), 'consumers', [])).tanks[0]!.inside.feeds[0]!.draw_m3PerS).toBe(0);
    expect(evaluated(changed(changed(BOAT, 'lines', []), 'tanks[0].pickups', [])).tanks[0]!.inside.feeds).toEqual([]);
  });

  it('a plain upright cylinder swings as a round one', () => {
    const round = changed(BOAT, 'tanks[0].shape', {
      kind: 'cylinder',
      axis: 'z',
      diameter_m: chosen(0.6),
      shell_m: chosen(0.6),
      nearEnd: 'flat',
      farEnd: 'flat',
    });
    const { slosh_Hz } = evaluated(
      changed(changed(round, 'conditions.fills[0].fill_ratio', 0.5), 'tanks[0].mounting.pitch_deg', chosen(0)),
    ).tanks[0]!.inside.compartments[0]!;
    const wanted = Math.sqrt((9.80665 * 1.8411837813 * Math.tanh(1.8411837813)) / 0.3) / (2 * Math.PI);
    expectClose(slosh_Hz!.lengthwise, wanted, {
      rel: 2e-3,
      why: 'NASA SP-106, radius and depth 0.3 m; facets straddle the circle',
    });
    expect(slosh_Hz!.crosswise).toBe(slosh_Hz!.lengthwise);
  });

  it('slosh goes with the square root of the gravity that is felt, the depth and reach staying', () => {
    const at = (up_mPerS2: number) =>
      evaluated(changed(BOAT, 'conditions.accelerationUp_mPerS2', up_mPerS2)).tanks[0]!.inside.compartments[0]!
        .slosh_Hz!;
    expectClose(at(9.80665).lengthwise, Math.SQRT2 * at(0).lengthwise, {
      rel: 1e-9,
      why: 'omega² goes with g: linear theory',
    });
  });
});

describe('beside the numbers', () => {
  it('ports under the surface are told', () => {
    const side = changed(BOAT, 'tanks[0].ports[2]', {
      ...BOAT.tanks[0]!.ports[2]!,
      face: 'aft',
      x_m: undefined,
      z_m: chosen(0.05),
    });
    expect(evaluated(side).tanks[0]!.wetPorts).toEqual(['feed']);
    expect(evaluated(BOAT).tanks[0]!.wetPorts).toEqual([]);
  });

  it('the balance runs from the empty shell to the filled tank, and its mass is the sum', () => {
    const tank = evaluated(changed(BOAT, 'conditions.fills[0].fill_ratio', 0.95)).tanks[0]!;
    expectClose(tank.balance[0]!.mass_kg, tank.dryMass_kg, { rel: 1e-12, why: 'empty' });
    expectClose(tank.balance.at(-1)!.mass_kg, tank.dryMass_kg + tank.liquidMass_kg, {
      rel: 1e-9,
      why: 'at the limit, which is the set fill',
    });
    expectClose(tank.balance.at(-1)!.centre_m[2], tank.centre_m![2], { rel: 1e-9, why: 'the same' });
    expect(evaluateSystem(BOAT, 'numbers')).toMatchObject({ value: { tanks: [{ balance: [] }] } });
  });

  it('variants are compared by the numbers on screen and by what they take to build', () => {
    const figures = comparedFigures(BOAT, evaluated(BOAT));
    const of = (key: string) => figures.find((figure) => figure.key === key)?.value;
    expectClose(of('seams')!, 4 * (1.12 + 0.56 + 0.302), { rel: 1e-12, why: 'twelve edges of a box' });
    expectClose(of('full')! - of('dry')!, of('holds')! * evaluated(BOAT).fluid.density_kgPerM3, {
      rel: 1e-9,
      why: 'the fuel',
    });
    expectClose(of('compartment')!, of('gross')!, { rel: 1e-12, why: 'one compartment' });
    expect(figures.some((figure) => figure.key === 'all')).toBe(false);
  });

  it('the picture has walls, liquid, baffles, ports and pickups, and none of it where the shape is bad', () => {
    const solid = unwrap(tankSolid(read('demo/crab-boat.json'), 0));
    expect(solid.plates).toHaveLength(3);
    expect(solid.liquid!.triangles.length).toBeGreaterThan(0);
    expect(solid.ports.length).toBeGreaterThan(3);
    expect(unwrap(tankSolid(changed(BOAT, 'conditions.fills[0].fill_ratio', 0), 0)).liquid).toBeUndefined();
    expect(tankSolid(BOAT, 7)).toMatchObject({ ok: false, error: { code: 'no-tank' } });
  });
});
