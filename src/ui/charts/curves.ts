export type Curve = {
  /** Stands in the legend; empty for the second of a pair. */
  readonly label: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  readonly color: 'accent' | 'fuelEdge' | 'stop' | 'soft' | 'ink' | 'good';
  /** Curves are told apart by dash as well as colour. */
  readonly dash?: readonly number[];
  /** Drawn as single marks. */
  readonly marks?: 'rectRot';
};

export type ChartProps = {
  readonly curves: readonly Curve[];
  readonly x: string;
  readonly y: string;
  readonly summary: string;
  readonly height?: string;
  readonly yMin?: number | undefined;
  readonly yMax?: number | undefined;
};

/** The palette's name of a curve's colour. */
export const TOKENS: Readonly<Record<Curve['color'], string>> = {
  accent: 'accent',
  fuelEdge: 'fuel-edge',
  stop: 'stop',
  soft: 'soft',
  ink: 'ink',
  good: 'good',
};
