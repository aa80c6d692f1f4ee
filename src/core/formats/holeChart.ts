import { csvText } from './csv';

/** One hole of a chart, in millimetres, as it goes out. */
export type ChartHole = {
  readonly face: string;
  readonly port: string;
  readonly part: string;
  readonly edges: readonly (readonly [string, number])[];
  readonly hole_m: number;
  readonly pilot_m: number;
  readonly tool: string;
  readonly size_m: number;
  readonly file_m: number;
  readonly screws: number;
  readonly tap: string;
  readonly tapDrill_m: number;
  readonly tapDepth_m: number;
  readonly existing: boolean;
};

const MM = 1000;
const HEADER = [
  'face',
  'port',
  'part',
  'from_1',
  'distance_1_mm',
  'from_2',
  'distance_2_mm',
  'hole_mm',
  'pilot_mm',
  'tool',
  'tool_mm',
  'file_mm',
  'screws',
  'tap',
  'tap_drill_mm',
  'tap_depth_mm',
  'there_already',
];
const mm = (value_m: number): number => Number((value_m * MM).toFixed(2));

/** The hole chart as CSV, millimetres; a hole that is there already has no tools. */
export const holeChartCsv = (holes: readonly ChartHole[]): string =>
  csvText(
    HEADER,
    holes.map(
      ({
        face,
        port,
        part,
        edges,
        hole_m,
        pilot_m,
        tool,
        size_m,
        file_m,
        screws,
        tap,
        tapDrill_m,
        tapDepth_m,
        existing,
      }) => [
        face,
        port,
        part,
        edges[0]?.[0] ?? '',
        edges[0] ? mm(edges[0][1]) : '',
        edges[1]?.[0] ?? '',
        edges[1] ? mm(edges[1][1]) : '',
        mm(hole_m),
        ...(existing ? ['', '', '', ''] : [mm(pilot_m), tool, mm(size_m), mm(file_m)]),
        screws === 0 ? '' : screws,
        tap,
        tap ? mm(tapDrill_m) : '',
        tap ? mm(tapDepth_m) : '',
        existing ? 'yes' : 'no',
      ],
    ),
  );
