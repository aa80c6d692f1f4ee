'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { feedPath } from '@/core/plan';
import { Select } from '../fields/Select';
import { StageFindings } from '../findings/FindingsView';
import { Panel } from '../parts/Panel';
import { useSystem } from '../state/editor';
import { ContactPanel } from '../tank/ContactPanel';
import { usePlace } from '../workspace/goTo';
import { AnswersPanel } from './AnswersPanel';
import { loadCatalogue } from './catalogue';
import { CataloguePanel } from './CataloguePanel';
import { useChosenPart } from './chosenPart';
import { CircuitsPanel } from './CircuitsPanel';
import { ComponentPanel } from './ComponentPanel';
import { ConsumerPanel } from './ConsumerPanel';
import { CostPanel } from './CostPanel';
import { JointsPanel } from './JointsPanel';
import { LinePanel } from './LinePanel';
import { ListsPanel } from './ListsPanel';
import { PassingPanel } from './PassingPanel';
import { PumpChart } from './PumpChart';
import { RunPanel } from './RunPanel';
import { SchematicPanel } from './SchematicPanel';
import { SizePanel } from './SizePanel';
import { SpillPanel } from './SpillPanel';

/** Whether the fuel gets there: first the answer, then the circuits, then what can be done about them. */
export function LinesStage() {
  const system = useSystem();
  const [asked, setAsked] = useState(0);
  useChosenFromPlace();
  useEffect(() => {
    void loadCatalogue();
  }, []);
  if (system.consumers.length === 0) return <Panel title="Lines">Nothing burns the fuel yet.</Panel>;
  const k = Math.min(asked, system.consumers.length - 1);
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      {system.consumers.length > 1 && (
        <Box maxW="420px">
          <Select
            label="Does the fuel get to"
            value={String(k)}
            options={system.consumers.map(({ name }, i) => ({ value: String(i), label: name }))}
            onChange={(value) => setAsked(Number(value))}
          />
        </Box>
      )}
      <AnswersPanel k={k} />
      <SchematicPanel />
      <RunPanel />
      <ChosenPanel k={k} />
      <CostPanel k={k} />
      <SizePanel />
      <PumpChart k={k} />
      <ConsumerPanel index={k} />
      <JointsPanel />
      <PassingPanel />
      <SpillPanel />
      <CircuitsPanel />
      <ListsPanel />
      <CataloguePanel />
      <ContactPanel title="What touches the fuel on the way" groups={['hose', 'plastic', 'metal', 'sealant', 'tie']} />
      <StageFindings stage="lines" />
    </Box>
  );
}

/** A finding that leads to a line or a part opens it. */
function useChosenFromPlace(): void {
  const system = useSystem();
  const path = usePlace((place) => place.path);
  const choose = useChosenPart((state) => state.choose);
  useEffect(() => {
    const [list, index] = (path ?? '').split('.');
    const part =
      list === 'lines'
        ? system.lines[Number(index)]
        : list === 'components'
          ? system.components[Number(index)]
          : undefined;
    if (part) choose(part.id);
    // Only a new place moves the choice, not every edit.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [path]);
}

/** The part or line that is looked at; the first line of the feed where none is. */
function ChosenPanel({ k }: { readonly k: number }) {
  const system = useSystem();
  const chosen = useChosenPart((state) => state.id);
  const path = feedPath(system, system.consumers[k]!.id);
  const known = [...system.lines, ...system.components].some(({ id }) => id === chosen);
  const id = known ? chosen : (path.at(-2) ?? system.lines[0]?.id);
  const l = system.lines.findIndex((line) => line.id === id);
  const c = system.components.findIndex((part) => part.id === id);
  if (l >= 0) return <LinePanel key={id} index={l} />;
  return c >= 0 ? <ComponentPanel key={id} index={c} /> : null;
}
