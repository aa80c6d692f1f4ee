import { rangeOf, surroundOf, type SenderModel } from '../../model/compileSender';
import { compileTank, floorUnder_m, standingUp, type TankModel } from '../../model/compileTank';
import { poursOf } from '../../plan/records';
import type { CalibrationDocument, PourDocument, Plan as SystemPlan, SystemDocument } from '../../plan/schema';
import {
  correctionTable,
  explained,
  freeRun,
  loggedPours,
  measuredCurve,
  needleAt,
  readingOf,
  shareAt,
  surfaceTable,
  taughtFrom,
  type CalibrateCode,
  type CorrectionTable,
  type Explained,
  type ExplainCode,
  type LoggedPour,
  type MeasuredCurve,
  type NeedleCode,
  type Plan,
  type Pour,
  type FreeRun,
  type Sender,
  type Hindrance,
  lawOf,
} from '../../gauge';
import { dot, type ClosedMesh, type Vec3 } from '../../geometry';
import { failure, success, type Outcome } from '../../outcome';
import { isoSeconds, radians } from '../../units';
import { bossesOf } from '../tank/scales';

/** What is read off an instrument. */
export type ReadingKind = Exclude<PourDocument['reading']['kind'], 'none'>;

export type CalibrationResult = {
  readonly id: string;
  readonly of: string;
  readonly channel: ReadingKind;
  /** As planned, of a swing arm. */
  readonly armLength_m?: number;
  /** In the order in which they count; with those of another kind of reading marked. */
  readonly lines: readonly (LoggedPour & { readonly otherKind: boolean })[];
  readonly holds_m3: number;
  /** What the plan reads, in even steps of volume from empty to the brim. */
  readonly planned: readonly { readonly volume_m3: number; readonly reading: number }[];
  readonly measured: Outcome<MeasuredCurve, CalibrateCode>;
  readonly explained: Outcome<ExplainedCurve, ExplainCode>;
  readonly simulated: boolean;
};

/** What explains a difference, with what the plan then reads at the same volumes as `planned`. */
export type ExplainedCurve = Omit<Explained, 'readingAt'> & { readonly curve: CalibrationResult['planned'] };

export type CalibrationCode = 'no-calibration' | 'no-instrument' | 'bad-shape' | 'no-reading' | NeedleCode;

export const HEIGHTS = 500;
const PLANNED_STEPS = 60;
const SIGMAS = 2;
/** What may be otherwise than planned, as standard deviations, before anything was poured. Common practice. */
const PRIOR = { volume_ratio: 0.03, lowered_m: 0.008, arm_ratio: 0.05 } as const;
/**
 * Readings are no surer than this share of the span: the last digit of a meter, and how still one stands. Common
 * practice.
 */
const FLOOR_RATIO = 0.002;
/** What a needle or a height by eye is read to. */
const EYE: Readonly<Partial<Record<ReadingKind, number>>> = { needle: 0.01, height: 0.001 };
const OUTSIDE_TOLERANCES = 3;

/** What a log says of its instrument, and what it says of the plan. */
export function calibrationResult(
  system: SystemPlan & Pick<SystemDocument, 'records'>,
  t: number,
  index: number,
): Outcome<CalibrationResult, CalibrationCode> {
  const document = system.tanks[t]?.calibrations[index];
  if (!document) return failure('no-calibration', 'calibration', 'There is no such calibration.');
  const compiled = compileTank(system, system.tanks[t]!);
  if (!compiled.ok) return compiled;
  const tank = compiled.value;
  const pours = poursOf(system, document.id).map(({ id, now }) => ({ ...now, id }));
  const instrument = instrumentOf(tank, document, pours);
  if (!instrument.ok) return instrument;
  const { channel, readingAt, empty, full, hasEnds, tolerance_ratio, armLength_m } = instrument.value;
  const span = Math.abs(full - empty);
  const floor = EYE[channel] ?? Math.max(FLOOR_RATIO * span, instrument.value.step ?? 0);
  const slack = Math.max(OUTSIDE_TOLERANCES * tolerance_ratio * span, OUTSIDE_TOLERANCES * floor);
  const lines = loggedPours(
    pours.map((pour): Pour => pourOf(pour, channel)),
    {
      start_m3: document.start_m3,
      startSpread_m3: document.startSpread_m3,
      brim_m3: tank.gross_m3,
      range: [Math.min(empty, full) - slack, Math.max(empty, full) + slack],
      rises: full > empty,
      resolution: 3 * floor,
    },
  );
  const kindOf = new Map(pours.map(({ id, reading }) => [id, reading.kind]));
  const startSigma = document.startSpread_m3 / SIGMAS;
  const plan: Plan = {
    readingAt,
    empty,
    full,
    hasEnds,
    hasArm: armLength_m !== undefined,
    floor,
    prior: { ...PRIOR, end_ratio: tolerance_ratio / SIGMAS, start_m3: startSigma },
  };
  const planned = Array.from({ length: PLANNED_STEPS + 1 }, (_, i) => (tank.gross_m3 * i) / PLANNED_STEPS).map(
    (volume_m3) => ({ volume_m3, reading: readingAt(volume_m3, 0, 0) }),
  );
  return success({
    ...(armLength_m === undefined ? {} : { armLength_m }),
    id: document.id,
    of: document.of,
    channel,
    planned,
    lines: lines.map((line) => ({
      ...line,
      otherKind: kindOf.get(line.id) !== channel && kindOf.get(line.id) !== 'none',
    })),
    holds_m3: tank.gross_m3 * tank.document.fillLimit_ratio.value,
    measured: measuredCurve(lines, floor, startSigma),
    explained: explainedCurve(explained(lines, plan), planned),
    simulated: pours.some(({ simulated }) => simulated),
  });
}

function explainedCurve(
  answer: Outcome<Explained, ExplainCode>,
  planned: CalibrationResult['planned'],
): CalibrationResult['explained'] {
  if (!answer.ok) return answer;
  const { readingAt, ...found } = answer.value;
  return success({ ...found, curve: planned.map(({ volume_m3 }) => ({ volume_m3, reading: readingAt(volume_m3) })) });
}

function pourOf({ id, at, added_m3, spread_m3, reading, state }: PourDocument, channel: ReadingKind): Pour {
  const time = isoSeconds(at);
  const value = reading.kind === channel ? readingValue(reading) : undefined;
  return {
    id,
    added_m3,
    spread_m3,
    state,
    ...(time === undefined ? {} : { at_s: time }),
    ...(value === undefined ? {} : { reading: value }),
  };
}

/** The number of a reading, in the unit of its kind. */
export function readingValue(reading: PourDocument['reading']): number | undefined {
  switch (reading.kind) {
    case 'resistance':
      return reading.reading_ohm;
    case 'voltage':
      return reading.reading_V;
    case 'needle':
      return reading.shown_ratio;
    case 'height':
      return reading.height_m;
    case 'none':
      return undefined;
  }
}

type Read = {
  readonly channel: ReadingKind;
  readonly readingAt: Plan['readingAt'];
  readonly empty: number;
  readonly full: number;
  readonly hasEnds: boolean;
  readonly tolerance_ratio: number;
  /** Of a swing arm, as planned. */
  readonly armLength_m?: number;
  /** Width of one step of a sender with contacts. */
  readonly step?: number;
};

/** What the plan says an instrument reads, by the kind of reading that most lines of its log have. */
function instrumentOf(
  tank: TankModel,
  document: CalibrationDocument,
  pours: readonly PourDocument[],
): Outcome<Read, CalibrationCode> {
  const up = standingUp(tank, radians(document.pitch_deg), radians(document.roll_deg));
  const surface = surfaceTable(tank.mesh, up, HEIGHTS);
  const sender = tank.senders.find((model) => model.document.id === document.of);
  if (sender) return senderRead(tank, sender, pours, surface, up);
  const sight = tank.document.sightTubes.find(({ id }) => id === document.of);
  const bosses = sight && bossesOf(tank, sight);
  if (bosses) {
    const [low, high] = bosses.map((boss) => dot(up, boss)) as [number, number];
    return success({
      channel: 'height',
      hasEnds: false,
      tolerance_ratio: 0,
      empty: 0,
      full: high - low,
      readingAt: (volume, lowered) => Math.min(high - low, Math.max(0, surface(volume) - low + lowered)),
    });
  }
  const stick = tank.document.dipsticks.find(({ id }) => id === document.of);
  const port = stick && tank.ports.find(({ document: one }) => one.id === stick.port);
  if (port) {
    const floor = floorUnder_m(tank.body.shell, port.point_m) ?? 0;
    const [low, high] = [dot(up, [port.point_m[0], port.point_m[1], floor]), dot(up, port.point_m)];
    return success({
      channel: 'height',
      hasEnds: false,
      tolerance_ratio: 0,
      empty: 0,
      full: high - low,
      readingAt: (volume, lowered) =>
        Math.min(high - low, Math.max(0, (surface(volume) - low) / Math.max(up[2], STEEP) + lowered)),
    });
  }
  return failure(
    'no-instrument',
    document.of,
    'What was calibrated does not stand in the tank: its port or boss misses the wall.',
  );
}
const STEEP = 0.1;

function senderRead(
  tank: TankModel,
  model: SenderModel,
  pours: readonly PourDocument[],
  surface: (volume_m3: number) => number,
  up: Vec3,
): Outcome<Read, CalibrationCode> {
  if (!model.instrument.ok) return model.instrument;
  const { sender, gauge, tolerance_ratio } = model.instrument.value;
  const output = rangeOf(model.document.output);
  const surround = surroundOf(tank, model);
  const runs = runsByArm(sender, surround.room, surround.round);
  if (!runs(0))
    return failure(
      'no-reading',
      model.document.name,
      `${model.document.name} is free nowhere in the tank as planned, so that there is nothing to compare with.`,
    );
  // Whole logs are read with one arm after the other.
  let held = { ratio: 0, sender, run: runs(0)! };
  const readingAt: Plan['readingAt'] = (volume, lowered, ratio) => {
    if (ratio !== held.ratio) held = { ratio, sender: withArm(sender, ratio), run: runs(ratio)! };
    return readingOf(output, shareAt(held.sender, held.run, up, surface(volume) + lowered * up[2]));
  };
  const ofArm = lawOf(sender).arm;
  const arm = ofArm ? { armLength_m: ofArm.length_m(sender) } : {};
  const kinds = pours.map(({ reading }) => reading.kind);
  const byNeedle =
    kinds.filter((kind) => kind === 'needle').length >
    kinds.filter((kind) => kind === model.document.output.kind).length;
  const contact = lawOf(sender).contact_share(sender);
  const step = contact > 0 ? contact * Math.abs(output.full - output.empty) : undefined;
  if (!byNeedle)
    return success({
      channel: model.document.output.kind,
      readingAt,
      empty: output.empty,
      full: output.full,
      hasEnds: true,
      tolerance_ratio,
      ...arm,
      ...(step ? { step } : {}),
    });
  const holds = tank.gross_m3 * tank.document.fillLimit_ratio.value;
  const taught = taughtFrom(
    gauge,
    Array.from({ length: PLANNED_STEPS + 1 }, (_, i) => ({
      reading: readingAt((holds * i) / PLANNED_STEPS, 0, 0),
      true_ratio: i / PLANNED_STEPS,
    })),
  );
  if (!taught.ok) return taught;
  return success({
    channel: 'needle',
    readingAt: (volume, lowered, arm_ratio) => needleAt(taught.value, readingAt(volume, lowered, arm_ratio)),
    empty: 0,
    full: 1,
    hasEnds: true,
    ...arm,
    tolerance_ratio: Math.hypot(tolerance_ratio, gauge.tolerance_ratio),
  });
}

/** The same sender with an arm so much longer. */
export const withArm = (sender: Sender, arm_ratio: number): Sender =>
  arm_ratio === 0 ? sender : (lawOf(sender).arm?.longer(sender, arm_ratio) ?? sender);

/** How far each length of arm swings free: searched at even steps, straight between. */
function runsByArm(
  sender: Sender,
  room: ClosedMesh,
  round: readonly Hindrance[],
): (arm_ratio: number) => FreeRun | undefined {
  const known = new Map<number, FreeRun | undefined>();
  const at = (step: number): FreeRun | undefined => {
    if (!known.has(step)) known.set(step, freeRun(withArm(sender, step * ARM_STEP), room, round));
    return known.get(step) ?? (step === 0 ? undefined : at(step - Math.sign(step)));
  };
  return (arm_ratio) => {
    const steps = lawOf(sender).arm ? Math.min(ARM_STEPS, Math.max(-ARM_STEPS, arm_ratio / ARM_STEP)) : 0;
    const below = Math.floor(steps);
    const [a, b] = [at(below), at(Math.ceil(steps))];
    const mix = (from: number, to: number): number => from + (to - from) * (steps - below);
    return a && b && { low_share: mix(a.low_share, b.low_share), high_share: mix(a.high_share, b.high_share) };
  };
}
const ARM_STEP = 0.02;
/** No arm is off by more than half. */
const ARM_STEPS = 25;

/** A float that lies on its stop still reads with noise. */
const NOISES = 2;

/**
 * What to teach a gauge or a programmable sender from what was measured: readings of the sender against shares of what
 * the tank holds.
 */
export function taughtByPours(
  result: CalibrationResult,
  count: number,
  placed: 'even' | 'best',
): Outcome<CorrectionTable, NeedleCode | CalibrateCode> {
  if (!result.measured.ok) return result.measured;
  return correctionTable(
    result.measured.value.points.map(({ volume_m3, reading }) => ({
      reading,
      true_ratio: Math.min(1, volume_m3 / result.holds_m3),
    })),
    count,
    placed,
    NOISES * result.measured.value.noise,
  );
}
