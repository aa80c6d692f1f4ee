import { levelForVolume, offsetRange, volumeBelow, type ClosedMesh, type Vec3 } from '../geometry';
import { failure, success, unwrap, type Outcome } from '../outcome';
import { armAngle_rad, freeSwing, resistanceAt_ohm, type FreeSwing, type SwingArm } from './sender';

/** A needle that moves in proportion to resistance between its two ends. */
export type LinearGauge = { readonly emptyResistance_ohm: number; readonly fullResistance_ohm: number; readonly tolerance_ratio: number };

/** Needle position, 0 empty to 1 full, held at its ends. */
export function needleAt(gauge: LinearGauge, resistance_ohm: number): number {
  const share = (resistance_ohm - gauge.emptyResistance_ohm) / (gauge.fullResistance_ohm - gauge.emptyResistance_ohm);
  return Math.min(1, Math.max(0, share));
}

export type GaugePoint = {
  readonly volume_m3: number;
  readonly angle_rad: number;
  readonly resistance_ohm: number;
  /** What the needle says and what it should say, as shares of what the tank holds. */
  readonly needle_ratio: number;
  readonly true_ratio: number;
};

export type GaugeCurve = {
  readonly points: readonly GaugePoint[];
  readonly swing: FreeSwing;
  /** Largest |needle - truth| over all fillings, with its sign, and where. */
  readonly worst: { readonly error_ratio: number; readonly at: GaugePoint };
  /** Liquid below and above which the float no longer moves [m³]. */
  readonly unseenLow_m3: number;
  readonly unseenHigh_m3: number;
};

export type GaugeCode = 'no-swing' | 'stops-crossed' | 'no-range' | 'no-volume';

/**
 * What the needle says against what the tank holds, from empty to the fill
 * limit, at one attitude.
 *
 * @param holds_m3 the volume that should read full
 * @param up       unit vector against effective gravity, tank frame
 * @param steps    equal steps of depth
 * @param room     where the arm swings, if not the whole tank
 */
export function gaugeCurve(
  mesh: ClosedMesh, sender: SwingArm, gauge: LinearGauge, holds_m3: number, up: Vec3, steps: number, room: ClosedMesh = mesh,
): Outcome<GaugeCurve, GaugeCode> {
  if (!(sender.highStop_rad > sender.lowStop_rad)) return failure('stops-crossed', 'sender', 'The high stop must lie above the low stop.');
  if (gauge.emptyResistance_ohm === gauge.fullResistance_ohm) return failure('no-range', 'gauge', "The gauge's empty and full resistances must differ.");
  if (!(holds_m3 > 0)) return failure('no-volume', 'tank', 'The tank holds nothing.');
  const swing = freeSwing(room, sender);
  if (!swing) return failure('no-swing', 'sender', 'The float touches a wall wherever its arm stands; shorten the arm or move the sender.');
  const [low] = offsetRange(mesh, up);
  const full = unwrap(levelForVolume(mesh, up, holds_m3)).offset_m;
  const points = Array.from({ length: steps + 1 }, (_, i) => pointAt(low + ((full - low) * i) / steps, i === steps ? holds_m3 : undefined));
  return success({ points, swing, worst: worstOf(points), ...unseen(points, swing) });

  function pointAt(offset_m: number, known_m3: number | undefined): GaugePoint {
    const volume_m3 = known_m3 ?? volumeBelow(mesh, { normal: up, offset_m });
    const angle_rad = armAngle_rad(sender, swing!, up, offset_m);
    const resistance_ohm = resistanceAt_ohm(sender, angle_rad);
    return { volume_m3, angle_rad, resistance_ohm, needle_ratio: needleAt(gauge, resistance_ohm), true_ratio: volume_m3 / holds_m3 };
  }
}

function worstOf(points: readonly GaugePoint[]): GaugeCurve['worst'] {
  const error = (point: GaugePoint): number => point.needle_ratio - point.true_ratio;
  const at = points.reduce((worst, point) => (Math.abs(error(point)) > Math.abs(error(worst)) ? point : worst));
  return { error_ratio: error(at), at };
}

/** Volumes at which the float leaves its low end and reaches its high end. */
function unseen(points: readonly GaugePoint[], swing: FreeSwing): { unseenLow_m3: number; unseenHigh_m3: number } {
  const full = points.at(-1)!.volume_m3;
  const lastLow = points.findLast((point) => point.angle_rad <= swing.low_rad + 1e-9);
  const firstHigh = points.find((point) => point.angle_rad >= swing.high_rad - 1e-9);
  return { unseenLow_m3: lastLow?.volume_m3 ?? 0, unseenHigh_m3: firstHigh ? full - firstHigh.volume_m3 : 0 };
}

/** What the needle shows for one volume and attitude. */
export function readingAt(
  sender: SwingArm, gauge: LinearGauge, swing: FreeSwing, up: Vec3, offset_m: number,
): { angle_rad: number; resistance_ohm: number; needle_ratio: number } {
  const angle_rad = armAngle_rad(sender, swing, up, offset_m);
  const resistance_ohm = resistanceAt_ohm(sender, angle_rad);
  return { angle_rad, resistance_ohm, needle_ratio: needleAt(gauge, resistance_ohm) };
}
