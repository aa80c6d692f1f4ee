'use client';

import { Box, chakra } from '@chakra-ui/react';
import { lazy, Suspense, useEffect, useRef, type ReactNode } from 'react';
import type { Card } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import type { Reader } from '@/core/units';
import { ConditionsPanel } from '../conditions/ConditionsPanel';
import { KeptNumbers } from '../numbers/KeptNumbers';
import { NumbersBar } from '../numbers/NumbersBar';
import { CardKeeper } from '../numbers/CardKeeper';
import { Mark } from '../parts/Mark';
import { useKeptFocus } from '../parts/keptFocus';
import { markSaved, useAutosave } from '../state/autosave';
import { useOthersEdits } from '../state/useOthersEdits';
import { openSystem, useEditor } from '../state/editor';
import { useKept } from '../state/keptCard';
import { useReaderStore } from '../state/reader';
import { DetailsProvider } from '../state/results';
import { forgetAnswers, useEvaluation } from '../state/answers';
import { wakeNumbers } from '../state/lanes';
import { chooseTank } from '../state/tankChoice';
import { useCommandBox } from './commandOpen';
import { ConflictPanel } from './ConflictPanel';
import { OPENING, openAddress, usePlace, useTask } from './goTo';
import { Guide } from './Guide';
import { LeavingQuestion } from './LeavingQuestion';
import { StageBody } from './StageBody';
import { StageRail } from './StageRail';
import { actsOn } from './tasks';
import { TopBar, TopFrame } from './TopBar';
import { UnsavedWork } from './UnsavedWork';
import { useKeptTyping } from './useKeptTyping';
import { useShortcuts } from './useShortcuts';

type Props = {
  readonly id: string;
  readonly document: SystemDocument;
  readonly revision: number;
  /** What this build worked out of the document before, where it did. */
  readonly card: Card | undefined;
  /** The units that the page was asked for in. */
  readonly reader: Reader;
};

/** Whether a card has all that a page knows of a system: the library works out no spreads. */
const isWhole = ({ numbers }: Card): boolean =>
  numbers.every(({ spread, hasNoSpread }) => spread !== undefined || hasNoSpread === true);

// What works out the numbers loads while the page does.
wakeNumbers();

const CommandBox = lazy(() => import('./CommandBox').then(({ CommandBox: opened }) => ({ default: opened })));

/** Fetched with the other stages, or when it is asked for before. */
function GoTo() {
  const isOpen = useCommandBox((state) => state.isOpen);
  return isOpen ? (
    <Suspense fallback={null}>
      <CommandBox />
    </Suspense>
  ) : null;
}

/** The browser's own ways back and forward lead from place to place. */
function useWayBack(): void {
  useEffect(() => {
    const open = (): void => openAddress(window.location.search);
    window.addEventListener('popstate', open);
    return () => window.removeEventListener('popstate', open);
  }, []);
}

/** The conditions, as far as they act on what is open. */
function Conditions() {
  const stage = usePlace((place) => place.stage);
  return <ConditionsPanel acts={actsOn(stage, useTask(stage))} />;
}

function Work({ children }: { readonly children: ReactNode }) {
  const ref = useRef<HTMLDivElement>(null);
  useKeptFocus(ref);
  return (
    <Box ref={ref} as="main" id="work" tabIndex={-1} minW="0" order={{ base: 3, lg: 0 }}>
      {children}
    </Box>
  );
}

/** One open system: numbers on top, stages and their tasks at the side, conditions over the work. */
export function Workspace({ id, document, revision, card, reader }: Props) {
  useEffect(() => {
    forgetAnswers();
    useKept.setState({ of: document, card });
    openSystem(id, document);
    chooseTank(0);
    markSaved(id, document, revision);
    usePlace.setState({ tasks: {} });
    openAddress(window.location.search);
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
  useWayBack();
  if (!isOpen)
    return (
      <>
        <TopFrame>
          <Mark isShort />
          <Box fontWeight="650">{document.name}</Box>
        </TopFrame>
        {card && card.fails === undefined && <KeptNumbers system={document} card={card} reader={reader} />}
        <Box p="8" color="soft" role="status" data-testid={OPENING}>
          Opening…
        </Box>
      </>
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
        <CardKeeper id={id} of={card && isWhole(card) ? document : undefined} />
        <Box display={{ base: 'contents', lg: 'block' }} position="sticky" top="0" zIndex="10">
          <TopBar />
          <Box position={{ base: 'sticky', lg: 'static' }} top="0" zIndex="10">
            <NumbersBar />
          </Box>
          <Guide id={id} />
        </Box>
        <Box
          display="grid"
          gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: '168px minmax(0, 1fr)' }}
          gap={{ base: '2', lg: '4' }}
          px={{ base: '3', lg: '4' }}
          pt={{ base: '2', lg: '4' }}
          pb={{ base: '84px', lg: '4', _print: '0' }}
          alignItems="start"
        >
          <StageRail />
          <Work>
            <LeavingQuestion />
            <ConflictPanel />
            <UnsavedWork id={id} document={document} />
            <Conditions />
            <StageBody />
          </Work>
        </Box>
      </Box>
    </DetailsProvider>
  );
}
