'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Download, Printer } from 'lucide-react';
import { mountRows } from '@/core/answers';
import { cutsCsv, partsCsv, type ListedCut, type ListedPart } from '@/core/formats';
import { formatQuantity } from '@/core/units';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { goToSheet } from '../paper/choice';
import { saveFile } from '../parts/saveFile';
import { Quantity } from '../parts/Quantity';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useAnswer } from '../state/answers';
import { useLines } from '../state/useLines';

/** What to buy and what to cut for all circuits. */
export function ListsPanel() {
  const system = useSystem();
  const reader = useReader();
  const { lines, fresh } = useLines();
  const { value: mounts } = useAnswer('mounts');
  if (!lines) return null;
  const { parts, cuts, totals, spanners_m } = lines.list;
  const held = mountRows(
    system.mounts,
    mounts?.ok ? Object.assign({}, ...mounts.value.shells.map(({ strapWays_m }) => strapWays_m)) : {},
  );
  const base = system.name.replaceAll(/[^a-z0-9]+/gi, '-').toLowerCase();
  return (
    <Panel
      title="Parts and cuts of the lines"
      testId="lists"
      aside={
        <Box display="flex" gap="2" flexWrap="wrap">
          <Button
            disabled={!fresh}
            onClick={() => saveFile(`${base}-parts.csv`, 'text/csv', partsCsv([...parts, ...held.parts]))}
          >
            <Download size={18} aria-hidden />
            Parts CSV
          </Button>
          <Button
            disabled={!fresh}
            onClick={() => saveFile(`${base}-cuts.csv`, 'text/csv', cutsCsv([...cuts, ...held.cuts]))}
          >
            <Download size={18} aria-hidden />
            Cuts CSV
          </Button>
          <Button onClick={() => goToSheet('parts')}>
            <Printer size={18} aria-hidden />
            Print
          </Button>
        </Box>
      }
    >
      <Box
        opacity={fresh ? 1 : 0.6}
        display="grid"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 360px), 1fr))"
        gap="5"
      >
        <Box>
          <Box fontWeight="700">To buy</Box>
          <chakra.table width="100%" borderCollapse="collapse">
            <tbody>
              {parts.map(({ what, name, count, where }) => (
                <chakra.tr key={`${what}-${name}`} borderTopWidth="1px" borderColor="rule" verticalAlign="top">
                  <chakra.td py="1" pr="3" textAlign="right" fontWeight="700" whiteSpace="nowrap">
                    {count} ×
                  </chakra.td>
                  <chakra.td py="1">
                    {name}
                    {where.length > 0 && (
                      <Box fontSize="sm" color="soft">
                        {where.join('; ')}
                      </Box>
                    )}
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
        <Box>
          <Box fontWeight="700">To cut, ends included</Box>
          <chakra.table width="100%" borderCollapse="collapse">
            <tbody>
              {cuts.map((cut) => (
                <chakra.tr key={cut.line} borderTopWidth="1px" borderColor="rule" verticalAlign="top">
                  <chakra.td py="1" pr="3">
                    {cut.name}
                    <Box fontSize="sm" color="soft">
                      {cut.stock}
                    </Box>
                  </chakra.td>
                  <chakra.td py="1" textAlign="right" fontWeight="700" whiteSpace="nowrap">
                    <Quantity value={cut.cut_m} role="tape" />
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
          <Box mt="3" fontWeight="700">
            All together
          </Box>
          {totals.map(({ stock, total_m, pieces }) => (
            <Box key={stock}>
              <Quantity value={total_m} role="run" /> of {stock}, in {pieces} {pieces === 1 ? 'piece' : 'pieces'}
            </Box>
          ))}
          {spanners_m.length > 0 && (
            <Box mt="2">
              Spanners: {spanners_m.map((size) => formatQuantity(size, 'bore', { reader }).text).join(', ')}
            </Box>
          )}
        </Box>
      </Box>
      {held.parts.length + held.cuts.length > 0 && <ToHold parts={held.parts} cuts={held.cuts} />}
    </Panel>
  );
}

/** Pieces of one stock, those of one length to the millimetre together. */
function alike(cuts: readonly ListedCut[]) {
  const stocks = new Map<string, Map<number, { cut_m: number; count: number }>>();
  for (const { stock, cut_m } of cuts) {
    const pieces = stocks.get(stock) ?? new Map<number, { cut_m: number; count: number }>();
    const key = Math.round(1e3 * cut_m);
    pieces.set(key, { cut_m, count: (pieces.get(key)?.count ?? 0) + 1 });
    stocks.set(stock, pieces);
  }
  return [...stocks].map(([stock, pieces]) => ({ stock, pieces: [...pieces.values()] }));
}

/** What holds and guards the tanks: bolts by the piece, flat stock and pads by the length. */
function ToHold({ parts, cuts }: { readonly parts: readonly ListedPart[]; readonly cuts: readonly ListedCut[] }) {
  return (
    <chakra.details mt="3" borderTopWidth="1px" borderColor="rule" pt="1" data-testid="lists-mounts">
      <chakra.summary minH="42px" py="2" cursor="pointer">
        <b>To hold the tanks:</b> {parts.reduce((sum, { count }) => sum + count, 0)} bolts, {cuts.length} pieces to cut
      </chakra.summary>
      <Box
        display="grid"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 360px), 1fr))"
        columnGap="5"
        alignItems="start"
      >
        <chakra.table width="100%" borderCollapse="collapse">
          <tbody>
            {parts.map(({ name, count }) => (
              <chakra.tr key={name} borderTopWidth="1px" borderColor="rule" verticalAlign="top">
                <chakra.td py="1" pr="3" textAlign="right" fontWeight="700" whiteSpace="nowrap">
                  {count} ×
                </chakra.td>
                <chakra.td py="1" width="100%">
                  {name}
                </chakra.td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
        <Box>
          {alike(cuts).map(({ stock, pieces }) => (
            <Box key={stock} borderTopWidth="1px" borderColor="rule" py="1">
              {stock}:{' '}
              {pieces.map(({ cut_m, count }, i) => (
                <b key={i}>
                  {i > 0 && ', '}
                  {count} × <Quantity value={cut_m} role="tape" />
                </b>
              ))}
            </Box>
          ))}
          <Box color="soft" fontSize="sm" borderTopWidth="1px" borderColor="rule" pt="1">
            Which piece is for which mount stands on the sheet Mounts and bolts, and in the file of cuts.
          </Box>
        </Box>
      </Box>
    </chakra.details>
  );
}
