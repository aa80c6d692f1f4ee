'use client';

import { Box, chakra } from '@chakra-ui/react';
import { lazy, Suspense, useEffect } from 'react';
import type { SystemDocument } from '@/core/plan';
import { ConditionsPanel } from '../conditions/ConditionsPanel';
import { NumbersBar } from '../numbers/NumbersBar';
import { markSaved, useAutosave } from '../state/autosave';
import { useOthersEdits } from '../state/useOthersEdits';
import { openSystem, useEditor } from '../state/editor';
import { useReaderStore } from '../state/reader';
import { DetailsProvider } from '../state/results';
import { forgetAnswers, useEvaluation } from '../state/answers';
import { chooseTank } from '../state/tankChoice';
import { useCommandBox } from './commandOpen';
import { ConflictPanel } from './ConflictPanel';
import { usePlace } from './goTo';
import { Guide } from './Guide';
import { LeavingQuestion } from './LeavingQuestion';
import { StageBody } from './StageBody';
import { StageRail } from './StageRail';
import { isStage } from './stages';
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

const CommandBox = lazy(() => import('./CommandBox').then(({ CommandBox: opened }) => ({ default: opened })));

/** Fetched when it is first asked for. */
function GoTo() {
  const isOpen = useCommandBox((state) => state.isOpen);
  return isOpen ? (
    <Suspense fallback={null}>
      <CommandBox />
    </Suspense>
  ) : null;
}

/** One open system: numbers on top, stages at the side, conditions beside them. */
export function Workspace({ id, document, revision, stage }: Props) {
  useEffect(() => {
    forgetAnswers();
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
      <Box minH={{ base: '100vh', _print: '0' }}>
        <chakra.a
          href="#work"
          position="absolute"
          left="2"
          top="-60px"
          zIndex="30"
          bg="accent"
          color="onAccent"
          px="4"
          py="3"
          borderRadius="md"
          fontWeight="650"
          _focus={{ top: '2' }}
        >
          Skip to the work
        </chakra.a>
        <GoTo />
        <Box display={{ base: 'contents', lg: 'block' }} position="sticky" top="0" zIndex="10">
          <TopBar />
          <Box position={{ base: 'sticky', lg: 'static' }} top="0" zIndex="10">
            <NumbersBar />
          </Box>
          <Guide id={id} />
        </Box>
        <Box
          display="grid"
          gridTemplateColumns={{ base: '1fr', lg: '150px minmax(0, 1fr) 264px' }}
          gap={{ base: '3', lg: '4' }}
          p={{ base: '3', lg: '4' }}
          alignItems="start"
        >
          <StageRail />
          <Box as="main" id="work" tabIndex={-1} minW="0" order={{ base: 3, lg: 0 }}>
            <LeavingQuestion />
            <ConflictPanel />
            <UnsavedWork id={id} document={document} />
            <StageBody />
          </Box>
          <Box
            position={{ base: 'static', lg: 'sticky' }}
            top="216px"
            maxH={{ lg: 'calc(100vh - 232px)' }}
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
