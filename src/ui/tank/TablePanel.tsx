'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Download, Printer } from 'lucide-react';
import { useState } from 'react';
import { fileNameOf } from '@/core/plan';
import type { TableAt } from '@/core/answers';
import { csvText } from '@/core/formats';
import { entryText, formatQuantity } from '@/core/units';
import { axisOf } from '../charts/axes';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { goToSheet } from '../paper/choice';
import { saveFile } from '../parts/saveFile';
import { useAsked, useOutcome } from '../state/answers';
import { openDocument } from '../state/editor';
import { useTank } from '../state/tankChoice';
import { useReader } from '../state/reader';

const STEP_LIMITS = { min: 0.001, max: 0.5 };
const FIRST_STEP_M = 0.02;

/** The strapping table: what a dipstick reads, in the reader's units; to print, as CSV, and the shape as STL. */
export function TablePanel() {
  const t = useTank();
  const reader = useReader();
  const [step_m, setStep] = useState(FIRST_STEP_M);
  const [at, setAt] = useState<TableAt>('mounted');
  const { value: table, fresh } = useOutcome('strapping', t, step_m, at);
  const mesh = useAsked('stl');
  if (!table) return null;
  const depth = axisOf('tape', reader);
  const volume = axisOf('tankVolume', reader);
  const enter = (text: string) => {
    const read = readEntry(text, 'tape', reader, STEP_LIMITS);
    if (read.ok) setStep(read.value);
    return read.ok ? { ok: true as const } : read;
  };
  const fileName = (suffix: string): string => `${fileNameOf(openDocument().name)}-${suffix}`;
  const saveCsv = (): void => {
    if (!table.ok) return;
    const key = (symbol: string): string => symbol.replace(/\s+/g, '_');
    saveFile(
      fileName('table.csv'),
      'text/csv',
      csvText(
        [`depth_${key(depth.symbol)}`, `volume_${key(volume.symbol)}`],
        table.value.map((row) => [
          Number(depth.value(row.depth_m).toFixed(3)),
          Number(volume.value(row.volume_m3).toFixed(4)),
        ]),
      ),
    );
  };
  const saveStl = async (): Promise<void> => {
    const bytes = await mesh.ask(t);
    if (bytes instanceof Uint8Array) saveFile(fileName('inside.stl'), 'model/stl', bytes);
  };
  return (
    <Panel title="Strapping table" testId="table">
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="end" mb="3" className="no-print">
        <Box width="150px">
          <TextEntry
            label="Step of depth"
            value={entryText(step_m, 'tape', reader)}
            unit={depth.symbol}
            onEnter={enter}
          />
        </Box>
        <Select
          label="Standing"
          width="240px"
          value={at}
          options={[
            { value: 'mounted', label: 'as mounted, vehicle level' },
            { value: 'conditions', label: 'as the conditions are set' },
          ]}
          onChange={setAt}
        />
        <Button onClick={saveCsv} disabled={!fresh}>
          <Download size={18} aria-hidden />
          CSV
        </Button>
        <Button onClick={() => goToSheet('strapping')} disabled={!fresh}>
          <Printer size={18} aria-hidden />
          Print
        </Button>
        <Button onClick={() => void saveStl()} title="The inside of the tank, in millimetres">
          <Download size={18} aria-hidden />
          STL
        </Button>
      </Box>
      {!table.ok ? (
        <Box color="stop" fontWeight="600">
          {table.error.detail}
        </Box>
      ) : (
        <Box
          maxH={{ base: '320px', _print: 'none' }}
          overflowY="auto"
          tabIndex={0}
          role="region"
          aria-label="Strapping table"
          aria-busy={!fresh}
          opacity={fresh ? 1 : 0.5}
        >
          <chakra.table width="100%" maxW="420px" borderCollapse="collapse">
            <thead>
              <tr>
                <chakra.th
                  textAlign="right"
                  py="1"
                  pr="4"
                  color="soft"
                  fontWeight="600"
                  position="sticky"
                  top="0"
                  bg="panel"
                >
                  depth
                </chakra.th>
                <chakra.th textAlign="right" py="1" color="soft" fontWeight="600" position="sticky" top="0" bg="panel">
                  volume
                </chakra.th>
              </tr>
            </thead>
            <tbody>
              {table.value.map((row) => (
                <chakra.tr key={row.depth_m} borderTopWidth="1px" borderColor="rule">
                  <chakra.td textAlign="right" py="1" pr="4">
                    {formatQuantity(row.depth_m, 'tape', { reader, digits: 4 }).text}
                  </chakra.td>
                  <chakra.td textAlign="right" py="1" fontWeight="650">
                    {formatQuantity(row.volume_m3, 'tankVolume', { reader }).text}
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
      )}
    </Panel>
  );
}
