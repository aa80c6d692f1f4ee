'use client';

import { flowRole } from '@/core/plan';
import { Box } from '@chakra-ui/react';
import { LOW_VOLTS_RATIO } from '@/core/answers';
import { formatQuantity, type Role } from '@/core/units';
import { LineChart } from '../charts/LineChart';
import { axisOf } from '../charts/axes';
import { Panel } from '../parts/Panel';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';

/** What the pump gives against what the line asks; on low voltage, and with dirty filters. */
export function PumpChart({ k }: { readonly k: number }) {
  const reader = useReader();
  const { results } = useDetails();
  const flow = results?.ok ? results.evaluation.flows[k] : undefined;
  if (!flow?.ok) return null;
  const { value } = flow;
  const role = flowRole(value.needed_m3PerS);
  const [q, p] = [axisOf(role, reader), axisOf('pressure', reader)];
  const text = (si: number, of: Role): string => formatQuantity(si, of, { reader }).text;
  const pumped = value.pumps.length > 0;
  const title = pumped ? 'Pump against line' : 'Head against line';
  if (value.chart.length === 0)
    return (
      <Panel title={title} testId="pump-chart">
        <Box color="stop" fontWeight="650">
          No chart: at none of its flows is there an answer.
        </Box>
      </Panel>
    );
  const most = Math.max(...value.chart.flatMap((point) => [point.given_Pa, point.asked_Pa]));
  const atDelivered = interpolate(value.chart, value.delivered_m3PerS);
  return (
    <Panel title={title} testId="pump-chart">
      <LineChart
        x={`flow, ${q.symbol}`}
        y={`pressure, ${p.symbol}`}
        height="300px"
        yMin={Math.min(0, ...value.chart.map((point) => p.value(point.asked_Pa)))}
        summary={`Where the curves cross the line gets ${text(value.delivered_m3PerS, role)}; ${text(value.needed_m3PerS, role)} is needed. At the needed flow ${text(value.pressureAtNeed_Pa, 'pressure')} arrives; ${text(value.neededPressure_Pa, 'pressure')} is needed.`}
        curves={[
          {
            label: 'pump gives',
            color: 'accent',
            points: value.chart.map((point) => ({ x: q.value(point.flow_m3PerS), y: p.value(point.given_Pa) })),
          },
          {
            label: 'line asks',
            color: 'fuelEdge',
            dash: [8, 5],
            points: value.chart.map((point) => ({ x: q.value(point.flow_m3PerS), y: p.value(point.asked_Pa) })),
          },
          ...(pumped
            ? [
                {
                  label: `on ${Math.round(LOW_VOLTS_RATIO * 100)} % of the volts`,
                  color: 'accent' as const,
                  dash: [3, 4],
                  points: value.chart.map((point) => ({
                    x: q.value(point.flow_m3PerS),
                    y: p.value(Math.max(0, point.givenLow_Pa)),
                  })),
                },
              ]
            : []),
          ...(value.chart.some((point) => point.askedDirty_Pa > point.asked_Pa)
            ? [
                {
                  label: 'with dirty filters',
                  color: 'fuelEdge' as const,
                  dash: [2, 4],
                  points: value.chart
                    .filter((point) => point.askedDirty_Pa <= 1.3 * most)
                    .map((point) => ({ x: q.value(point.flow_m3PerS), y: p.value(point.askedDirty_Pa) })),
                },
              ]
            : []),
          {
            label: 'delivered',
            color: 'ink',
            marks: 'rectRot',
            points: [{ x: q.value(value.delivered_m3PerS), y: p.value(atDelivered) }],
          },
          {
            label: 'needed flow',
            color: 'stop',
            dash: [2, 4],
            points: [
              { x: q.value(value.needed_m3PerS), y: 0 },
              { x: q.value(value.needed_m3PerS), y: p.value(Math.max(...value.chart.map((point) => point.given_Pa))) },
            ],
          },
        ]}
      />
      {value.chartLost > 0 && (
        <Box mt="2" color="warn" fontWeight="600">
          At {value.chartLost} of {value.chart.length + value.chartLost} flows there is no answer: the curves are drawn
          without them.
        </Box>
      )}
      <Box mt="3" display="flex" gap="5" flexWrap="wrap">
        <Box>
          Nearest to boiling: {value.suction.node}, <b>{text(value.suction.margin_Pa, 'pressure')}</b> in hand
        </Box>
        {value.pumps
          .filter((pump) => pump.lift_m > 0)
          .map((pump) => (
            <Box key={pump.id}>
              {pump.name} draws <b>{text(pump.lift_m, 'run')}</b> of fuel up to it
            </Box>
          ))}
      </Box>
    </Panel>
  );
}

/** What the pump gives at a flow, between two points of the chart. */
function interpolate(chart: readonly { flow_m3PerS: number; given_Pa: number }[], flow: number): number {
  const next = chart.findIndex((point) => point.flow_m3PerS >= flow);
  if (next <= 0) return chart[Math.max(0, next)]?.given_Pa ?? 0;
  const [a, b] = [chart[next - 1]!, chart[next]!];
  return a.given_Pa + ((b.given_Pa - a.given_Pa) * (flow - a.flow_m3PerS)) / (b.flow_m3PerS - a.flow_m3PerS);
}
