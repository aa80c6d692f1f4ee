'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Download, Printer } from 'lucide-react';
import { fileNameOf } from '@/core/plan';
import { csvText } from '@/core/formats';
import { correctionTable, type CorrectionTable } from '@/core/gauge';
import type { Outcome } from '@/core/outcome';
import { formatQuantity } from '@/core/units';
import { axisOf } from '../charts/axes';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { saveFile } from '../parts/saveFile';
import { applyEdit, openDocument } from '../state/editor';
import { useReader } from '../state/reader';
import { useGauge } from './GaugeChart';
import { goToSheet } from '../paper/choice';
import { withTaught } from './gaugeEdits';
import { POINT_COUNTS, useTaughtPoints, type Placed } from './taughtPoints';

/** What to teach a programmable sender or gauge, from the plan. */
export function CorrectionPanel({ t, s }: { readonly t: number; readonly s: number }) {
  const gauge = useGauge(s);
  const { count, placed } = useTaughtPoints();
  if (!gauge?.ok) return null;
  const { curve, signal } = gauge.value;
  return (
    <Panel title="Correction table, from the plan" testId="correction">
      <Box color="soft" mb="2">
        For a sender or gauge that is taught points. Once the tank is built, teach it from its calibration.
      </Box>
      <CountAndPlace
        count={count}
        placed={placed}
        onCount={(chosen) => useTaughtPoints.setState({ count: chosen })}
        onPlace={(chosen) => useTaughtPoints.setState({ placed: chosen })}
        of="plan"
      />
      <TaughtTable
        table={correctionTable(curve.points, count, placed)}
        signal={signal}
        holds_m3={curve.points.at(-1)!.volume_m3}
        name="planned"
        label="Correction table from the plan"
        onPrint={() => goToSheet('correction')}
        onTeach={(table) => applyEdit('teach the gauge', (system) => withTaught(system, t, s, table.points))}
      />
    </Panel>
  );
}

export function CountAndPlace({
  count,
  placed,
  onCount,
  onPlace,
  of,
}: {
  readonly count: number;
  readonly placed: Placed;
  readonly onCount: (count: number) => void;
  readonly onPlace: (placed: Placed) => void;
  readonly of: string;
}) {
  return (
    <Box display="flex" gap="3" flexWrap="wrap" mb="2" className="no-print">
      <Select
        label={`Points it takes, ${of}`}
        value={String(count)}
        options={POINT_COUNTS.map((value) => ({ value: String(value), label: String(value) }))}
        onChange={(value) => onCount(Number(value))}
      />
      <Select
        label={`Placed, ${of}`}
        value={placed}
        options={[
          { value: 'best', label: 'where they leave the least error' },
          { value: 'even', label: 'at even shares of the tank' },
        ]}
        onChange={onPlace}
      />
    </Box>
  );
}

type TableProps = {
  readonly table: Outcome<CorrectionTable>;
  readonly signal: 'resistance' | 'voltage';
  readonly holds_m3: number;
  readonly name: string;
  readonly label: string;
  readonly onTeach?: (table: CorrectionTable) => void;
  /** Puts it on paper. */ readonly onPrint: () => void;
};

/** The points to teach, to print or as CSV. */
export function TaughtTable({ table, signal, holds_m3, name, label, onTeach, onPrint }: TableProps) {
  const reader = useReader();
  if (!table.ok)
    return (
      <Box color="stop" fontWeight="600">
        {table.error.detail}
      </Box>
    );
  const { points, worst_ratio } = table.value;
  const volume = axisOf('tankVolume', reader);
  const save = (): void =>
    saveFile(
      `${fileNameOf(openDocument().name)}-${name}-points.csv`,
      'text/csv',
      csvText(
        [
          'point',
          signal === 'resistance' ? 'reading_ohm' : 'reading_V',
          'shown_percent',
          `volume_${volume.symbol.replaceAll(/\s+/g, '_')}`,
        ],
        points.map(({ reading, shown_ratio }, i) => [
          i + 1,
          Number(reading.toFixed(3)),
          Number((shown_ratio * 100).toFixed(2)),
          Number(volume.value(shown_ratio * holds_m3).toFixed(3)),
        ]),
      ),
    );
  return (
    <Box>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Correction table">
        <chakra.table
          maxW="460px"
          width="100%"
          borderCollapse="collapse"
          aria-label={label}
          data-testid={`points-${name}`}
        >
          <thead>
            <tr>
              {['point', 'sender gives', 'show', 'in the tank'].map((head) => (
                <chakra.th key={head} px="2" textAlign="right" color="soft" fontWeight="600">
                  {head}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {points.map(({ reading, shown_ratio }, i) => (
              <chakra.tr key={i} borderTopWidth="1px" borderColor="rule">
                <chakra.td px="2" py="1" textAlign="right">
                  {i + 1}
                </chakra.td>
                <chakra.td px="2" textAlign="right" fontWeight="700">
                  {formatQuantity(reading, signal, { reader, digits: 4 }).text}
                </chakra.td>
                <chakra.td px="2" textAlign="right" fontWeight="700">
                  {formatQuantity(shown_ratio, 'share', { reader }).text}
                </chakra.td>
                <chakra.td px="2" textAlign="right">
                  {formatQuantity(shown_ratio * holds_m3, 'tankVolume', { reader }).text}
                </chakra.td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
      <Box mt="2">
        Taught so, it is off by no more than <b>{formatQuantity(worst_ratio, 'share', { reader }).text}</b> where the
        sender moves, vehicle level.
      </Box>
      <Box mt="2" display="flex" gap="2" flexWrap="wrap" className="no-print">
        {onTeach && (
          <Button onClick={() => onTeach(table.value)} testId={`teach-${name}`}>
            Teach the gauge these
          </Button>
        )}
        <Button onClick={save}>
          <Download size={18} aria-hidden />
          CSV
        </Button>
        <Button onClick={onPrint}>
          <Printer size={18} aria-hidden />
          Print
        </Button>
      </Box>
    </Box>
  );
}
