import { describe, expect, it } from 'vitest';
import { THREADS } from '@/core/reference/threads';
import { expectClose } from '../expectClose';

const INCH = 0.0254;
const of = (system: string) => THREADS.filter((row) => row.system === system).map((row) => [row.name, row] as const);

/**
 * Of a pipe thread in inches: pitch diameters at the small end and at the gauge plane, by the standard's own formula.
 */
function pitchDiameters(major_in: number, pitch_in: number, hand_in: number): readonly [number, number] {
  const small = major_in - (0.05 * major_in + 1.1) * pitch_in;
  return [small, small + hand_in / 16];
}

describe('NPT: ASME B1.20.1, its formulas for pitch diameters (from memory)', () => {
  // E0 and E1 as the standard's table 2 prints them (from memory).
  it.each([
    ['1/8 NPT', 0.36351, 0.3736],
    ['1/4 NPT', 0.47739, 0.49163],
    ['3/8 NPT', 0.61201, 0.62701],
    ['1/2 NPT', 0.75843, 0.77843],
    ['3/4 NPT', 0.96768, 0.98887],
    ['1 NPT', 1.21363, 1.23863],
    ['2 NPT', 2.26902, 2.29627],
  ] as const)('%s', (name, e0, e1) => {
    const row = THREADS.find((one) => one.name === name)!;
    const [small, gauge] = pitchDiameters(row.major_m / INCH, row.pitch_m / INCH, row.engagement_m / INCH);
    expectClose(small, e0, { abs: 2e-5, why: 'diameter and pitch of the table against the printed pitch diameter' });
    expectClose(gauge, e1, { abs: 2e-5, why: 'and the hand engagement, by the taper of 1 in 16' });
  });

  it.each(of('npt'))(
    '%s: the drill lies between the minor diameters at the small end and at the gauge plane',
    (_, row) => {
      const pitch = row.pitch_m / INCH;
      const [small, gauge] = pitchDiameters(row.major_m / INCH, pitch, row.engagement_m / INCH);
      // Height of the truncated thread: 0.8 of the pitch. Charts round to the next drill they have, so a hundredth of
      // an inch over is met.
      expect(row.tapDrill_m / INCH).toBeGreaterThan(small - 0.8 * pitch - 0.002);
      expect(row.tapDrill_m / INCH).toBeLessThan(gauge - 0.8 * pitch + 0.012);
    },
  );
});

describe('parallel threads of 60°: ISO 68-1 and ASME B1.1, basic profile (from memory)', () => {
  it.each([...of('metric'), ...of('flare-37'), ...of('o-ring-boss')])(
    '%s: the drill leaves half to nine tenths of the full thread',
    (_, { major_m, pitch_m, tapDrill_m }) => {
      // The basic minor diameter of a nut is the major one less 5/4 of the sharp height, 1.0825 pitches.
      const share = (major_m - tapDrill_m) / (1.0825 * pitch_m);
      expect(share).toBeGreaterThan(0.5);
      expect(share).toBeLessThan(0.98);
    },
  );
});

describe('British pipe thread: ISO 228-1 and ISO 7-1, 55° form (from memory)', () => {
  it.each(of('bsp-parallel'))(
    '%s: the drill lies at the minor diameter, major less 1.28065 pitches, or up to its tolerance over it',
    (_, { major_m, pitch_m, tapDrill_m }) => {
      const minor = major_m - 1.28065 * pitch_m;
      expect(tapDrill_m).toBeGreaterThan(minor - 1e-4);
      expect(tapDrill_m).toBeLessThan(minor + 0.35 * pitch_m);
    },
  );
});
