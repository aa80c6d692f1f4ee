import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { boxMesh, revolvedMesh, type Vec3 } from '../geometry';
import { seeded } from '../seeded';
import { edgesOf, heightOver_m, rigidTip_rad, tipAngle_rad, type Standing, type TipEdge } from './tipping';

const OVER_Y = (width: number): TipEdge => ({ at_m: [0, width, 0], out: [0, 1, 0] });
const shell = (mass_kg: number, at_m: Vec3): Standing['fixed'][number] => ({ mass_kg, at_m });

/** The first root of a function that begins below zero. */
function root(of: (x: number) => number, to: number): number {
  let [low, high] = [0, to];
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (of(middle) < 0) low = middle;
    else high = middle;
  }
  return high;
}

describe('how far what stands loose leans before it goes over', () => {
  it('a solid box: half its width over half its height', () => {
    const [width, height] = [0.4, 0.7];
    const standing: Standing = { fixed: [shell(10, [0.5, width / 2, height / 2])], liquids: [] };
    expectClose(tipAngle_rad(standing, OVER_Y(width))!, Math.atan(width / height), {
      abs: 1e-6,
      why: 'its centre over the edge',
    });
    expectClose(rigidTip_rad(standing, OVER_Y(width))!, Math.atan(width / height), { abs: 1e-12, why: 'the same' });
  });

  it('seeded part-filled boxes with a shell, while the surface meets neither floor nor lid: the wedge by hand', () => {
    const { uniform } = seeded(12);
    let compared = 0;
    for (let n = 0; n < 200 && compared < 40; n++) {
      const [length, width, height] = [0.2 + uniform(), 0.2 + uniform(), 0.3 + 1.5 * uniform()];
      const level = height * (0.3 + 0.4 * uniform());
      const shellMass = 2 + 60 * uniform();
      const at: Vec3 = [length / 2, width * (0.4 + 0.2 * uniform()), height * (0.3 + 0.4 * uniform())];
      const volume = length * width * level;
      const mass = volume * 800;
      // y and z of the liquid's centre at a lean by its tangent: rectangle and wedge.
      const out = (t: number): number => {
        const y = width / 2 + (width ** 2 * t) / (12 * level);
        const z = level / 2 + (width ** 2 * t ** 2) / (24 * level);
        const c = 1 / Math.hypot(1, t);
        const over = (py: number, pz: number): number => c * (py - width) + c * t * pz;
        return mass * over(y, z) + shellMass * over(at[1], at[2]);
      };
      const tangent = root(out, 20);
      if ((width / 2) * tangent > Math.min(level, height - level)) continue;
      compared++;
      const standing: Standing = {
        fixed: [shell(shellMass, at)],
        liquids: [{ mesh: boxMesh(length, width, height), volume_m3: volume, density_kgPerM3: 800 }],
      };
      expectClose(tipAngle_rad(standing, OVER_Y(width))!, Math.atan(tangent), {
        abs: 1e-6,
        why: 'moments about the edge',
      });
    }
    expect(compared).toBe(40);
  });

  it('seeded vessels on any base: energy is at its most where they go over, and rises all the way there', () => {
    const { uniform } = seeded(77);
    for (let n = 0; n < 25; n++) {
      const [radius, height] = [0.1 + 0.3 * uniform(), 0.3 + 0.6 * uniform()];
      const round = n % 2 === 0;
      const mesh = round
        ? revolvedMesh(
            [
              [0, radius],
              [height, radius * (0.6 + 0.8 * uniform())],
            ],
            'z',
          )
        : boxMesh(2 * radius, 2 * radius, height);
      const standing: Standing = {
        fixed: [shell(1 + 20 * uniform(), [radius, radius, height * (0.2 + 0.6 * uniform())])],
        liquids: [{ mesh, volume_m3: radius ** 2 * height * (0.2 + uniform()), density_kgPerM3: 750 }],
      };
      const turn = 2 * Math.PI * uniform();
      const out: Vec3 = [Math.cos(turn), Math.sin(turn), 0];
      const reach = radius * (0.6 + 0.6 * uniform());
      const edge: TipEdge = { at_m: [radius + reach * out[0], radius + reach * out[1], 0], out };
      const angle = tipAngle_rad(standing, edge);
      if (angle === undefined || angle === 0) continue;
      const energy = (lean: number): number => heightOver_m(standing, edge, lean)!;
      const step = 1e-3;
      // Its slope is the moment: none where it goes over, and the centre rises until there.
      const slope = (energy(angle + step) - energy(angle - step)) / (2 * step);
      expectClose(slope, 0, { abs: 2e-5, why: 'the most of its energy' });
      for (const share of [0.25, 0.5, 0.75])
        expect(energy(angle * share)).toBeGreaterThan(energy(angle * (share - 0.25)));
      expect(energy(angle + 0.05)).toBeLessThan(energy(angle));
      // What is free to move goes over no later than what is frozen in it.
      expect(angle).toBeLessThanOrEqual(rigidTip_rad(standing, edge)! + 1e-6);
    }
  });

  it('what does not stand at all goes over at once; what weighs nothing is not answered', () => {
    const edge = OVER_Y(0.2);
    expect(tipAngle_rad({ fixed: [shell(1, [0, 0.3, 0.1])], liquids: [] }, edge)).toBe(0);
    expect(tipAngle_rad({ fixed: [], liquids: [] }, edge)).toBeUndefined();
    const drowned = [{ mesh: boxMesh(1, 1, 1), volume_m3: 2, density_kgPerM3: 800 }];
    expect(tipAngle_rad({ fixed: [], liquids: drowned }, edge)).toBeUndefined();
  });

  it('edges of an outline look outward, and doubling all weight changes nothing', () => {
    const edges = edgesOf(
      [
        [0, 0],
        [2, 0],
        [2, 1],
        [0, 1],
      ],
      0,
    );
    expect(edges.map(({ out }) => out.map(Math.round))).toEqual(
      [
        [0, -1, 0],
        [1, -0, 0],
        [0, 1, 0],
        [-1, -0, 0],
      ].map((out) => out.map((each) => expect.closeTo(each, 9) as unknown as number)),
    );
    const mesh = boxMesh(0.3, 0.2, 0.5);
    const of = (times: number): Standing => ({
      fixed: [shell(3 * times, [0.15, 0.1, 0.25])],
      liquids: [{ mesh, volume_m3: 0.015, density_kgPerM3: 740 * times }],
    });
    expectClose(tipAngle_rad(of(2), OVER_Y(0.2))!, tipAngle_rad(of(1), OVER_Y(0.2))!, {
      abs: 1e-9,
      why: 'shares of the whole',
    });
  });
});
