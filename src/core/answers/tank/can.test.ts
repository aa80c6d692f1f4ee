import { beforeAll, describe, expect, it } from 'vitest';
import { applied, CAN, RAISED_BY, SOUND, T, type Changes } from '../../../../tests/raisedSystems';
import { loadKernel } from '../../geometry';
import { unwrap } from '../../outcome';
import { chosen, parseSystem, type SystemDocument } from '../../plan';
import { findingsOf } from '../../rules';
import { evaluateSystem } from '..';
import { MANOEUVRES } from './inside';

beforeAll(loadKernel);

const raisedBy = RAISED_BY['inside.starves-in-manoeuvre']!;
const STARVING = typeof raisedBy === 'function' ? raisedBy(SOUND) : applied(SOUND, raisedBy as Changes);
const withCan = (can: Readonly<Record<string, unknown>>): SystemDocument =>
  applied(STARVING, [[`${T}pickups[0].can`, { ...CAN, ...can }]]);
const feedOf = (system: SystemDocument) => unwrap(evaluateSystem(system)).tanks[0]!.inside.feeds[0]!;
const starves = (system: SystemDocument): boolean =>
  findingsOf(system, unwrap(evaluateSystem(system))).some(({ id }) => id === 'inside.starves-in-manoeuvre');

describe('a can about a pickup', () => {
  it('never feeds it for less than without, and a good one ends the starving', () => {
    const bare = feedOf(STARVING);
    expect(starves(STARVING)).toBe(true);
    const shut = withCan({ diameter_m: chosen(0.2), height_m: chosen(0.15), leak_ratio: chosen(0.02) });
    const canned = feedOf(shut);
    for (const manoeuvre of MANOEUVRES)
      expect(canned.holds[manoeuvre].time_s).toBeGreaterThanOrEqual(bare.holds[manoeuvre].time_s);
    expect(Math.min(...MANOEUVRES.map((each) => canned.holds[each].time_s))).toBeGreaterThan(
      Math.min(...MANOEUVRES.map((each) => bare.holds[each].time_s)),
    );
    expect(starves(shut)).toBe(false);
  });

  it('with holes wide open it runs out again', () => {
    const open = withCan({ openings: { count: 40, diameter_m: chosen(0.03) } });
    expect(starves(open)).toBe(true);
  });

  it('its openings are their number times their size', () => {
    expect(feedOf(withCan({ openings: { count: 3, diameter_m: chosen(0.02) } })).can!.area_m2).toBeCloseTo(
      3 * Math.PI * 1e-4,
      12,
    );
    expect(feedOf(STARVING).can).toBeUndefined();
  });

  it('without an opening it is none: nothing would come into it', () => {
    expect(parseSystem(withCan({ openings: { count: 0, diameter_m: chosen(0.01) } })).ok).toBe(false);
    expect(parseSystem(withCan({ openings: { count: 1, diameter_m: chosen(0.01) } })).ok).toBe(true);
  });

  it('is judged by the room over its foot, however the vehicle stands', () => {
    const { shape } = STARVING.tanks[0]!;
    const height = shape.kind === 'box' ? shape.height_m.value : NaN;
    const tall = (height_m: number, pitch_deg: number): boolean => {
      const system = applied(withCan({ height_m: chosen(height_m) }), [['conditions.pitch_deg', pitch_deg]]);
      const evaluation = unwrap(evaluateSystem(system));
      expect(evaluation.tanks[0]!.inside.feeds[0]!.can!.room_m).toBeCloseTo(height, 4);
      return findingsOf(system, evaluation).some(({ id }) => id === 'inside.can-over-lid');
    };
    for (const pitch of [-20, 0, 20])
      expect([tall(height - 0.001, pitch), tall(height + 0.001, pitch)]).toEqual([false, true]);
  });
});
