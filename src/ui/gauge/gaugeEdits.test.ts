import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseSystem, parseSystemText, SENDER_KINDS, type SystemDocument } from '@/core/plan';
import { unwrap } from '@/core/outcome';
import { SENDER_RANGES } from '@/core/reference/senders';
import {
  withCalibration,
  withDesign,
  withGaugeKind,
  withoutScale,
  withoutSender,
  withRange,
  withRefit,
  withSender,
  withSenderKind,
  withSight,
  withStick,
  withTaught,
} from './gaugeEdits';

const BOAT = unwrap(parseSystemText(readFileSync('demo/crab-boat.json', 'utf8')));
const check = (system: SystemDocument): SystemDocument => unwrap(parseSystem(system));

describe('edits of senders and gauges', () => {
  it.each(SENDER_KINDS)('to a sender of kind %s and back, with its range and gauge', (kind) => {
    const changed = check(withSenderKind(BOAT, 0, 0, kind));
    expect(changed.tanks[0]!.senders[0]).toMatchObject({
      id: 'sender',
      kind,
      output: BOAT.tanks[0]!.senders[0]!.output,
    });
    expect(check(withSenderKind(changed, 0, 0, 'swing-arm')).tanks[0]!.senders[0]!.kind).toBe('swing-arm');
  });

  it.each(SENDER_RANGES.map(({ key }) => key))('range %s, with each kind of gauge', (key) => {
    const ranged = check(withRange(BOAT, 0, 0, key));
    for (const kind of ['linear', 'cross-coil', 'calibrated'] as const) {
      const changed = check(withGaugeKind(ranged, 0, 0, kind));
      const { output, gauge } = changed.tanks[0]!.senders[0]!;
      expect(gauge.kind).toBe(kind === 'cross-coil' && output.kind === 'voltage' ? 'linear' : kind);
      // Another range after that leaves no pair that does not speak the same signal.
      for (const other of ['0.5-4.5V', '240-33']) check(withRange(changed, 0, 0, other));
    }
  });

  it('a lamp stays through a change of gauge', () => {
    expect(withGaugeKind(BOAT, 0, 0, 'calibrated').tanks[0]!.senders[0]!.gauge.lamp_ratio).toEqual(
      BOAT.tanks[0]!.senders[0]!.gauge.lamp_ratio,
    );
  });

  it('taught points, a design and a refit are taken into the document', () => {
    const taught = check(
      withTaught(BOAT, 0, 0, [
        { reading: 12.3456, shown_ratio: 0.02 },
        { reading: 178, shown_ratio: 0.97 },
      ]),
    );
    expect(taught.tanks[0]!.senders[0]!.gauge).toMatchObject({
      kind: 'calibrated',
      mostPoints: 2,
      points: { kind: 'resistance', at: [{ reading_ohm: 12.3456 }, { reading_ohm: 178 }] },
    });
    const quality = { covers_ratio: 0.9, unseenLow_m3: 0, unseenHigh_m3: 0, worst_ratio: 0.01 };
    const refit = check(
      withRefit(BOAT, 0, 0, {
        ...quality,
        pivotDepth_m: 0.1,
        armLength_m: 0.15,
        swing: 'port',
        wire_m: 0.15,
        bend_deg: -20,
      }),
    );
    expect(refit.tanks[0]!.senders[0]).toMatchObject({
      swing: 'port',
      armLength_m: { value: 0.15 },
      bend: { angle_deg: { value: -20 } },
    });
    expect(
      check(withDesign(refit, 0, 0, { ...quality, pivotDepth_m: 0.12, armLength_m: 0.16, swing: 'aft' })).tanks[0]!
        .senders[0],
    ).not.toHaveProperty('bend');
  });

  it('what is taken out takes its logs and ways along', () => {
    const without = check(withoutSender(BOAT, 0, 0));
    expect(without.tanks[0]!.calibrations).toEqual([]);
    expect(without.fit.removals.some(({ part }) => part === 'sender')).toBe(false);
    const stick = withCalibration(BOAT, 0, 'dipstick', 'By stick');
    expect(check(withoutScale(check(stick), 0, 'dipsticks', 0)).tanks[0]!.calibrations.map(({ of }) => of)).toEqual([
      'sender',
    ]);
  });

  it('one more sender, sight tube and stick, each where there is room for it', () => {
    const more = check(withStick(withSight(withSender(BOAT, 0), 0, 0.01), 0, 0.01));
    expect(more.tanks[0]!.senders).toHaveLength(2);
    expect(more.tanks[0]!.sightTubes).toHaveLength(1);
    expect(more.tanks[0]!.dipsticks).toHaveLength(2);
  });
});
