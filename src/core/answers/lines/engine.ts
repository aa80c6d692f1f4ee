import type { ConsumerDocument } from '../../plan/schema';
import { burnFromPower_m3PerS } from '../../range';

/** What an engine burns at full power, and whether its injectors pass it. */
export type EngineNeed = {
  readonly burn_m3PerS: number;
  /** What its injectors pass at most, at the duty allowed; none where it has none. */
  readonly injectors_m3PerS: number | undefined;
  readonly injectorsEnough: boolean;
  /** Of the injectors at full power. */
  readonly duty_ratio: number | undefined;
  /** Power that the injectors would do for [W]. */
  readonly power_W: number | undefined;
};

/**
 * Fuel need from power and specific consumption, against what the injectors
 * pass.
 * @source definition of brake-specific fuel consumption; duty = open time over cycle
 */
export function engineNeed(
  { engine }: Pick<ConsumerDocument, 'engine'>,
  density_kgPerM3: number,
): EngineNeed | undefined {
  if (!engine) return undefined;
  const burn_m3PerS = burnFromPower_m3PerS(engine.power_W.value, engine.specific_kgPerJ.value, density_kgPerM3);
  if (engine.injectors === 0)
    return {
      burn_m3PerS,
      injectors_m3PerS: undefined,
      injectorsEnough: true,
      duty_ratio: undefined,
      power_W: undefined,
    };
  const open_m3PerS = engine.injectors * engine.injectorFlow_m3PerS.value;
  const injectors_m3PerS = open_m3PerS * engine.injectorDuty_ratio.value;
  return {
    burn_m3PerS,
    injectors_m3PerS,
    injectorsEnough: injectors_m3PerS >= burn_m3PerS,
    duty_ratio: burn_m3PerS / open_m3PerS,
    power_W: (injectors_m3PerS * density_kgPerM3) / engine.specific_kgPerJ.value,
  };
}
