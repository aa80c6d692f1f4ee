'use client';

import { Box } from '@chakra-ui/react';
import { Global } from '@emotion/react';
import { Printer } from 'lucide-react';
import { useEffect, type ReactNode } from 'react';
import { pagesOf, PAPERS, type PaperKey } from '@/core/reports';
import { DrawingView } from '../drawing/DrawingView';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { readerLabel } from '../parts/ReaderPicker';
import { savedRevision, useSaveState } from '../state/autosave';
import { useSystem } from '../state/editor';
import { usePoursChoice } from '../gauge/taughtPoints';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';
import { TemplateOf } from '../fit/TemplatesPanel';
import { useTemplate, useTemplateChoice } from '../fit/useTemplate';
import { isSheet, SHEET_KEYS, usePaper, type SheetKey } from './choice';
import { SHEETS } from './contents';
import { SHEET_LABELS } from './labels';

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
            {sheet === 'template' && <FaceChoice />}
            {sheet === 'pours' && <LogChoice />}
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

function FaceChoice() {
  const sides = useSides();
  const { faces, template } = useTemplate();
  const { isOver } = useTemplateChoice();
  if (!faces || !template) return <TemplateOf />;
  return (
    <>
      <TemplateOf />
      <Select
        label="Face"
        value={template.name}
        options={faces.map(({ name }) => ({ value: name, label: sides(name) }))}
        onChange={(face) => useTemplateChoice.setState({ face })}
      />
      <Select
        label="Looked at"
        value={isOver ? 'over' : 'outside'}
        options={[
          { value: 'outside', label: 'from outside' },
          { value: 'over', label: 'turned over' },
        ]}
        onChange={(side) => useTemplateChoice.setState({ isOver: side === 'over' })}
      />
    </>
  );
}

function LogChoice() {
  const t = useTank();
  const { calibrations } = useSystem().tanks[t]!;
  const log = usePoursChoice((choice) => choice.log);
  if (calibrations.length < 2) return null;
  return (
    <Select
      label="Log"
      value={calibrations.find(({ id }) => id === log)?.id ?? calibrations[0]!.id}
      options={calibrations.map(({ id, name }) => ({ value: id, label: name }))}
      onChange={(chosen) => usePoursChoice.setState({ log: chosen })}
    />
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
      units: readerLabel(reader),
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
