'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import type { FitGap } from '@/core/answers';
import { KnownField } from '../fields/KnownField';
import { Beside } from '../parts/Beside';
import { FieldGrid, Panel } from '../parts/Panel';
import { useSides } from '../state/sides';
import { useAnswer } from '../state/answers';
import { useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';
import { useTask } from '../workspace/goTo';
import { BayPanel } from './BayPanel';
import { BuiltPanel } from './BuiltPanel';
import { ConstraintsPanel } from './ConstraintsPanel';
import { FitViews, type Moving } from './FitViews';
import { GapsPanel } from './GapsPanel';
import { ObstaclesPanel } from './ObstaclesPanel';
import { ReachPanel } from './ReachPanel';
import { SheetPanel } from './SheetPanel';
import { SizePanel } from './SizePanel';
import { TemplatesPanel } from './TemplatesPanel';
import { WayPanel } from './WayPanel';

/** Whether the tank fits, how big it could be, and how it gets in and out. */
export function FitStage() {
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      <TaskBody />
    </Box>
  );
}

function TaskBody() {
  switch (useTask('fit')) {
    case 'bay':
      return (
        <Beside share="1fr 2fr" picture={<Space />}>
          <BayPanel />
        </Beside>
      );
    case 'obstacles':
      return (
        <Beside picture={<Space />}>
          <ObstaclesPanel />
        </Beside>
      );
    case 'size':
      return (
        <>
          <SizePanel />
          <ConstraintsPanel />
        </>
      );
    case 'removal':
      return <Removal />;
    case 'reach':
      return <ReachPanel />;
    case 'templates':
      return <TemplatesPanel />;
    case 'measure-up':
      return <SheetPanel />;
    case 'built':
      return <BuiltPanel />;
    default:
      return <Clearance />;
  }
}

function Space({ gap, moving }: { readonly gap?: FitGap | undefined; readonly moving?: Moving | undefined }) {
  return (
    <Panel title="The space, to scale">
      <FitViews gap={gap} moving={moving} />
    </Panel>
  );
}

function Clearance() {
  const t = useTank();
  const sides = useSides();
  const [chosen, setChosen] = useState<string>();
  const { value: outcome } = useAnswer('clearances');
  const fit = outcome?.ok ? outcome.value.tanks[t] : undefined;
  const gap = fit?.gaps.find(({ to }) => to === chosen) ?? fit?.gaps[0];
  const at = (key: string) => ['tanks', t, 'mounting', key];
  return (
    <Beside picture={<Space gap={gap} />}>
      <GapsPanel fit={fit} gap={gap} onChoose={setChosen} />
      <Panel title="Where the tank stands">
        <FieldGrid>
          <KnownField label={sides('Aft end, forward of the datum')} path={at('x_m')} />
          <KnownField label={sides('Starboard side, to port of the datum')} path={at('y_m')} />
          <KnownField label="Floor, above the datum" path={at('z_m')} />
          <KnownField label={sides('Turned to port')} path={at('yaw_deg')} />
        </FieldGrid>
      </Panel>
    </Beside>
  );
}

function Removal() {
  const [moving, setMoving] = useState<Moving>();
  return (
    <Beside picture={<Space moving={moving} />}>
      <WayPanel onMoving={setMoving} />
    </Beside>
  );
}
