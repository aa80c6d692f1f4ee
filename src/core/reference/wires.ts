import { INCH_M } from '../units/units';
import { sourced, type Sourced } from './provenance';

/** Resistivity of annealed copper at 20 °C [ohm m], and how it grows with temperature [1/K]. */
export const COPPER = {
  resistivity_ohmM: 1.7241e-8,
  rise_perK: 3.93e-3,
  ...sourced('from memory', 'IEC 60028, international annealed copper standard'),
};

export type WireSystem = 'mm2' | 'awg';

export type WireRow = Sourced & {
  readonly key: string;
  readonly name: string;
  readonly system: WireSystem;
  readonly area_m2: number;
  /** Resistance of a metre at 20 °C [ohm/m]. */
  readonly resistance_ohmPerM: number;
  /** Most that it may carry for long, insulation for 105 °C, outside an engine space [A]. */
  readonly most_A: number;
};

/** Stranded metric sizes: resistance at 20 °C [ohm/km] and current. */
const METRIC = [
  [0.5, 37.1, 12],
  [0.75, 24.7, 16],
  [1, 18.5, 20],
  [1.5, 12.7, 25],
  [2.5, 7.6, 35],
  [4, 4.71, 45],
  [6, 3.14, 60],
  [10, 1.82, 90],
  [16, 1.16, 130],
  [25, 0.743, 170],
] as const;
const METRIC_SOURCE = sourced(
  'from memory',
  'ISO 6722-1: resistance of stranded copper at 20 °C; currents of ISO 10133 table A.1, insulation for 105 °C',
);
/** American gauges: current. */
const AWG = [
  [18, 20],
  [16, 25],
  [14, 35],
  [12, 45],
  [10, 60],
  [8, 80],
  [6, 120],
  [4, 160],
  [2, 210],
] as const;
const AWG_SOURCE = sourced(
  'from memory',
  'ASTM B258: diameter 0.005 in x 92^((36 - gauge) / 39); currents of ABYC E-11 table 4, insulation for 105 °C, outside engine spaces',
);
/** Strands laid in a helix are a little longer than the wire. */
const LAY = 1.02;

function awg(gauge: number, most_A: number): WireRow {
  const diameter = 0.005 * 92 ** ((36 - gauge) / 39) * INCH_M;
  const area_m2 = (Math.PI / 4) * diameter ** 2;
  return {
    key: `awg-${gauge}`,
    name: `${gauge} AWG`,
    system: 'awg',
    area_m2,
    resistance_ohmPerM: (LAY * COPPER.resistivity_ohmM) / area_m2,
    most_A,
    ...AWG_SOURCE,
  };
}

/** Wires, thinnest first within each system. */
export const WIRES: readonly WireRow[] = [
  ...METRIC.map(([mm2, ohmPerKm, most_A]): WireRow => ({
    key: `mm2-${String(mm2).replace('.', '-')}`,
    name: `${mm2} mm²`,
    system: 'mm2',
    area_m2: mm2 * 1e-6,
    resistance_ohmPerM: ohmPerKm / 1e3,
    most_A,
    ...METRIC_SOURCE,
  })),
  ...AWG.map(([gauge, most_A]) => awg(gauge, most_A)),
];

/** A wire by its key. */
export const wireRow = (key: string): WireRow => WIRES.find((row) => row.key === key)!;

/** Blade fuses as sold [A]. */
export const FUSES: Sourced & { readonly sizes_A: readonly number[] } = {
  sizes_A: [1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 80],
  ...sourced('from memory', 'ISO 8820-3: blade fuses'),
};
