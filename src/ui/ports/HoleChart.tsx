'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Download, Printer } from 'lucide-react';
import { fileNameOf } from '@/core/plan';
import type { FaceSheet, SheetPort } from '@/core/answers';
import { holeChartCsv, type ChartHole } from '@/core/formats';
import { formatQuantity } from '@/core/units';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { goToSheet } from '../paper/choice';
import { saveFile } from '../parts/saveFile';
import { useAnswer } from '../state/answers';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';
import { fromWords, TOOL_WORDS, toolSteps } from './sheetWords';
import { cardTable } from '../parts/cardTable';

/** Every hole of a tank, face by face: where it goes and what it takes. */
export function HoleChart() {
  const sides = useSides();
  const system = useSystem();
  const t = useTank();
  const reader = useReader();
  const { value: all, standing } = useAnswer('sheets');
  const sheets = all?.ok ? all.value[t] : undefined;
  const fresh = standing === 'fresh';
  const holes = (sheets ?? []).flatMap((sheet) => sheet.ports.map((port) => ({ sheet, port })));
  if (holes.length === 0) return null;
  const text = (value: number): string => formatQuantity(value, 'tape', { reader }).text;
  const fine = (value: number): string => formatQuantity(value, 'bore', { reader }).text;
  const name = system.tanks[t]!.name;
  return (
    <Panel
      title="Hole chart"
      testId="hole-chart"
      aside={
        <Box display="flex" gap="2">
          <Button
            disabled={!fresh}
            onClick={() =>
              saveFile(
                `${fileNameOf(name, 'face')}-holes.csv`,
                'text/csv',
                holeChartCsv(holes.map(({ sheet, port }) => chartHole(sides(sheet.name), sheet, port))),
              )
            }
          >
            <Download size={18} aria-hidden />
            CSV
          </Button>
          <Button onClick={() => goToSheet('holes')}>
            <Printer size={18} aria-hidden />
            Print
          </Button>
        </Box>
      }
    >
      <Box color="soft" mb="2">
        Centres are measured on the outside of the finished sheet, square to each edge. Corners are lettered on the
        drawing of the face.
      </Box>
      <Box overflowX="auto" opacity={fresh ? 1 : 0.6} tabIndex={0} role="region" aria-label="Hole chart">
        <chakra.table width="100%" minW="640px" borderCollapse="collapse" css={CARDS}>
          <thead>
            <tr>
              {HEADS.map((head) => (
                <chakra.th key={head} px="2" textAlign="left" color="soft" fontWeight="600">
                  {head}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {holes.map(({ sheet, port }) => (
              <chakra.tr key={port.id} borderTopWidth="1px" borderColor="rule" verticalAlign="top">
                <chakra.td px="2" py="1">
                  {sides(sheet.name)}
                </chakra.td>
                <chakra.td px="2" py="1">
                  <b>{port.name}</b>
                  {port.part && (
                    <Box fontSize="sm" color="soft">
                      {port.part}
                    </Box>
                  )}
                </chakra.td>
                <chakra.td px="2" py="1">
                  {port.fromEdges.map((edge) => (
                    <Box key={edge.from} whiteSpace="nowrap">
                      <b>{text(edge.distance_m)}</b> from {fromWords(sheet, edge)}
                    </Box>
                  ))}
                </chakra.td>
                <chakra.td px="2" py="1" fontWeight="700" whiteSpace="nowrap">
                  ⌀ {text(port.hole_m)}
                </chakra.td>
                <chakra.td px="2" py="1">
                  {toolSteps(port, fine)}
                </chakra.td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
    </Panel>
  );
}

const HEADS = ['face', 'port', 'centre', 'hole', 'how it is made'];
const CARDS = cardTable(HEADS);

const chartHole = (
  face: string,
  sheet: FaceSheet,
  { name, part, fromEdges, hole_m, plan, screws, tap, existing }: SheetPort,
): ChartHole => ({
  face,
  port: name,
  part: part ?? '',
  edges: fromEdges.map((edge) => [fromWords(sheet, edge), edge.distance_m]),
  hole_m,
  pilot_m: plan.pilot_m,
  tool: TOOL_WORDS[plan.tool],
  size_m: plan.size_m,
  file_m: plan.file_m,
  screws: screws.length,
  tap: tap?.thread ?? '',
  tapDrill_m: tap?.drill_m ?? 0,
  tapDepth_m: tap?.depth_m ?? 0,
  existing,
});
