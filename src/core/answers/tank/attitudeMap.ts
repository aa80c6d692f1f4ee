import { tankModel, type ModelCode } from '../../model';
import type { Plan } from '../../plan/schema';
import { effectiveGravity, toTankFrame, type Attitude, type Vec3 } from '../../geometry';
import { failure, success, type Outcome } from '../../outcome';
import { attitudeMap, symmetricSteps, type AttitudeMap } from '../../tank';
import { radians, STANDARD_GRAVITY_M_PER_S2 } from '../../units';

/** Over roll and pitch, standing still; or over acceleration to port and forward, at the set slope. */
export type MapMode = 'slope' | 'g';

export type TankMap = AttitudeMap & {
  readonly mode: MapMode;
  readonly pickups: readonly { readonly id: string; readonly name: string }[];
};

/** Reach of the map each way: degrees, or shares of g. */
export const MAP_LIMIT: Readonly<Record<MapMode, number>> = { slope: 30, g: 1.2 };

/**
 * What each pickup of a tank leaves behind over a square of attitudes; x is
 * roll [deg] or acceleration to port [g], y is pitch [deg] or acceleration
 * forward [g].
 * @param standing slope and acceleration that the map's own two are laid over
 * @param steps odd, 3 or more: points each way
 */
export function tankMap(
  plan: Pick<Plan, 'tanks' | 'fluids'>,
  standing: Attitude,
  tankIndex: number,
  mode: MapMode,
  steps: number,
): Outcome<TankMap, ModelCode | 'no-pickup'> {
  const model = tankModel(plan, tankIndex);
  if (!model.ok) return model;
  const tank = model.value;
  if (tank.pickups.length === 0)
    return failure('no-pickup', tank.document.name, 'The tank has no pickup that stands in it.');
  const upAt = (x: number, y: number): Vec3 | undefined => {
    const gravity = effectiveGravity(
      mode === 'slope'
        ? { pitch_rad: radians(y), roll_rad: radians(x), acceleration_mPerS2: [0, 0, 0] }
        : {
            ...standing,
            acceleration_mPerS2: [
              y * STANDARD_GRAVITY_M_PER_S2,
              x * STANDARD_GRAVITY_M_PER_S2,
              standing.acceleration_mPerS2[2],
            ],
          },
    );
    return gravity.ok ? toTankFrame(gravity.value.up, tank.mounting) : undefined;
  };
  const axis = symmetricSteps(MAP_LIMIT[mode], steps);
  const map = attitudeMap(
    tank,
    tank.pickups.map((pickup) => pickup.inlet),
    axis,
    axis,
    upAt,
  );
  return success({
    ...map,
    mode,
    pickups: tank.pickups.map((pickup) => ({ id: pickup.document.id, name: pickup.document.name })),
  });
}
