import { INCH_M } from '../units/units';
import { sourced, type Sourced } from './provenance';

/**
 * Sheet gauges. The same number means another thickness in each metal, so a
 * gauge is never read without one.
 */
export type SheetMetal = 'steel' | 'stainless' | 'aluminium';

export type GaugeTable = Sourced & {
  readonly metal: SheetMetal;
  readonly thickness_in: Readonly<Record<number, number>>;
};

/** Brown & Sharpe: 0.005 in at 36, 0.46 in at 0000, geometric between. */
const brownSharpe_in = (gauge: number): number => 0.005 * 92 ** ((36 - gauge) / 39);

const ALUMINIUM_GAUGES = [4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 26, 27, 28];

export const GAUGE_TABLES: Readonly<Record<SheetMetal, GaugeTable>> = {
  steel: {
    metal: 'steel',
    ...sourced('from memory', "Manufacturers' Standard Gauge for sheet steel (41.82 lb/ft² per inch)"),
    thickness_in: {
      3: 0.2391,
      4: 0.2242,
      5: 0.2092,
      6: 0.1943,
      7: 0.1793,
      8: 0.1644,
      9: 0.1495,
      10: 0.1345,
      11: 0.1196,
      12: 0.1046,
      13: 0.0897,
      14: 0.0747,
      15: 0.0673,
      16: 0.0598,
      17: 0.0538,
      18: 0.0478,
      19: 0.0418,
      20: 0.0359,
      21: 0.0329,
      22: 0.0299,
      23: 0.0269,
      24: 0.0239,
      25: 0.0209,
      26: 0.0179,
    },
  },
  stainless: {
    metal: 'stainless',
    ...sourced('from memory', 'U.S. Standard Gauge as used for stainless sheet (15 U.S.C. 206)'),
    thickness_in: {
      7: 0.1875,
      8: 0.1719,
      9: 0.1562,
      10: 0.1406,
      11: 0.125,
      12: 0.1094,
      13: 0.0938,
      14: 0.0781,
      15: 0.0703,
      16: 0.0625,
      17: 0.0562,
      18: 0.05,
      19: 0.0437,
      20: 0.0375,
      21: 0.0344,
      22: 0.0312,
      23: 0.0281,
      24: 0.025,
      25: 0.0219,
      26: 0.0188,
    },
  },
  aluminium: {
    metal: 'aluminium',
    ...sourced('derived', 'Brown & Sharpe (AWG) gauge, ASTM B258: 0.005 in x 92^((36-n)/39)'),
    thickness_in: Object.fromEntries(
      ALUMINIUM_GAUGES.map((gauge) => [gauge, Math.round(brownSharpe_in(gauge) * 1e4) / 1e4]),
    ),
  },
};

/** Thickness of a gauge number in one metal [m], or undefined when the table has no such number. */
export function gaugeThickness_m(metal: SheetMetal, gauge: number): number | undefined {
  const inches = GAUGE_TABLES[metal].thickness_in[gauge];
  return inches === undefined ? undefined : inches * INCH_M;
}
