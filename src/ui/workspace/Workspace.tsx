'use client';

import { Box } from '@chakra-ui/react';
import { useEffect } from 'react';
import type { SystemDocument } from '@/core/document';
import { ConditionsPanel } from '../conditions/ConditionsPanel';
import { FindingsView } from '../findings/FindingsView';
import { FitStage } from '../fit/FitStage';
import { GaugeStage } from '../gauge/GaugeStage';
import { LinesStage } from '../lines/LinesStage';
import { MeasureNext } from '../measure/MeasureNext';
import { NumbersBar } from '../numbers/NumbersBar';
import { PortsStage } from '../ports/PortsStage';
import { RangeStage } from '../range/RangeStage';
import { markSaved, useAutosave } from '../state/autosave';
import { useOthersEdits } from '../state/useOthersEdits';
import { openSystem, useEditor } from '../state/editor';
import { useReaderStore } from '../state/reader';
import { DetailsProvider, forgetResults, useEvaluation } from '../state/results';
import { chooseTank } from '../state/tankChoice';
import { TankStage } from '../tank/TankStage';
import { VentsStage } from '../vents/VentsStage';
import { ConflictPanel } from './ConflictPanel';
import { usePlace } from './goTo';
import { LeavingQuestion } from './LeavingQuestion';
import { StageRail } from './StageRail';
import { isStage, type StageKey } from './stages';
import { TopBar } from './TopBar';
import { UnsavedWork } from './UnsavedWork';
import { useKeptTyping } from './useKeptTyping';
import { useShortcuts } from './useShortcuts';

type Props = {
  readonly id: string;
  readonly document: SystemDocument;
  readonly revision: number;
  readonly stage: string | null;
};

/** One open system: numbers on top, stages at the side, conditions beside them. */
export function Workspace({ id, document, revision, stage }: Props) {
  useEffect(() => {
    forgetResults();
    openSystem(id, document);
    chooseTank(0);
    markSaved(id, document, revision);
    usePlace.setState({ stage: isStage(stage) ? stage : 'tank', path: undefined });
    void useReaderStore.persist.rehydrate();
    // A later render with the same id carries the same document: only opening counts.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  const isOpen = useEditor((state) => state.id === id && state.system !== undefined);
  useEvaluation();
  useAutosave();
  useOthersEdits(id);
  useKeptTyping(id);
  useShortcuts();
  if (!isOpen)
    return (
      <Box p="8" color="soft" role="status">
        Opening {document.name}…
      </Box>
    );
  return (
    <DetailsProvider>
      <Box minH="100vh">
        <Box display={{ base: 'contents', lg: 'block' }} position="sticky" top="0" zIndex="10">
          <TopBar />
          <Box position={{ base: 'sticky', lg: 'static' }} top="0" zIndex="10">
            <NumbersBar />
          </Box>
        </Box>
        <Box
          display="grid"
          gridTemplateColumns={{ base: '1fr', lg: '150px minmax(0, 1fr) 264px' }}
          gap={{ base: '3', lg: '4' }}
          p={{ base: '3', lg: '4' }}
          alignItems="start"
        >
          <StageRail />
          <Box as="main" minW="0" order={{ base: 3, lg: 0 }}>
            <LeavingQuestion />
            <ConflictPanel />
            <UnsavedWork id={id} document={document} />
            <StageBody />
          </Box>
          <Box
            position={{ base: 'static', lg: 'sticky' }}
            top="180px"
            maxH={{ lg: 'calc(100vh - 196px)' }}
            overflowY={{ lg: 'auto' }}
            className="no-print"
          >
            <ConditionsPanel />
          </Box>
        </Box>
      </Box>
    </DetailsProvider>
  );
}

const BODIES: Readonly<Record<StageKey, () => React.ReactNode>> = {
  fit: () => <FitStage />,
  tank: () => <TankStage />,
  ports: () => <PortsStage />,
  lines: () => <LinesStage />,
  vents: () => <VentsStage />,
  gauge: () => <GaugeStage />,
  range: () => <RangeStage />,
  findings: () => <FindingsView />,
  measure: () => <MeasureNext />,
};

function StageBody() {
  const stage = usePlace((place) => place.stage);
  return BODIES[stage]();
}
