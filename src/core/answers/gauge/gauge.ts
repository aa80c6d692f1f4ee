import { surroundOf, type SenderModel } from '../../model/compileSender';
import type { TankLevel } from '../../model/networkParts';
import { envelopeOf, standingUp, type TankModel } from '../../model/compileTank';
import type { Plan } from '../../plan/schema';
import {
  readingAt,
  volumesAt,
  withSlopes,
  type GaugeCode,
  type GaugeCurve,
  type GaugePoint,
  type VolumeSpan,
  lawOf,
} from '../../gauge';
import type { Vec3 } from '../../geometry';
import { success, type Outcome } from '../../outcome';
import { burnOf_m3PerS } from '../../model/burn';
import { bandOf, curveOf, drawnFrom } from '../remembered';
import type { TankResult, Detail } from '../tank/tankResult';

/** When the low-level lamp lights: what is then in the tank, and how long and how far the rest goes. */
export type LampResult = {
  readonly needle_ratio: number;
  readonly volume: VolumeSpan;
  /**
   * Of it, what can still be drawn: level, and at the slope asked for where least is left, with the needle as far off
   * as it may be [m³].
   */
  readonly drawLevel_m3: number;
  readonly drawWorst_m3: number;
  readonly lasts_s?: number;
  readonly lastsWorst_s?: number;
  readonly goes_m?: number;
  readonly goesWorst_m?: number;
};

export type GaugeResult = {
  readonly sender: string;
  readonly tank: string;
  readonly signal: 'resistance' | 'voltage';
  readonly curve: GaugeCurve;
  /**
   * The curve with where the needle may stand by tolerances and over the slopes asked for; by tolerances alone when
   * only numbers were asked for.
   */
  readonly band: readonly GaugePoint[];
  /** What is in the tank when the needle stands at a quarter, half and three quarters. */
  readonly marks: readonly { readonly needle_ratio: number; readonly volume: VolumeSpan }[];
  /** In the tank when the needle comes to rest at empty [m³]. */
  readonly emptyHolds_m3: number;
  readonly lamp?: LampResult;
  readonly now: {
    readonly share: number;
    readonly angle_rad?: number;
    readonly reading: number;
    readonly needle_ratio: number;
    readonly true_ratio: number;
  };
};

/** Levels at which the curve of a gauge is worked out. */
export const GAUGE_STEPS = 50;
const MARKS = [0.25, 0.5, 0.75] as const;

/**
 * What a sender says over the whole tank as it stands, and how far off the gauge reads; volumes in m³, errors as
 * shares of what the tank holds.
 */
export function gaugeResult(
  plan: Plan,
  duty_ratio: number,
  { tank, volume_m3, offset_m, up }: TankLevel,
  model: SenderModel,
  result: TankResult,
  detail: Detail,
): Outcome<GaugeResult, GaugeCode> {
  if (!model.instrument.ok) return model.instrument;
  const instrument = model.instrument.value;
  const { holds_m3 } = result;
  const curve = curveOf(tank.mesh, instrument, holds_m3, standingUp(tank, 0, 0), GAUGE_STEPS, surroundOf(tank, model));
  if (!curve.ok) return curve;
  const slopes =
    detail === 'full'
      ? cornersOf(plan, (pitch, roll) => standingUp(tank, pitch, roll)).map((corner) => ({
          up: corner,
          band: bandOf(tank.mesh, instrument, curve.value, corner),
        }))
      : [];
  const band = withSlopes(
    curve.value,
    slopes.map((slope) => slope.band),
  );
  const now = readingAt(instrument, curve.value.gauge, curve.value.free, up, offset_m);
  const lamp_ratio = model.document.gauge.lamp_ratio?.value;
  const { sender } = instrument;
  const { arm } = lawOf(sender);
  return success({
    sender: model.document.id,
    tank: tank.document.id,
    signal: model.document.output.kind,
    curve: curve.value,
    band,
    marks: MARKS.map((needle_ratio) => ({ needle_ratio, volume: volumesAt(band, needle_ratio) })),
    emptyHolds_m3: Math.max(
      curve.value.unseenLow_m3,
      curve.value.points.findLast((point) => point.needle_ratio <= 0)?.volume_m3 ?? 0,
    ),
    ...(lamp_ratio === undefined
      ? {}
      : {
          lamp: lampResult(plan, duty_ratio, tank, lamp_ratio, volumesAt(band, lamp_ratio), [
            { up: standingUp(tank, 0, 0), band: curve.value.points },
            ...slopes,
          ]),
        }),
    now: { ...now, true_ratio: volume_m3 / holds_m3, ...(arm ? { angle_rad: arm.angle_rad(sender, now.share) } : {}) },
  });
}

/** Corners and middles of the sides of the slopes asked for. */
function cornersOf(plan: Plan, upAt: (pitch_rad: number, roll_rad: number) => Vec3): Vec3[] {
  const { pitch_rad, roll_rad } = envelopeOf(plan);
  const angles = ([low, high]: readonly [number, number]): number[] => [...new Set([low, 0, high])];
  return angles(pitch_rad).flatMap((pitch) => angles(roll_rad).map((roll) => upAt(pitch, roll)));
}

type Slope = { readonly up: Vec3; readonly band: readonly GaugePoint[] };

/**
 * What can be drawn when the lamp lights: on the level, and at the slope where least is left, tank and needle standing
 * alike.
 */
function lampResult(
  plan: Plan,
  duty_ratio: number,
  tank: TankModel,
  needle_ratio: number,
  volume: VolumeSpan,
  slopes: readonly Slope[],
): LampResult {
  const [pickup] = tank.pickups;
  const left = (volume_m3: number, up: Vec3): number =>
    pickup ? drawnFrom(tank.mesh, tank.division, pickup.inlet, up, volume_m3) : 0;
  const drawLevel_m3 = left(volume.volume_m3, slopes[0]!.up);
  const drawWorst_m3 = Math.min(...slopes.map(({ up, band }) => left(volumesAt(band, needle_ratio).least_m3, up)));
  const [consumer] = plan.consumers;
  const burn = consumer ? burnOf_m3PerS(consumer, duty_ratio) : 0;
  if (!(burn > 0)) return { needle_ratio, volume, drawLevel_m3, drawWorst_m3 };
  const [lasts_s, lastsWorst_s] = [drawLevel_m3 / burn, drawWorst_m3 / burn];
  const speed = plan.vehicle.speed_mPerS?.value;
  return {
    needle_ratio,
    volume,
    drawLevel_m3,
    drawWorst_m3,
    lasts_s,
    lastsWorst_s,
    ...(speed ? { goes_m: lasts_s * speed, goesWorst_m: lastsWorst_s * speed } : {}),
  };
}
