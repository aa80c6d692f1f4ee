'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Printer } from 'lucide-react';
import { sideText, valueAt, type Known, type Path, type SystemDocument } from '@/core/plan';
import { allKnown } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { pathWords } from '../measure/pathWords';
import { goToSheet } from '../paper/choice';
import { Button } from '../parts/Button';
import { knownText } from '../fields/knownText';
import { Panel } from '../parts/Panel';
import { useAnswer } from '../state/answers';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import type { Sides } from '../state/sides';
import { useTank } from '../state/tankChoice';
import { usePlace } from '../workspace/goTo';
import { cornerName, measureName } from './bayWords';

/** A value of the space in a builder's words. */
function nameOf(system: SystemDocument, path: Path): string {
  const sides: Sides = (text) => sideText(system.vehicle.kind, text);
  const { bay } = system.fit;
  if (path[1] === 'bay' && bay.kind === 'measured') {
    if (path[2] === 'measures') return measureName(bay, Number(path[3]), sides);
    if (path[2] === 'stations' && path[4] === 'corners')
      return `${path[6] === 'up_m' ? 'height' : 'place across'}, ${cornerName(bay, { station: bay.stations[Number(path[3])]!.id, corner: Number(path[5]) }, sides)}`;
  }
  const { owner, label } = pathWords(system, path);
  return `${label}, ${owner}`;
}

/**
 * What is still unknown of the space, in the order in which it bears on the tightest places, with a box to write into.
 */
export function SheetPanel() {
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const goTo = usePlace((place) => place.goTo);
  const { value: fit } = useAnswer('clearances');
  const doubts = (fit?.ok ? fit.value.tanks[t]?.doubts : undefined) ?? [];
  const known = (path: Path): Known | undefined => valueAt(system, path) as Known | undefined;
  const open = doubts.filter(({ path }) => known(path)?.origin === 'assumed');
  const listed = new Set(open.map(({ path }) => path.join('.')));
  // What bears on nothing tight yet still wants a look once the tape is out.
  const rest = allKnown(system.fit, ['fit']).filter(
    ({ path, known: value }) => value.origin === 'assumed' && !listed.has(path.join('.')),
  );
  if (open.length + rest.length === 0) return null;
  const row = (path: Path, note: string) => (
    <chakra.tr key={path.join('.')} borderTopWidth="1px" borderColor="rule">
      <td>
        <chakra.button
          type="button"
          textAlign="left"
          minH="42px"
          cursor="pointer"
          textDecoration="underline"
          onClick={() => goTo('fit', path)}
        >
          {nameOf(system, path)}
        </chakra.button>
      </td>
      <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
        {knownText(known(path)!, pathWords(system, path).role, reader)}
      </chakra.td>
      <chakra.td px="2" color="soft">
        {note}
      </chakra.td>
      <td>
        <Box width="110px" height="34px" borderWidth="1.5px" borderColor="edge" aria-hidden />
      </td>
    </chakra.tr>
  );
  return (
    <Panel
      title="Measure-up sheet"
      testId="sheet"
      aside={
        <Button onClick={() => goToSheet('measure')}>
          <Printer size={18} aria-hidden />
          Print
        </Button>
      }
    >
      <Box color="soft" mb="2">
        Take these in order: the first moves the tightest places most. Measure wide obstacles at both ends.
      </Box>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="What to measure, a row each">
        <chakra.table width="100%" borderCollapse="collapse" aria-label="Still to measure">
          <thead>
            <tr>
              {['what', 'assumed', 'why', 'measured'].map((head) => (
                <chakra.th
                  key={head}
                  textAlign={head === 'assumed' ? 'right' : 'left'}
                  px="2"
                  color="soft"
                  fontWeight="600"
                >
                  {head}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {open.map(({ path, moves_m, gap }) =>
              row(path, `moves the gap to ${gap} by up to ${formatQuantity(moves_m, 'tape', { reader }).text}`),
            )}
            {rest.map(({ path }) => row(path, 'nothing tight hangs on it'))}
          </tbody>
        </chakra.table>
      </Box>
    </Panel>
  );
}
