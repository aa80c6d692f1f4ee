'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { feedPath } from '@/core/plan';
import { Select } from '../fields/Select';
import { Beside } from '../parts/Beside';
import { Panel } from '../parts/Panel';
import { useSystem } from '../state/editor';
import { usePlace, useTask } from '../workspace/goTo';
import { AnswersPanel } from './AnswersPanel';
import { loadCatalogue } from './catalogue';
import { CataloguePanel } from './CataloguePanel';
import { useChosenPart } from './chosenPart';
import { CircuitsPanel } from './CircuitsPanel';
import { ComponentPanel } from './ComponentPanel';
import { ConsumerPanel } from './ConsumerPanel';
import { CostPanel } from './CostPanel';
import { ExpelledPanel } from './ExpelledPanel';
import { JointsPanel } from './JointsPanel';
import { LinePanel } from './LinePanel';
import { ListsPanel } from './ListsPanel';
import { MixUpsPanel } from './MixUpsPanel';
import { PassingPanel } from './PassingPanel';
import { PumpChart } from './PumpChart';
import { RunPanel } from './RunPanel';
import { SchematicPanel } from './SchematicPanel';
import { SizePanel } from './SizePanel';
import { SpillPanel } from './SpillPanel';

/** Whether the fuel gets there: first the answer, then the circuits, then what can be done about them. */
export function LinesStage() {
  const system = useSystem();
  const task = useTask('lines');
  const [asked, setAsked] = useState(0);
  useChosenFromPlace(setAsked);
  useEffect(() => {
    void loadCatalogue();
  }, []);
  const k = Math.max(0, Math.min(asked, system.consumers.length - 1));
  const isOfConsumer = task === 'delivery' || task === 'sizing';
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      {isOfConsumer && system.consumers.length > 1 && (
        <Box maxW="420px">
          <Select
            label="Does the fuel get to"
            value={String(k)}
            options={system.consumers.map(({ name }, i) => ({ value: String(i), label: name }))}
            onChange={(value) => setAsked(Number(value))}
          />
        </Box>
      )}
      <TaskBody task={task} k={k} />
    </Box>
  );
}

function TaskBody({ task, k }: { readonly task: string | undefined; readonly k: number }) {
  const isFed = useSystem().consumers.length > 0;
  switch (task) {
    case 'schematic':
      return (
        <Beside picture={<SchematicPanel />}>
          <ChosenPanel k={k} />
        </Beside>
      );
    case 'runs':
      return (
        <Beside picture={<RunPanel />}>
          <ChosenPanel k={k} />
        </Beside>
      );
    case 'sizing':
      return !isFed ? (
        <NothingFed />
      ) : (
        <>
          <SizePanel />
          <PumpChart k={k} />
        </>
      );
    case 'circuits':
      return <CircuitsPanel />;
    case 'failure':
      return <SpillPanel />;
    case 'passing':
      return <PassingPanel />;
    case 'joints':
      return <JointsPanel />;
    case 'shopping':
      return (
        <>
          <ListsPanel />
          <MixUpsPanel />
          <CataloguePanel />
        </>
      );
    default:
      return !isFed ? (
        <>
          <ExpelledPanel />
          <NothingFed />
        </>
      ) : (
        <>
          <AnswersPanel k={k} />
          <CostPanel k={k} />
          <ConsumerPanel index={k} />
          <ExpelledPanel />
        </>
      );
  }
}

/** Said where a plan has nobody to feed. */
const NothingFed = () => <Panel title="Feed">Nothing is fed from this plan.</Panel>;

/** A finding that leads to a line, a part or a consumer opens it. */
function useChosenFromPlace(ask: (k: number) => void): void {
  const system = useSystem();
  const { path, asked } = usePlace();
  const choose = useChosenPart((state) => state.choose);
  useEffect(() => {
    const [list, index] = (path ?? '').split('.');
    if (list === 'consumers') ask(Number(index));
    const part =
      list === 'lines'
        ? system.lines[Number(index)]
        : list === 'components'
          ? system.components[Number(index)]
          : undefined;
    if (part) choose(part.id);
    // Only a new place moves the choice, not every edit.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);
}

/** The part or line that is looked at; the first line of the feed where none is. */
function ChosenPanel({ k }: { readonly k: number }) {
  const system = useSystem();
  const chosen = useChosenPart((state) => state.id);
  const consumer = system.consumers[k];
  const path = consumer ? feedPath(system, consumer.id) : [];
  const known = [...system.lines, ...system.components].some(({ id }) => id === chosen);
  const id = known ? chosen : (path.at(-2) ?? system.lines[0]?.id);
  const l = system.lines.findIndex((line) => line.id === id);
  const c = system.components.findIndex((part) => part.id === id);
  if (l >= 0) return <LinePanel key={id} index={l} />;
  return c >= 0 ? <ComponentPanel key={id} index={c} /> : null;
}
