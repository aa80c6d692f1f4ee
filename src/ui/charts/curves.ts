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
  /** Least and most of what is along. */ readonly xSpan?: readonly [number, number] | undefined;
  /** Told where its curves lie on the canvas [px], whenever that is another. */ readonly onArea?: (
    area: ChartArea,
  ) => void;
};

/** Where the curves of a chart lie on its canvas, from its left and top edge [px]. */
export type ChartArea = {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
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
