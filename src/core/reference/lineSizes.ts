import { INCH_M } from '../units/units';
import { sourced, type Sourced } from './provenance';

/** Nominal line sizes and the bore that liquid really sees. */
export type LineKind = 'hose' | 'tube' | 'pipe';

export type LineSize = Sourced & {
  readonly kind: LineKind;
  /** As it is ordered: dash number, or nominal pipe size. */
  readonly name: string;
  readonly bore_m: number;
  readonly outside_m?: number;
};

const HOSE = sourced('from memory', 'SAE J517, 100R14 hose: minimum nominal inside diameters');
const TUBE = sourced('derived', 'dash = outside diameter in 1/16 in (SAE J514); wall 0.035 in to -8, 0.049 in above');
const PIPE = sourced('from memory', 'ASME B36.10M, schedule 40');

const hose = (dash: number, bore_in: number): LineSize => ({
  ...HOSE,
  kind: 'hose',
  name: `-${dash}`,
  bore_m: bore_in * INCH_M,
});

const tube = (dash: number): LineSize => {
  const outside_in = dash / 16;
  const wall_in = dash <= 8 ? 0.035 : 0.049;
  return {
    ...TUBE,
    kind: 'tube',
    name: `-${dash}`,
    outside_m: outside_in * INCH_M,
    bore_m: (outside_in - 2 * wall_in) * INCH_M,
  };
};

const pipe = (name: string, outside_in: number, bore_in: number): LineSize => ({
  ...PIPE,
  kind: 'pipe',
  name,
  outside_m: outside_in * INCH_M,
  bore_m: bore_in * INCH_M,
});

export const LINE_SIZES: readonly LineSize[] = [
  hose(4, 0.188),
  hose(5, 0.25),
  hose(6, 0.313),
  hose(8, 0.406),
  hose(10, 0.5),
  hose(12, 0.625),
  hose(16, 0.875),
  ...[3, 4, 5, 6, 8, 10, 12, 16].map(tube),
  pipe('1/8', 0.405, 0.269),
  pipe('1/4', 0.54, 0.364),
  pipe('3/8', 0.675, 0.493),
  pipe('1/2', 0.84, 0.622),
  pipe('3/4', 1.05, 0.824),
  pipe('1', 1.315, 1.049),
  pipe('1 1/4', 1.66, 1.38),
  pipe('1 1/2', 1.9, 1.61),
  pipe('2', 2.375, 2.067),
];

/** A size of line by its key; undefined where there is none. */
export function lineSize(kind: LineKind, name: string): LineSize | undefined {
  return LINE_SIZES.find((size) => size.kind === kind && size.name === name);
}
