'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import type { FitGap } from '@/core/answers';
import { StageFindings } from '../findings/FindingsView';
import { Panel } from '../parts/Panel';
import { useAnswer } from '../state/answers';
import { useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';
import { BayPanel } from './BayPanel';
import { BuiltPanel } from './BuiltPanel';
import { ConstraintsPanel } from './ConstraintsPanel';
import { FitViews, type Moving } from './FitViews';
import { GapsPanel } from './GapsPanel';
import { ReachPanel } from './ReachPanel';
import { SheetPanel } from './SheetPanel';
import { SizePanel } from './SizePanel';
import { TemplatesPanel } from './TemplatesPanel';
import { ObstaclesPanel } from './ObstaclesPanel';
import { WayPanel } from './WayPanel';

/** Whether the tank fits, how big it could be, and how it gets in and out. */
export function FitStage() {
  const t = useTank();
  const [chosen, setChosen] = useState<string>();
  const [moving, setMoving] = useState<Moving>();
  const { value: outcome } = useAnswer('clearances');
  const fit = outcome?.ok ? outcome.value.tanks[t] : undefined;
  const gap: FitGap | undefined = fit?.gaps.find(({ to }) => to === chosen) ?? fit?.gaps[0];
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      <GapsPanel fit={fit} gap={gap} onChoose={setChosen} />
      <Panel title="The space, to scale">
        <FitViews gap={moving ? undefined : gap} moving={moving} />
      </Panel>
      <WayPanel onMoving={setMoving} />
      <ReachPanel />
      <SizePanel />
      <BayPanel />
      <ObstaclesPanel />
      <SheetPanel />
      <TemplatesPanel />
      <BuiltPanel />
      <ConstraintsPanel />
      <StageFindings stage="fit" />
    </Box>
  );
}
