import { ambientPressure_Pa } from '../fluids';
import { effectiveGravity, type Attitude } from '../geometry';
import type { FlowState, Model } from '../model';
import { success, type Outcome } from '../outcome';
import type { Conditions } from '../plan/schema';
import { radians } from '../units';
import type { Positions } from './positions';

/** How a system stands at one moment: all that may change while nothing is built. SI units. */
export type State = FlowState & {
  readonly attitude: Attitude;
  /** In each tank, by its id [m³]; 0 … its whole space. */
  readonly liquid_m3: Readonly<Record<string, number>>;
  /** Of valves, selectors, couplers and pumps that stand otherwise than drawn, by id. */
  readonly positions: Positions;
};

export type StateCode = 'weightless' | 'altitude-range';

/** A tank of which nobody has said how much is in it. */
const HALF_FULL = 0.5;

/** How the vehicle leans and what pulls at it [rad, m/s²]. */
export const attitudeOf = (conditions: Conditions): Attitude => ({
  pitch_rad: radians(conditions.pitch_deg),
  roll_rad: radians(conditions.roll_deg),
  acceleration_mPerS2: [
    conditions.accelerationForward_mPerS2,
    conditions.accelerationPort_mPerS2,
    conditions.accelerationUp_mPerS2,
  ],
});

/**
 * The state that conditions describe, as they are typed and kept beside the plan.
 *
 * @param tanks of the model; filled by share of their space, a half where nothing is said
 */
export function stateOf({ tanks }: Pick<Model, 'tanks'>, conditions: Conditions): Outcome<State, StateCode> {
  const attitude = attitudeOf(conditions);
  const gravity = effectiveGravity(attitude);
  if (!gravity.ok) return gravity;
  const ambient = ambientPressure_Pa(conditions.altitude_m);
  if (!ambient.ok) return ambient;
  const share = (id: string): number => conditions.fills.find(({ tank }) => tank === id)?.fill_ratio ?? HALF_FULL;
  return success({
    attitude,
    gravity: gravity.value,
    liquid_m3: Object.fromEntries(
      tanks.map(({ document, gross_m3 }) => [document.id, share(document.id) * gross_m3] as const),
    ),
    fuelTemperature_K: conditions.fuelTemperature_K,
    ambientAbs_Pa: ambient.value,
    duty_ratio: conditions.duty_ratio,
    supply_V: conditions.pumpVoltage_V,
    positions: {},
  });
}
