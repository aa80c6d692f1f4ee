'use client';

import { Box } from '@chakra-ui/react';
import { feedPath } from '@/core/document';
import { StageFindings } from '../findings/FindingsView';
import { Panel } from '../parts/Panel';
import { ContactPanel } from '../tank/ContactPanel';
import { useSystem } from '../state/editor';
import { ConsumerPanel } from './ConsumerPanel';
import { LinePanel } from './LinePanel';
import { ComponentPanel } from './ComponentPanel';
import { PumpChart } from './PumpChart';
import { RunStrip } from './RunStrip';

/** The feed from pickup to consumer, part by part, in the order of flow. */
export function LinesStage() {
  const system = useSystem();
  const consumer = system.consumers[0];
  if (!consumer) return <Panel title="Lines">Nothing burns the fuel yet.</Panel>;
  const path = feedPath(system, consumer.id).reverse();
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <RunStrip path={path} />
      <PumpChart />
      <ConsumerPanel index={0} />
      {path.map((id) => {
        const l = system.lines.findIndex((line) => line.id === id);
        const c = system.components.findIndex((part) => part.id === id);
        if (l >= 0) return <LinePanel key={id} index={l} />;
        return c >= 0 ? <ComponentPanel key={id} index={c} /> : null;
      })}
      <ContactPanel title="What touches the fuel on the way" groups={['hose', 'plastic', 'metal', 'sealant', 'tie']} />
      <StageFindings stage="lines" />
    </Box>
  );
}
