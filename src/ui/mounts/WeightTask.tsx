'use client';

import { Box } from '@chakra-ui/react';
import { withTankMoved, type StanceDocument } from '@/core/plan';
import { type Vec3 } from '@/core/geometry';
import { type GripProps } from '../drawing/DrawingView';
import { dragging } from '../drawing/grips';
import { draggedBy, keyedBy } from './dragged';
import { Drawn } from '../fit/FitViews';
import { Beside } from '../parts/Beside';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { useAnswer, useOutcome } from '../state/answers';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { newStance } from './newStance';
import { StanceFields } from './StanceFields';
import { Headline } from './StandHeadline';
import { OnAxles, Lies } from './StandTables';
import { Elsewhere } from './StandElsewhere';

/** What the tanks do to the axles, or to how the boat lies, and where they would stand better. */
export function WeightTask() {
  const system = useSystem();
  const { stance } = system;
  if (!stance || !(stance.hull || (stance.axles ?? []).length > 0)) return <Ask />;
  return (
    <Beside
      picture={
        <>
          <Results stance={stance} />
          <Picture stance={stance} />
        </>
      }
    >
      <StanceFields stance={stance} />
    </Beside>
  );
}

function Ask() {
  const system = useSystem();
  const isBoat = system.vehicle.kind === 'boat';
  return (
    <Panel title="What it stands on" testId="stance">
      <Box maxW="70ch" mb="3">
        {isBoat
          ? 'With her displacement, how steady she is and her breadth along the waterline, Gas Line works out how the full, half full and empty tanks trim and list her.'
          : 'With what each axle bears and where it is, Gas Line works out what the full, half full and empty tanks put on each axle and side, and on the coupling.'}
      </Box>
      <Box display="flex" gap="2" flexWrap="wrap">
        {(isBoat ? (['hull', 'axles'] as const) : (['axles', 'hull'] as const)).map((on) => (
          <Button key={on} onClick={() => setValue('what it stands on', ['stance'], newStance(system, on))}>
            {on === 'hull' ? 'Say how she floats' : 'Say what its axles bear'}
          </Button>
        ))}
      </Box>
    </Panel>
  );
}

function Results({ stance }: { readonly stance: StanceDocument }) {
  const { value: stands, standing, reason } = useAnswer('stands');
  return (
    <Panel title="What the tanks do" testId="stands">
      {stands?.ok ? (
        <Box opacity={standing === 'fresh' ? 1 : 0.6} data-fresh={standing === 'fresh'}>
          <Headline stance={stance} stands={stands.value} />
          {(stance.axles ?? []).length > 0 && <OnAxles stance={stance} stands={stands.value} />}
          {stance.hull && <Lies stands={stands.value} />}
          <Elsewhere stance={stance} stands={stands.value} />
          <Box color="soft" mt="3" maxW="75ch">
            Tanks, what is in them and what is said to hang on them: other mounts, lines and people are not counted.
            {(stance.axles ?? []).length > 0 && ' Standing level; braking and slopes put more on one end.'}
            {stance.hull && ' Small leans of sides that are upright at the waterline.'}
          </Box>
        </Box>
      ) : reason !== undefined || stands ? (
        <NotWorkedOut why={reason ?? (stands && !stands.ok ? stands.error.detail : '')} />
      ) : (
        <Box color="soft">Working out what it stands on…</Box>
      )}
    </Panel>
  );
}

/** The tanks over what bears them: drawn along and across, the numbers follow. */
function Picture({ stance }: { readonly stance: StanceDocument }) {
  const system = useSystem();
  const { value: drawing, fresh } = useOutcome('standDrawing');
  const mayMove = stance.weighed === 'without';
  const gripOf = (id: string, name: string, view: 'side' | 'end' | 'plan', mmPerM: number): GripProps | undefined => {
    const t = system.tanks.findIndex((tank) => tank.id === id);
    if (t < 0 || !mayMove) return undefined;
    const edit = `move ${name}`;
    const nudge = (by: Vec3): void => applyEdit(edit, (current) => withTankMoved(current, t, by));
    return {
      role: 'button',
      tabIndex: 0,
      'aria-label': `${name}: move with the arrow keys`,
      style: { cursor: 'grab', touchAction: 'none', outlineWidth: '0.7px', outlineOffset: '0.4px' },
      onPointerDown: dragging(edit, (before, [right, down]) => {
        // Its height stays.
        const [x, y] = draggedBy(view, right, down, mmPerM);
        return withTankMoved(before, t, [x, y, 0]);
      }),
      onKeyDown: (event) => {
        const by = event.altKey ? undefined : keyedBy(event);
        if (!by) return;
        event.preventDefault();
        nudge(by);
      },
    };
  };
  return (
    <Panel title="Where they stand" testId="stand-picture">
      {drawing?.ok ? (
        <Box opacity={fresh ? 1 : 0.6}>
          <Drawn
            seen={drawing.value}
            gap={undefined}
            moving={undefined}
            title="Tanks with what bears them: side, end and plan to one scale"
            gripOf={gripOf}
          />
          <Box color="soft" mt="2">
            {mayMove && 'Draw a tank along or across, or use the arrow keys: its mounts go with it. '}
            Wheels are drawn for their place alone.
          </Box>
        </Box>
      ) : (
        <Box color={drawing ? 'stop' : 'soft'} role={drawing ? 'alert' : undefined}>
          {drawing ? drawing.error.detail : 'Drawing…'}
        </Box>
      )}
      <Box mt="3">
        <Caution>
          Ratings of axles, tyres, couplings and hulls are the makers’; road and boat law decide. Lift a full tank only
          with gear and people that are licensed for it.
        </Caution>
      </Box>
    </Panel>
  );
}
