import { sourced, type Sourced } from './provenance';

/** What vents are made for where nobody has said otherwise. */
export const VENT_USUAL: Sourced & {
  /** Most over and under the air outside, over the liquid: some 10 cm of water [Pa]. */
  readonly over_Pa: number;
  readonly under_Pa: number;
  /** A station nozzle at an easy pace [m³/s]. */ readonly fill_m3PerS: number;
  /** Fuel out of the ground, and the hottest that it gets in a tank on a hot day [K]. */
  readonly ground_K: number;
  readonly hot_K: number;
  /** Walls are not pressed to more than this share of what they give at. */ readonly share: number;
} = {
  over_Pa: 1000,
  under_Pa: 1000,
  fill_m3PerS: 30e-3 / 60,
  ground_K: 288.15,
  hot_K: 318.15,
  share: 0.5,
  ...sourced(
    'common practice',
    '10 cm of water either way; 30 L/min; out of the ground at 15 °C, and 30 K of warming; walls to half of what they give at',
  ),
};

/** Holes that are drilled, and hoses that are bought [m]. */
export const VENT_HOLES_M = [0.001, 0.0015, 0.002, 0.003, 0.004, 0.005, 0.006, 0.008, 0.01, 0.012] as const;
export const VENT_HOSES_M = [0.0048, 0.0064, 0.0079, 0.0095, 0.0127, 0.0159, 0.0191, 0.0254] as const;
