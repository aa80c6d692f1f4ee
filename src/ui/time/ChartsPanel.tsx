'use client';

import { Box } from '@chakra-ui/react';
import { useMemo } from 'react';
import { sampleAt, type Played, type Sample } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { flowRole } from '@/core/plan';
import { formatQuantity, type Role } from '@/core/units';
import { axisOf } from '../charts/axes';
import type { Curve } from '../charts/LineChart';
import { Panel } from '../parts/Panel';
import { useReader } from '../state/reader';
import type { Span } from './span';
import { TimeChart } from './TimeChart';
import { timeAxis, type Told } from './timeWords';

type Series = { readonly name: string; readonly value: (sample: Sample) => number };
type Plan = { readonly title: string; readonly role: Role; readonly series: readonly Series[]; readonly yMin?: number };

/** As many curves as can be told apart. */
const MOST_CURVES = 6;
const LOOKS: readonly Pick<Curve, 'color' | 'dash'>[] = [
  { color: 'accent' },
  { color: 'fuelEdge', dash: [9, 5] },
  { color: 'ink', dash: [3, 4] },
  { color: 'good', dash: [14, 4] },
  { color: 'stop', dash: [2, 3] },
  { color: 'soft', dash: [6, 3, 2, 3] },
];
/** What lines carry that are drawn: what goes from tank to tank, and out or in by a tank's own. */
const MOVES: ReadonlySet<string> = new Set(['transfer', 'fill', 'overflow']);
/** A figure so little below zero is none. */
const TINY = 1e-9;
/** Flows below this are none [m³/s]. */
const STILL_M3_PER_S = 1e-9;
/** An angle or a temperature that moves less than this does not change. */
const SAME = 0.05;
/** Flows that are never further apart than this share of the most are one. */
const SAME_SHARE = 1e-3;

/** All that changes over a course, chart over chart to one time. */
export function ChartsPanel({
  played,
  of,
  before,
  at_s,
  span,
  told,
  onTime,
}: {
  readonly played: Played;
  readonly of: SystemDocument;
  /** The course before it, drawn faint; only where it has the same tanks. */ readonly before: Played | undefined;
  readonly at_s: number;
  readonly span: Span;
  readonly told: readonly Told[];
  readonly onTime: (at_s: number) => void;
}) {
  const reader = useReader();
  const { run } = played;
  const [from_s, to_s] = span;
  const charts = useMemo(() => {
    const unit = timeAxis(to_s - from_s);
    const samples = samplesIn(run.samples, [from_s, to_s]);
    // Under it lies a course of the same tanks that is not over before what is seen.
    const canLie = before?.run.samples[0]!.tanks.length === of.tanks.length && before.scenario.duration_s > from_s;
    return chartsOf(of, run.samples).map(({ title, role, series, yMin }) => {
      const axis = axisOf(role, reader);
      const curveOf = (
        samples: readonly Sample[],
        { name, value }: Series,
        look: Pick<Curve, 'color' | 'dash'>,
      ): Curve => ({
        label: name,
        ...look,
        points: samples.map((sample) => ({ x: sample.t_s / unit.unit_s, y: axis.value(value(sample)) })),
      });
      const text = (value: number): string => formatQuantity(value, role, { reader }).text;
      const shown = series.slice(0, MOST_CURVES);
      const earlier =
        canLie && before
          ? shown.map((each, i) =>
              curveOf(
                samplesIn(before.run.samples, [from_s, Math.min(to_s, before.scenario.duration_s)]),
                { ...each, name: i === 0 ? 'before' : '' },
                { color: 'soft', dash: [2, 4] },
              ),
            )
          : [];
      return {
        title: series.length > MOST_CURVES ? `${title}; ${series.length - MOST_CURVES} more not drawn` : title,
        y: axis.symbol,
        unit,
        ...(yMin === undefined && shown.some(({ value }) => samples.some((sample) => value(sample) < -TINY))
          ? {}
          : { yMin: 0 }),
        curves: [...shown.map((each, i) => curveOf(samples, each, LOOKS[i]!)), ...earlier],
        summary: shown
          .map(({ name, value }) => {
            const values = run.samples.map(value);
            return `${name}: ${text(Math.min(...values))} to ${text(Math.max(...values))}, ${text(values.at(-1)!)} at the end.`;
          })
          .join(' '),
      };
    });
  }, [of, run, before, from_s, to_s, reader]);
  return (
    <Panel title="Over time" testId="time-charts">
      <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
        {charts.map((chart, i) => (
          <TimeChart
            key={chart.title}
            {...chart}
            isLast={i === charts.length - 1}
            span={span}
            at_s={at_s}
            told={told}
            onTime={onTime}
          />
        ))}
      </Box>
    </Panel>
  );
}

/** What is seen of a course in a span: with how it stands at its ends, so that curves reach them. */
function samplesIn(samples: readonly Sample[], [from_s, to_s]: Span): readonly Sample[] {
  const within = samples.filter(({ t_s }) => t_s > from_s && t_s < to_s);
  return [sampleAt(samples, from_s), ...within, sampleAt(samples, to_s)];
}

function chartsOf({ tanks, consumers, lines }: SystemDocument, samples: readonly Sample[]): Plan[] {
  const most = (value: (sample: Sample) => number): number =>
    Math.max(...samples.map((sample) => Math.abs(value(sample))));
  const isSame = (one: (sample: Sample) => number, other: (sample: Sample) => number): boolean =>
    samples.every((sample) => Math.abs(one(sample) - other(sample)) <= SAME_SHARE * most(one));
  const moves = (value: (sample: Sample) => number): boolean => {
    const values = samples.map(value);
    return Math.max(...values) - Math.min(...values) > SAME;
  };
  const flows: Series[] = [
    ...consumers.map(({ name }, c): Series => ({ name, value: (sample) => sample.consumers_m3PerS[c]! })),
    ...lines.flatMap(({ name, purpose }, l): Series[] =>
      MOVES.has(purpose) ? [{ name, value: (sample) => sample.lines_m3PerS[l]! }] : [],
    ),
  ]
    .filter(({ value }) => most(value) > STILL_M3_PER_S)
    // What goes on from a pump or filter is drawn once.
    .filter(({ value }, i, all) => !all.slice(0, i).some((other) => isSame(value, other.value)));
  const leans: Series[] = [
    { name: 'Pitch, nose up', value: ({ pitch_deg }: Sample) => (pitch_deg * Math.PI) / 180 },
    { name: 'Roll, right side down', value: ({ roll_deg }: Sample) => (roll_deg * Math.PI) / 180 },
  ].filter(({ value }) => moves((sample) => (value(sample) * 180) / Math.PI));
  const temperature: Series = { name: 'Fuel and air', value: ({ temperature_K }) => temperature_K };
  return [
    {
      title: 'In the tanks',
      role: 'tankVolume',
      yMin: 0,
      series: tanks.map(({ name }, t) => ({ name, value: (sample) => sample.tanks[t]!.volume_m3 })),
    },
    {
      title: 'Pressure over the liquid, against the air outside',
      role: 'pressure',
      series: tanks.map(({ name }, t) => ({ name, value: (sample) => sample.tanks[t]!.gauge_Pa })),
    },
    ...(flows.length > 0
      ? [{ title: 'Flow', role: flowRole(Math.max(...flows.map(({ value }) => most(value)))), series: flows }]
      : []),
    ...(leans.length > 0 ? [{ title: 'Lean of the vehicle', role: 'slope' as const, series: leans }] : []),
    ...(moves(temperature.value)
      ? [{ title: 'Temperature', role: 'temperature' as const, series: [temperature] }]
      : []),
  ];
}
