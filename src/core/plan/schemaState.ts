import { bounded } from '../schema/known';
import { closed, id, listOf } from '../schema/tools';

/** How a system stands at a moment, as it is written beside the plan. Of the plan nothing depends on it. */
export const conditions = closed({
  pitch_deg: bounded(-60, 60),
  roll_deg: bounded(-60, 60),
  accelerationForward_mPerS2: bounded(-30, 30),
  accelerationPort_mPerS2: bounded(-30, 30),
  accelerationUp_mPerS2: bounded(-9, 50),
  fuelTemperature_K: bounded(213.15, 423.15),
  altitude_m: bounded(-500, 9000),
  duty_ratio: bounded(0, 1),
  pumpVoltage_V: bounded(0, 60),
  fills: listOf(closed({ tank: id(), fill_ratio: bounded(0, 1) }), 20),
});
