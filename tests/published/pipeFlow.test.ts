import { describe, it } from 'vitest';
import { colebrook, frictionFactor, lineLaw, sizedK } from '@/core/network';
import { FITTINGS, fittingKs } from '@/core/reference/losses';
import { expectClose } from '../expectClose';

/** Published values, from memory: F. M. White, Fluid Mechanics, 7th ed., chapter 6. */
const WHITE = 'F. M. White, Fluid Mechanics, 7th ed. (from memory)';

describe(`Moody chart values, ${WHITE}`, () => {
  it.each([
    [4e3, 0.0399],
    [1e4, 0.0309],
    [1e5, 0.018],
    [1e6, 0.0116],
    [1e7, 0.0081],
    [1e8, 0.0059],
  ])('smooth pipe at Re %d: f = %d', (re, f) => {
    expectClose(colebrook(re, 0), f, { rel: 0.011, why: 'printed to two or three digits' });
  });

  it.each([
    [1e-5, 0.00806],
    [1e-4, 0.012],
    [1e-3, 0.0196],
    [1e-2, 0.0379],
    [5e-2, 0.0716],
  ])('fully rough at roughness %d: f = %d', (roughness, f) => {
    expectClose(colebrook(1e11, roughness), f, { rel: 0.003, why: 'printed to three digits' });
  });
});

describe(`worked examples, ${WHITE}`, () => {
  const drop = (d: number, length: number, roughness: number, q: number, density: number, kinematic: number): number =>
    lineLaw(d, length, roughness, [], { density_kgPerM3: density, kinematicViscosity_m2PerS: kinematic })(q)
      .pressure_Pa;

  it('example 6.4: laminar oil up a 6 cm pipe, head loss 4.9 m at 0.0076 m³/s over 10 m', () => {
    expectClose(drop(0.06, 10, 0, 0.0076, 900, 2e-4) / (900 * 9.807), 4.9, {
      rel: 0.015,
      why: 'flow printed to two digits',
    });
  });

  it('example 6.7: oil at 0.2 m³/s through 500 m of 200 mm cast iron loses 117 m', () => {
    expectClose(drop(0.2, 500, 0.26e-3, 0.2, 900, 1e-5) / (900 * 9.81), 117, {
      rel: 0.01,
      why: 'f read from the chart',
    });
  });

  it('example 6.6: water at 6 ft/s through 200 ft of 6 in asphalted cast iron loses 4.5 ft', () => {
    const d = 0.1524;
    const q = 6 * 0.3048 * (Math.PI / 4) * d * d;
    expectClose(drop(d, 200 * 0.3048, 0.0004 * 0.3048, q, 1000, 1.022e-6) / 9806.65 / 0.3048, 4.5, {
      rel: 0.02,
      why: 'printed to two digits',
    });
  });
});

describe('fitting losses', () => {
  it('Hooper 1981 (from memory): a screwed 1 in elbow is 8.8 at Re 100 and 0.8 in full turbulence', () => {
    const elbow = FITTINGS['elbow-90'];
    expectClose(elbow.k1 / 100 + sizedK(elbow, 0.0254), 8.8, { rel: 1e-12, why: 'arithmetic' });
    expectClose(sizedK(elbow, 0.0254), 0.8, { rel: 1e-12, why: 'arithmetic' });
  });

  it('agrees with Crane TP-410 (from memory): a 1 in elbow is 30 f_T = 0.69, a gate valve 8 f_T = 0.18', () => {
    expectClose(sizedK(FITTINGS['elbow-90'], 0.0254), 0.69, {
      rel: 0.25,
      why: 'published tables of K differ by this much',
    });
    expectClose(sizedK(FITTINGS['gate-valve'], 0.0254), 0.18, {
      rel: 0.25,
      why: 'published tables of K differ by this much',
    });
  });

  it('three-K by Darby (from memory): a 2 in threaded elbow is 0.59 when flow is fast and 8.6 at Re 100; Crane prints 30 f_T = 0.57', () => {
    const elbow = { ...fittingKs('elbow-90', 'three-k') };
    const printed = 0.14 * (1 + 4 / 2 ** 0.3);
    expectClose(sizedK(elbow, 2 * 0.0254), printed, { rel: 1e-12, why: 'arithmetic' });
    expectClose(sizedK(elbow, 2 * 0.0254), 0.57, { rel: 0.06, why: 'two correlations of the same data' });
    expectClose(elbow.k1 / 100 + sizedK(elbow, 2 * 0.0254), 8 + printed, { rel: 1e-12, why: 'arithmetic' });
  });

  /** Crane TP-410 (from memory): K as a multiple of f_T, which is 0.023 in a 1 in pipe. */
  it.each([
    ['elbow-90', 30],
    ['elbow-45', 16],
    ['bend-180', 50],
    ['tee-through', 20],
    ['tee-branch', 60],
    ['ball-valve', 3],
    ['gate-valve', 8],
    ['globe-valve', 340],
    ['needle-valve', 150],
    ['check-swing', 100],
    ['check-lift', 600],
  ] as const)('three-K of a 1 in %s is Crane’s %d f_T in full turbulence', (key, multiple) => {
    expectClose(sizedK(fittingKs(key, 'three-k'), 0.0254), multiple * 0.023, {
      rel: 0.12,
      why: 'Darby fitted his constants to these data',
    });
  });

  it('a sharp inlet is 0.5 and an outlet 1 when flow is fast, at any size', () => {
    expectClose(sizedK(FITTINGS['entrance-sharp'], 0.006), 0.5, { rel: 1e-12, why: 'no size term' });
    expectClose(sizedK(FITTINGS.exit, 0.006), 1, { rel: 1e-12, why: 'no size term' });
  });
});

it('laminar friction factor is 64 / Re', () => {
  expectClose(frictionFactor(800, 0.01), 0.08, { rel: 1e-12, why: 'Hagen-Poiseuille' });
});
