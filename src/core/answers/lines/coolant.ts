import type { ComponentDocument } from '../../plan/schema';
import { ambientPressure_Pa, fluidState, type FluidBatch, type FluidState } from '../../fluids';
import { dot, levelForVolume, volumeBelow, type Vec3 } from '../../geometry';
import { standingUp, type PortModel } from '../../model/compileTank';
import type { TankLevel } from '../../model/networkParts';
import { mouthPoint } from '../../model/portMouth';
import { unwrap } from '../../outcome';
import { envelopeSteps, type Envelope } from '../../tank';

type CoolingSystem = Extract<ComponentDocument, { kind: 'cooling-system' }>;

/** A line on a bottle: what stands up to there, and how high that is over its lowest place, standing level. */
export type CoolantMark = { readonly volume_m3: number; readonly height_m: number };

/** What a bottle has to have in it, cold and hot, and how far a cap takes its coolant. */
export type Coolant = {
  /** Boils under its cap, with the air outside as it is set; undefined beyond 150 °C [K]. */
  readonly boils_K: number | undefined;
  /** The same at other altitudes. */
  readonly boilsAt: readonly { readonly altitude_m: number; readonly boils_K: number | undefined }[];
  /** Swells from its coldest until it boils under its cap; undefined as that is [m³]. */
  readonly toBoiling_m3: number | undefined;
  /**
   * The least that covers the mouth it is drawn back by at every slope asked for, and that with what comes when it is
   * hottest.
   */
  readonly marks: { readonly cold: CoolantMark; readonly hot: CoolantMark; readonly holds_m3: number };
  /** What is left in the bottle of what stands there, once all has cooled to its coldest [m³]. */
  readonly coldLeft_m3: number;
};

const ALTITUDES_M = [0, 1500, 3000] as const;
/** A coolant's vapour pressure is known up to here [K]. */
export const BOILING_KNOWN_TO_K = 423.15;
const FREEZING_K = 273.15;

/**
 * How a cooling system and its bottle work together.
 *
 * The system is full and cannot grow: all that it swells by goes past its cap into the bottle, and all that it shrinks
 * by is drawn back. As it heats its pressure rises to the cap's; there it boils at the temperature at which water's
 * vapour has that pressure, which is sooner than a mixture does: the safe side.
 *
 * @param level of the bottle, as it stands now at `now_K`; what is in it is in the system too
 * @param port by which it comes and is drawn back
 * @param envelope slopes that the mouth has to stay covered at, by a bore of it (common practice)
 */
export function coolantOf(
  part: CoolingSystem,
  level: TankLevel,
  port: PortModel,
  { ambientAbs_Pa, now_K, envelope }: { ambientAbs_Pa: number; now_K: number; envelope: Envelope },
): Coolant {
  const { tank } = level;
  const { batch } = tank;
  const volume_m3 = part.coolant_m3.value;
  const density = (temperature_K: number): number => known(batch, temperature_K).density_kgPerM3;
  const cold = density(part.cold_K.value);
  const swells = (hot_K: number): number => volume_m3 * Math.max(0, cold / density(hot_K) - 1);
  const boilsUnder = (outside_Pa: number): number | undefined => boilingAt(batch, outside_Pa + part.cap_Pa.value);
  const boils_K = boilsUnder(ambientAbs_Pa);
  const cold_m3 = leastCovered_m3(level, port, envelope);
  return {
    boils_K,
    boilsAt: ALTITUDES_M.map((altitude_m) => ({
      altitude_m,
      boils_K: boilsUnder(unwrap(ambientPressure_Pa(altitude_m))),
    })),
    toBoiling_m3: boils_K === undefined ? undefined : swells(boils_K),
    marks: {
      cold: markAt(level, cold_m3),
      hot: markAt(level, cold_m3 + swells(part.hot_K.value)),
      holds_m3: tank.gross_m3 * tank.document.fillLimit_ratio.value,
    },
    coldLeft_m3: Math.max(0, level.volume_m3 - volume_m3 * Math.max(0, 1 - density(now_K) / cold)),
  };
}

/** Temperatures of a cooling system lie where fluids have properties. */
const known = (batch: FluidBatch, temperature_K: number): FluidState => unwrap(fluidState(batch, temperature_K));

/** At which vapour has a pressure, by halving; it rises with temperature. */
function boilingAt(batch: FluidBatch, abs_Pa: number): number | undefined {
  let [low, high] = [FREEZING_K, BOILING_KNOWN_TO_K];
  if (known(batch, high).vapourPressureAbs_Pa < abs_Pa) return undefined;
  for (let n = 0; n < 50; n++) {
    const middle = (low + high) / 2;
    if (known(batch, middle).vapourPressureAbs_Pa < abs_Pa) low = middle;
    else high = middle;
  }
  return high;
}

function leastCovered_m3({ tank }: TankLevel, port: PortModel, { pitch_rad, roll_rad }: Envelope): number {
  const mouth = mouthPoint(port);
  const over_m = port.document.bore_m.value;
  return Math.max(
    ...envelopeSteps(pitch_rad).flatMap((pitch) =>
      envelopeSteps(roll_rad).map((roll) => {
        const up = standingUp(tank, pitch, roll);
        return volumeBelow(tank.mesh, { normal: up, offset_m: dot(up, mouth) + over_m });
      }),
    ),
  );
}

/** Beyond what the bottle takes a mark stands at its brim. */
function markAt({ tank }: TankLevel, volume_m3: number): CoolantMark {
  const up: Vec3 = standingUp(tank, 0, 0);
  const at = (volume: number): number => unwrap(levelForVolume(tank.mesh, up, volume)).offset_m;
  return { volume_m3, height_m: at(Math.min(volume_m3, tank.gross_m3)) - at(0) };
}
