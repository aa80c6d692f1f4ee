import {
  assumed,
  chosen,
  freshId,
  fromPart,
  withAdded,
  withoutEntry,
  withValue,
  type CalibrationDocument,
  type GaugeDocument,
  type ScaleDocument,
  type SenderDocument,
  type SystemDocument,
} from '@/core/plan';
import { shapeSpan } from '@/core/model';
import { SENDERS } from '@/core/senders';
import type { DesignedSender, RefittedSender } from '@/core/answers';
import { BEND_AT_M, type TaughtPoint } from '@/core/gauge';
import { SENDER_RANGES } from '@/core/reference/senders';

const at = (t: number, s: number) => ['tanks', t, 'senders', s] as const;
const senderAt = (system: SystemDocument, t: number, s: number): SenderDocument => system.tanks[t]!.senders[s]!;

export const scaleFor = (kind: ScaleDocument['kind'], empty: number, full: number): ScaleDocument =>
  kind === 'resistance'
    ? { kind, empty_ohm: fromPart(empty), full_ohm: fromPart(full) }
    : { kind, empty_V: fromPart(empty), full_V: fromPart(full) };

/** A sender of the usual range in the first sender's port that is free. */
export function withSender(system: SystemDocument, t: number): SystemDocument {
  const { ports, senders, shape } = system.tanks[t]!;
  const free = ports.filter(({ id, face }) => face === 'lid' && !senders.some(({ port }) => port === id));
  const port =
    free.find(({ role }) => role === 'sender') ?? free.find(({ role }) => role === 'spare') ?? free[0] ?? ports[0];
  if (!port) return system;
  const height = shapeSpan(shape)[2];
  const range = scaleFor('resistance', 240, 33);
  const sender = {
    id: freshId(system, 'sender'),
    name: 'Level sender',
    port: port.id,
    kind: 'swing-arm',
    output: range,
    tolerance_ratio: fromPart(0.05),
    gauge: { kind: 'linear', scale: range, tolerance_ratio: fromPart(0.03) },
    ...SENDERS['swing-arm'].start(height),
  };
  return withAdded(system, ['tanks', t, 'senders'], sender);
}

/** Takes a sender out with its calibrations and the way kept for it; what was poured stays among the records. */
export function withoutSender(system: SystemDocument, t: number, s: number): SystemDocument {
  const { id } = senderAt(system, t, s);
  const without = withoutEntry(system, ['tanks', t, 'senders'], s);
  const calibrations = without.tanks[t]!.calibrations.filter(({ of }) => of !== id);
  return {
    ...withValue(without, ['tanks', t, 'calibrations'], calibrations),
    fit: { ...without.fit, removals: without.fit.removals.filter(({ part }) => part !== id) },
  };
}

/** Another kind of sender in the same port, with the same range and gauge; its sizes as usual for the tank's depth. */
export function withSenderKind(
  system: SystemDocument,
  t: number,
  s: number,
  kind: SenderDocument['kind'],
): SystemDocument {
  const sender = senderAt(system, t, s);
  if (sender.kind === kind) return system;
  const { id, name, port, output, gauge, tolerance_ratio } = sender;
  const start = SENDERS[kind].start(shapeSpan(system.tanks[t]!.shape)[2]);
  return withValue(system, at(t, s), { id, name, port, output, gauge, tolerance_ratio, kind, ...start });
}

/** A sender of a range of the table; a gauge that is not taught is taken of the same. */
export function withRange(system: SystemDocument, t: number, s: number, key: string): SystemDocument {
  const row = SENDER_RANGES.find((one) => one.key === key)!;
  const sender = senderAt(system, t, s);
  const output = scaleFor(row.output, row.empty, row.full);
  const gauge = gaugeFor(sender.gauge, row);
  return withValue(system, at(t, s), { ...sender, output, tolerance_ratio: fromPart(row.tolerance_ratio), gauge });
}

type Range = (typeof SENDER_RANGES)[number];

function gaugeFor(gauge: GaugeDocument, row: Range): GaugeDocument {
  const needle = needleOf(gauge);
  if (gauge.kind === 'calibrated') return { ...gauge, points: { kind: row.output, at: [] } };
  if (gauge.kind === 'cross-coil' && row.output === 'resistance')
    return crossCoilFor(row.empty, row.full, row.half, needle);
  return { kind: 'linear', scale: scaleFor(row.output, row.empty, row.full), ...needle };
}

const needleOf = ({ tolerance_ratio, lamp_ratio }: GaugeDocument) => ({
  tolerance_ratio,
  ...(lamp_ratio ? { lamp_ratio } : {}),
});

/** Half-way between what a gauge that answers to ohms and one that answers to their inverse would have for half. */
function crossCoilFor(
  empty: number,
  full: number,
  half: number | undefined,
  needle: ReturnType<typeof needleOf>,
): GaugeDocument {
  const middle =
    half ?? Number((((empty + full) / 2) * 0.85 + 0.15 * ((2 * empty * full) / (empty + full || 1))).toFixed(1));
  return {
    kind: 'cross-coil',
    empty_ohm: fromPart(empty),
    half_ohm: half ? fromPart(half) : assumed(middle, Math.abs(full - empty) * 0.05),
    full_ohm: fromPart(full),
    ...needle,
  };
}

export function withGaugeKind(
  system: SystemDocument,
  t: number,
  s: number,
  kind: GaugeDocument['kind'],
): SystemDocument {
  const sender = senderAt(system, t, s);
  const { gauge, output } = sender;
  if (gauge.kind === kind || (kind === 'cross-coil' && output.kind !== 'resistance')) return system;
  const needle = needleOf(gauge);
  const [empty, full] =
    output.kind === 'resistance'
      ? [output.empty_ohm.value, output.full_ohm.value]
      : [output.empty_V.value, output.full_V.value];
  const half = SENDER_RANGES.find((row) => row.empty === empty && row.full === full)?.half;
  const next: GaugeDocument =
    kind === 'calibrated'
      ? { kind, points: { kind: output.kind, at: [] }, mostPoints: 5, ...needle }
      : kind === 'linear'
        ? { kind, scale: scaleFor(output.kind, empty, full), ...needle }
        : crossCoilFor(empty, full, half, needle);
  return withValue(system, [...at(t, s), 'gauge'], next);
}

/** A gauge that was taught points: it shows by them from now on. */
export function withTaught(
  system: SystemDocument,
  t: number,
  s: number,
  points: readonly TaughtPoint[],
): SystemDocument {
  const { gauge, output } = senderAt(system, t, s);
  const tidy = (value: number): number => Number(value.toPrecision(6));
  const list =
    output.kind === 'resistance'
      ? {
          kind: 'resistance' as const,
          at: points.map(({ reading, shown_ratio }) => ({
            reading_ohm: Math.max(0, tidy(reading)),
            shown_ratio: tidy(shown_ratio),
          })),
        }
      : {
          kind: 'voltage' as const,
          at: points.map(({ reading, shown_ratio }) => ({ reading_V: tidy(reading), shown_ratio: tidy(shown_ratio) })),
        };
  return withValue(system, [...at(t, s), 'gauge'], {
    kind: 'calibrated',
    points: list,
    mostPoints: Math.max(2, points.length),
    ...needleOf(gauge),
  });
}

/** Pivot, arm and direction as they were designed; a bend it had is taken out. */
export function withDesign(
  system: SystemDocument,
  t: number,
  s: number,
  { pivotDepth_m, armLength_m, swing }: DesignedSender,
): SystemDocument {
  const sender = senderAt(system, t, s);
  if (sender.kind !== 'swing-arm') return system;
  const { bend: _bend, ...arm } = sender;
  return withValue(system, at(t, s), {
    ...arm,
    pivotDepth_m: chosen(pivotDepth_m),
    armLength_m: chosen(armLength_m),
    swing,
  });
}

export function withRefit(
  system: SystemDocument,
  t: number,
  s: number,
  { wire_m, bend_deg, swing }: NonNullable<RefittedSender['best']>,
): SystemDocument {
  const sender = senderAt(system, t, s);
  if (sender.kind !== 'swing-arm') return system;
  const { bend: _bend, ...arm } = sender;
  return withValue(system, at(t, s), {
    ...arm,
    armLength_m: chosen(wire_m),
    swing,
    ...(bend_deg === 0 ? {} : { bend: { at_m: chosen(BEND_AT_M), angle_deg: chosen(bend_deg) } }),
  });
}

const round = (value: number): number => Math.round(value * 1000) / 1000;

/** A sight tube on the aft side, its bosses 30 mm off floor and lid. */
export function withSight(system: SystemDocument, t: number, markEvery_m3: number): SystemDocument {
  const [, width, height] = shapeSpan(system.tanks[t]!.shape);
  return withAdded(system, ['tanks', t, 'sightTubes'], {
    id: freshId(system, 'sight-tube'),
    name: 'Sight tube',
    face: 'aft',
    along_m: chosen(round(width / 2)),
    lower_m: chosen(0.03),
    upper_m: chosen(round(Math.max(0.04, height - 0.03))),
    markEvery_m3: chosen(markEvery_m3),
    boss: 'bung-npt-3-8',
  });
}

/** A dipstick through the filler, or the first port of the lid. */
export function withStick(system: SystemDocument, t: number, markEvery_m3: number): SystemDocument {
  const onLid = system.tanks[t]!.ports.filter(({ face }) => face === 'lid');
  const port = onLid.find(({ role }) => role === 'filler') ?? onLid[0];
  return port
    ? withAdded(system, ['tanks', t, 'dipsticks'], {
        id: freshId(system, 'dipstick'),
        name: 'Dipstick',
        port: port.id,
        markEvery_m3: chosen(markEvery_m3),
      })
    : system;
}

/** Takes a sight tube or stick out with what was calibrated of it. */
export function withoutScale(
  system: SystemDocument,
  t: number,
  list: 'sightTubes' | 'dipsticks',
  index: number,
): SystemDocument {
  const { id } = system.tanks[t]![list][index]!;
  const without = withoutEntry(system, ['tanks', t, list], index);
  return withValue(
    without,
    ['tanks', t, 'calibrations'],
    without.tanks[t]!.calibrations.filter(({ of }) => of !== id),
  );
}

export function withCalibration(system: SystemDocument, t: number, of: string, name: string): SystemDocument {
  const calibration: CalibrationDocument = {
    id: freshId(system, 'calibration'),
    name,
    of,
    start_m3: 0,
    startSpread_m3: 0.0002,
    pitch_deg: 0,
    roll_deg: 0,
  };
  return withAdded(system, ['tanks', t, 'calibrations'], calibration);
}
