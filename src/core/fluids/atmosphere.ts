import { failure, success, type Outcome } from '../outcome';

const SEA_LEVEL_PA = 101325;
const SEA_LEVEL_K = 288.15;
const LAPSE_K_PER_M = 0.0065;
/** g M / (R L) of the standard atmosphere. */
const EXPONENT = 5.25588;
const AIR_GAS_CONSTANT = 287.053;

/**
 * Ambient pressure at an altitude, absolute [Pa].
 * @param altitude_m -500 … 9000
 * @source International Standard Atmosphere, ISO 2533:1975, troposphere
 */
export function ambientPressure_Pa(altitude_m: number): Outcome<number, 'altitude-range'> {
  if (!(altitude_m >= -500 && altitude_m <= 9000)) {
    return failure('altitude-range', 'altitude', 'Altitude must lie between -500 and 9000 m.');
  }
  return success(SEA_LEVEL_PA * (1 - (LAPSE_K_PER_M * altitude_m) / SEA_LEVEL_K) ** EXPONENT);
}

export type AirState = { readonly density_kgPerM3: number; readonly viscosity_PaS: number };

/**
 * Air in a vent.
 * @source ideal gas; viscosity by Sutherland's law, 110.4 K, 1.458e-6 (U.S. Standard Atmosphere 1976)
 */
export function airState(temperature_K: number, pressureAbs_Pa: number): AirState {
  return {
    density_kgPerM3: pressureAbs_Pa / (AIR_GAS_CONSTANT * temperature_K),
    viscosity_PaS: (1.458e-6 * temperature_K ** 1.5) / (temperature_K + 110.4),
  };
}
