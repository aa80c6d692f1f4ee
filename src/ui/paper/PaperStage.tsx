'use client';

import { Box } from '@chakra-ui/react';
import { Global } from '@emotion/react';
import { Printer } from 'lucide-react';
import { useEffect, type ReactNode } from 'react';
import {
  figureRoom,
  pagesOf,
  PAPERS,
  scaledDrawing,
  schematicDrawing,
  type Block,
  type PaperKey,
} from '@/core/reports';
import { DrawingView } from '../drawing/DrawingView';
import { Select } from '../fields/Select';
import { useSchematic } from '../lines/useSchematic';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { READERS } from '../parts/ReaderPicker';
import { useAnswer, useOutcome } from '../state/answers';
import { savedRevision, useSaveState } from '../state/autosave';
import { useSystem } from '../state/editor';
import { useTaughtPoints } from '../gauge/taughtPoints';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useDetails, useJudged } from '../state/results';
import { useTank } from '../state/tankChoice';
import { useLines } from '../state/useLines';
import { TankPicker } from '../tank/TankPicker';
import { isSheet, SHEET_KEYS, usePaper, type SheetKey } from './choice';
import { SHEET_LABELS } from './labels';
import {
  correctionSheet,
  cuttingSheet,
  findingsSheet,
  holesCaution,
  holesSheet,
  measureSheet,
  partsSheet,
  strappingSheet,
  valvesTable,
  writing,
} from './sheets';

/** What a sheet is made of, and whether that is of the system as it is now. */
type Content = { readonly blocks: readonly Block[]; readonly isFresh: boolean; readonly why?: string | undefined };
const NOTHING: Content = { blocks: [], isFresh: false };

type Sheet = { readonly isOfTank: boolean; readonly use: (paper: PaperKey) => Content };
const SHEETS: Readonly<Record<SheetKey, Sheet>> = {
  measure: { isOfTank: false, use: useMeasure },
  holes: { isOfTank: true, use: useHoles },
  cutting: { isOfTank: true, use: useCutting },
  parts: { isOfTank: false, use: useParts },
  schematic: { isOfTank: false, use: useSchematicSheet },
  strapping: { isOfTank: true, use: useStrapping },
  correction: { isOfTank: true, use: useCorrection },
  findings: { isOfTank: false, use: useFindings },
};

/** Sheets for the bench, as they will come out of the printer. */
export function PaperStage() {
  const { sheet, paper } = usePaper();
  useEffect(() => {
    const asked = new URL(window.location.href).searchParams.get('sheet');
    if (isSheet(asked)) usePaper.setState({ sheet: asked });
  }, []);
  useEffect(() => {
    const url = new URL(window.location.href);
    url.searchParams.set('sheet', sheet);
    window.history.replaceState(null, '', url);
    return () => {
      const left = new URL(window.location.href);
      left.searchParams.delete('sheet');
      window.history.replaceState(null, '', left);
    };
  }, [sheet]);
  const { isOfTank } = SHEETS[sheet];
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <Box className="no-print" display="grid" gap="4">
        {isOfTank && <TankPicker />}
        <Panel title="Sheets for the bench">
          <Box display="flex" gap="3" flexWrap="wrap" alignItems="end">
            <Select
              label="Sheet"
              width="260px"
              value={sheet}
              options={SHEET_KEYS.map((key) => ({ value: key, label: SHEET_LABELS[key] }))}
              onChange={(value) => usePaper.setState({ sheet: value })}
            />
            <Select
              label="Paper"
              width="130px"
              value={paper}
              options={(Object.keys(PAPERS) as PaperKey[]).map((key) => ({ value: key, label: PAPERS[key].name }))}
              onChange={(value) => usePaper.setState({ paper: value })}
            />
            <PrintButton />
            <Box color="soft" flex="1 1 240px">
              Print at 100 %, without margins of the printer’s own; PDF is one of the printers. Then lay a rule to the
              bar at the foot.
            </Box>
          </Box>
        </Panel>
      </Box>
      <OneSheet key={sheet} sheet={sheet} paper={paper} />
    </Box>
  );
}

function PrintButton() {
  return (
    <Button onClick={() => window.print()}>
      <Printer size={18} aria-hidden />
      Print
    </Button>
  );
}

function OneSheet({ sheet, paper }: { readonly sheet: SheetKey; readonly paper: PaperKey }) {
  const { use: useContent } = SHEETS[sheet];
  const { blocks, isFresh, why } = useContent(paper);
  const system = useSystem();
  const reader = useReader();
  const isSaved = useSaveState(({ state }) => state.kind === 'saved');
  if (why !== undefined) return <Note>{why}</Note>;
  if (blocks.length === 0) return <Note>{isFresh ? 'There is nothing for this sheet.' : 'On its way…'}</Note>;
  const pages = pagesOf(
    blocks,
    {
      system: system.name,
      sheet: SHEET_LABELS[sheet],
      // What is not saved yet is of no revision.
      revision: isSaved ? String(savedRevision()) : `${savedRevision()} and later edits`,
      date: new Date().toLocaleDateString(undefined, { dateStyle: 'medium' }),
      units: READERS.find(({ value }) => value === reader)!.label,
    },
    paper,
  );
  const { width_mm, height_mm } = PAPERS[paper];
  return (
    <Box
      display="grid"
      gap={{ base: '4', _print: '0' }}
      justifyItems="center"
      opacity={isFresh ? 1 : 0.5}
      data-testid="paper"
      data-fresh={isFresh}
      // On paper nothing of the page stands before it.
      position={{ _print: 'absolute' }}
      top={{ _print: '0' }}
      left={{ _print: '0' }}
    >
      <Global
        styles={{
          '@page': { size: `${PAPERS[paper].name} portrait`, margin: 0 },
          '@media print': {
            'html, body': { background: 'white !important', minHeight: '0 !important' },
            '.numbers': { display: 'none' },
          },
        }}
      />
      {!isFresh && <Note>Not of the system as it is now yet; do not print this.</Note>}
      {pages.map((drawing, i) => (
        <Box
          key={i}
          data-testid="paper-page"
          width={{ base: `min(100%, ${width_mm}mm)`, _print: `${width_mm}mm` }}
          height={{ _print: `calc(${height_mm}mm - 1px)` }}
          boxShadow={{ base: 'md', _print: 'none' }}
          borderWidth={{ base: '1px', _print: '0' }}
          borderColor="rule"
          bg="white"
          css={{ '@media print': { breakAfter: i + 1 < pages.length ? 'page' : 'auto', overflow: 'hidden' } }}
        >
          <DrawingView drawing={drawing} isPaper />
        </Box>
      ))}
    </Box>
  );
}

function Note({ children }: { readonly children: ReactNode }) {
  return (
    <Box fontWeight="600" role="status">
      {children}
    </Box>
  );
}

function useHoles(paper: PaperKey): Content {
  const sides = useSides();
  const t = useTank();
  const reader = useReader();
  const { value, standing, reason } = useAnswer('sheets');
  if (!value) return { ...NOTHING, why: reason };
  if (!value.ok) return { ...NOTHING, why: value.error.detail };
  const blocks = holesSheet(value.value[t] ?? [], paper, writing(reader), sides);
  return { blocks: blocks.length > 0 ? [holesCaution, ...blocks] : [], isFresh: standing === 'fresh' };
}

function useCutting(): Content {
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const { value, fresh } = useOutcome('cuts', t);
  if (!value) return NOTHING;
  if (!value.ok) return { ...NOTHING, why: value.error.detail };
  return { blocks: cuttingSheet(system, t, value.value, writing(reader), reader), isFresh: fresh };
}

function useParts(): Content {
  const reader = useReader();
  const { lines, fresh } = useLines();
  return lines ? { blocks: partsSheet(lines.list, writing(reader)), isFresh: fresh } : NOTHING;
}

function useSchematicSheet(paper: PaperKey): Content {
  const system = useSystem();
  const schematic = useSchematic(false);
  const { fresh } = useLines();
  if (system.lines.length === 0) return { blocks: [], isFresh: true };
  if (!schematic) return NOTHING;
  const room = figureRoom(paper);
  const drawing = schematicDrawing(schematic.placed, 'Schematic of all circuits', undefined);
  const factor = Math.min(1, room.width_mm / drawing.width_mm, room.height_mm / drawing.height_mm);
  return {
    blocks: [
      { kind: 'heading', text: 'All circuits' },
      {
        kind: 'figure',
        drawing: scaledDrawing(drawing, factor),
        caption: 'Flows and pressures at the conditions that are set; not to scale.',
      },
      ...valvesTable(system),
    ],
    isFresh: fresh && schematic.isFresh,
  };
}

function useCorrection(): Content {
  const taught = useTaughtPoints();
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const { results, system: of } = useDetails();
  const first = system.tanks.slice(0, t).reduce((count, { senders }) => count + senders.length, 0);
  if (system.tanks[t]!.senders.length === 0) return { blocks: [], isFresh: true };
  if (!results) return NOTHING;
  if (!results.ok) return { ...NOTHING, why: results.error.detail };
  const { gauges } = results.evaluation;
  return {
    blocks: system.tanks[t]!.senders.flatMap(({ name }, s): readonly Block[] => {
      const gauge = gauges[first + s];
      if (!gauge) return [];
      return gauge.ok
        ? correctionSheet(gauge.value, name, taught, writing(reader))
        : [{ kind: 'text', text: `${name}: ${gauge.error.detail}`, isBold: true }];
    }),
    isFresh: of === system,
  };
}

const STEP_M = { metric: 0.01, us: 0.0127, imperial: 0.0127 } as const;

function useStrapping(): Content {
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const { value, fresh } = useOutcome('strapping', t, STEP_M[reader], 'mounted');
  if (!value) return NOTHING;
  if (!value.ok) return { ...NOTHING, why: value.error.detail };
  return {
    blocks: strappingSheet(value.value, system.tanks[t]!.name, 'As mounted, vehicle level', writing(reader)),
    isFresh: fresh,
  };
}

function useFindings(): Content {
  const reader = useReader();
  const { findings, notJudged, onTheWay, failed } = useJudged();
  return {
    blocks: findingsSheet(findings, { onTheWay, failed, notJudged: notJudged.length }, reader),
    isFresh: onTheWay.length === 0,
  };
}

function useMeasure(): Content {
  const system = useSystem();
  const reader = useReader();
  const { value, standing, reason } = useAnswer('spreads');
  if (!value) return { ...NOTHING, why: reason };
  return { blocks: measureSheet(system, value.influences, reader), isFresh: standing === 'fresh' };
}
