'use client';

import { Box } from '@chakra-ui/react';
import { volumesAt } from '@/core/gauge';
import { formatQuantity, type Role } from '@/core/units';
import { axisOf } from '../charts/axes';
import { LineChart } from '../charts/LineChart';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';
import { useTank } from '../state/tankChoice';

/** The result of one sender: gauges come in the order of tanks and their senders. */
export function useGauge(s: number) {
  const t = useTank();
  const { results } = useDetails();
  const before = useValue((system) => system.tanks.slice(0, t).reduce((count, tank) => count + tank.senders.length, 0));
  return results?.ok ? results.evaluation.gauges[before + s] : undefined;
}

const QUARTERS = { 0.25: 'Quarter', 0.5: 'Half', 0.75: 'Three quarters' } as const;

/** What the needle says against what is in the tank, with where it may stand. */
export function GaugeChart({ s }: { readonly s: number }) {
  const reader = useReader();
  const kind = useValue((system) => system.vehicle.kind);
  const gauge = useGauge(s);
  if (!gauge) return null;
  if (!gauge.ok)
    return (
      <Panel title="Gauge against volume">
        <Box color="stop" fontWeight="600">
          {gauge.error.detail}
        </Box>
      </Panel>
    );
  const { curve, band, now, marks, emptyHolds_m3, lamp, signal } = gauge.value;
  const volume = axisOf('tankVolume', reader);
  const text = (value: number, role: Role): string => formatQuantity(value, role, { reader }).text;
  const full = curve.points.at(-1)!.volume_m3;
  const points = (value: (point: (typeof band)[number]) => number) =>
    band.map((point) => ({ x: volume.value(point.volume_m3), y: value(point) * 100 }));
  const unread = volumesAt(band, 0.02).most_m3;
  return (
    <Panel title="Gauge against volume" testId="gauge-chart">
      <Box display="grid" gridTemplateColumns={{ base: '1fr 1fr', md: 'repeat(4, 1fr)' }} gap="3" mb="3">
        {marks.map(({ needle_ratio, volume: span }) => (
          <Box key={needle_ratio}>
            <Box fontSize="sm" color="soft">
              “{QUARTERS[needle_ratio as keyof typeof QUARTERS]}” is
            </Box>
            <Box fontSize="2xl" fontWeight="800" lineHeight="1.15">
              <Quantity value={span.volume_m3} role="tankVolume" />
            </Box>
            <Box fontSize="sm">
              {text(span.least_m3, 'tankVolume')} to {text(span.most_m3, 'tankVolume')}
            </Box>
          </Box>
        ))}
        <Box>
          <Box fontSize="sm" color="soft">
            “Empty” still holds
          </Box>
          <Box fontSize="2xl" fontWeight="800" lineHeight="1.15">
            <Quantity value={emptyHolds_m3} role="tankVolume" />
          </Box>
          <Box fontSize="sm">up to {text(unread, 'tankVolume')}</Box>
        </Box>
      </Box>
      <LineChart
        x={`volume in the tank, ${volume.symbol}`}
        y="needle, %"
        yMin={0}
        yMax={100}
        summary={`Worst where ${text(curve.worst.at.volume_m3, 'tankVolume')} are in the tank: the needle says ${text(curve.worst.at.needle_ratio, 'share')}, the truth is ${text(curve.worst.at.true_ratio, 'share')}. The line is with the vehicle level; between the thin ones the needle may stand by the tolerances of sender and gauge and over the slopes asked for. The sender does not see the lowest ${text(curve.unseenLow_m3, 'tankVolume')} and the highest ${text(curve.unseenHigh_m3, 'tankVolume')}.`}
        curves={[
          { label: 'needle says', color: 'accent', points: points((point) => point.needle_ratio) },
          {
            label: 'it may stand between',
            color: 'accent',
            dash: [2, 4],
            points: points((point) => point.needleLow_ratio),
          },
          { label: '', color: 'accent', dash: [2, 4], points: points((point) => point.needleHigh_ratio) },
          {
            label: 'truth',
            color: 'soft',
            dash: [8, 5],
            points: [
              { x: 0, y: 0 },
              { x: volume.value(full), y: 100 },
            ],
          },
          {
            label: 'now, at the set slope',
            color: 'ink',
            marks: 'rectRot',
            points: [{ x: volume.value(now.true_ratio * full), y: now.needle_ratio * 100 }],
          },
        ]}
      />
      <Box mt="3">
        Needle now{' '}
        <b>
          <Quantity value={now.needle_ratio} role="share" />
        </b>{' '}
        ({text(now.reading, signal)}); truth{' '}
        <b>
          <Quantity value={now.true_ratio} role="share" />
        </b>
      </Box>
      {lamp && (
        <Box mt="2" data-testid="lamp">
          The lamp lights with{' '}
          <b>
            <Quantity value={lamp.volume.volume_m3} role="tankVolume" />
          </b>{' '}
          in the tank ({text(lamp.volume.least_m3, 'tankVolume')} to {text(lamp.volume.most_m3, 'tankVolume')});{' '}
          <b>
            <Quantity value={lamp.drawLevel_m3} role="tankVolume" />
          </b>{' '}
          of it can be drawn on the level
          {lamp.lasts_s !== undefined && (
            <>
              :{' '}
              <b>
                <Quantity value={lamp.lasts_s} role="duration" />
              </b>
            </>
          )}
          {lamp.goes_m !== undefined && (
            <>
              ,{' '}
              <b>
                <Quantity value={lamp.goes_m} role={kind === 'boat' ? 'seaTrip' : 'trip'} />
              </b>
            </>
          )}
          . At worst{' '}
          <b>
            <Quantity value={lamp.drawWorst_m3} role="tankVolume" />
          </b>
          {lamp.lastsWorst_s !== undefined && (
            <>
              , <Quantity value={lamp.lastsWorst_s} role="duration" />
            </>
          )}
          {lamp.goesWorst_m !== undefined && (
            <>
              , <Quantity value={lamp.goesWorst_m} role={kind === 'boat' ? 'seaTrip' : 'trip'} />
            </>
          )}
          .
        </Box>
      )}
    </Panel>
  );
}
