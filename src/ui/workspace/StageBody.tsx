'use client';

import { Box } from '@chakra-ui/react';
import { lazy, Suspense, useEffect, type ComponentType } from 'react';
import type { Stage } from '@/core/rules';
import { TaskFindings } from '../findings/FindingsView';
import { useValue } from '../state/editor';
import { loadCharts } from '../charts/LineChart';
import { loadPacking } from '../state/sending';
import { OTHERS_AFTER_MS } from './ahead';
import { OPENING, usePlace, useTask } from './goTo';
import { ACROSS, STAGES, type StageKey } from './stages';
import { TASKS, tasksOf } from './tasks';

type Loaded = { readonly default: ComponentType };

const notThere = (): Loaded => ({
  default: () => (
    <Box color="stop" fontWeight="600" role="alert">
      This part of the page could not be loaded, since the server does not answer. What you have entered is kept; reload
      the page when it does.
    </Box>
  ),
});

const loading = (load: () => Promise<ComponentType>) => (): Promise<Loaded> =>
  load().then((stage) => ({ default: stage }), notThere);

/** Each stage comes by itself, so that the numbers need not wait for those that nobody looks at. */
const LOAD: Readonly<Record<StageKey, () => Promise<Loaded>>> = {
  fit: loading(() => import('../fit/FitStage').then(({ FitStage }) => FitStage)),
  tank: loading(() => import('../tank/TankStage').then(({ TankStage }) => TankStage)),
  ports: loading(() => import('../ports/PortsStage').then(({ PortsStage }) => PortsStage)),
  lines: loading(() => import('../lines/LinesStage').then(({ LinesStage }) => LinesStage)),
  vents: loading(() => import('../vents/VentsStage').then(({ VentsStage }) => VentsStage)),
  gauge: loading(() => import('../gauge/GaugeStage').then(({ GaugeStage }) => GaugeStage)),
  range: loading(() => import('../range/RangeStage').then(({ RangeStage }) => RangeStage)),
  mounts: loading(() => import('../mounts/MountsStage').then(({ MountsStage }) => MountsStage)),
  findings: loading(() => import('../findings/FindingsView').then(({ FindingsView }) => FindingsView)),
  measure: loading(() => import('../measure/MeasureNext').then(({ MeasureNext }) => MeasureNext)),
  paper: loading(() => import('../paper/PaperStage').then(({ PaperStage }) => PaperStage)),
};

const BODIES: Readonly<Record<StageKey, ComponentType>> = {
  fit: lazy(LOAD.fit),
  tank: lazy(LOAD.tank),
  ports: lazy(LOAD.ports),
  lines: lazy(LOAD.lines),
  vents: lazy(LOAD.vents),
  gauge: lazy(LOAD.gauge),
  range: lazy(LOAD.range),
  mounts: lazy(LOAD.mounts),
  findings: lazy(LOAD.findings),
  measure: lazy(LOAD.measure),
  paper: lazy(LOAD.paper),
};

const isOfWork = (stage: StageKey): stage is Stage => stage in TASKS;

export function StageBody() {
  const stage = usePlace((place) => place.stage);
  const task = useTask(stage);
  useEffect(() => {
    const timer = setTimeout(() => {
      Object.values(LOAD).forEach((load) => void load());
      void import('./CommandBox').catch(() => undefined);
      void loadPacking();
      void loadCharts().catch(() => undefined);
    }, OTHERS_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  const name = useValue((system) => system.name);
  const { label } = [...STAGES, ...ACROSS].find(({ key }) => key === stage)!;
  const title = tasksOf(stage).find(({ key }) => key === task)?.label ?? label;
  useEffect(() => {
    document.title = `${title}, ${name} · Gas Line`;
  }, [title, name]);
  const Body = BODIES[stage];
  return (
    <>
      {isOfWork(stage) && <TaskFindings stage={stage} task={task} />}
      <Suspense
        fallback={
          <Box color="soft" role="status" data-testid={OPENING}>
            Opening…
          </Box>
        }
      >
        <Body />
      </Suspense>
    </>
  );
}
