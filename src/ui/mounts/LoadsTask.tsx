'use client';

import { Box } from '@chakra-ui/react';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { useAnswer } from '../state/answers';
import { useTank } from '../state/tankChoice';
import { PressedPanel } from './PressedPanel';
import { ShocksPanel } from './ShocksPanel';

/** How hard the tank is thrown, and what its liquid does to it then. */
export function LoadsTask() {
  const t = useTank();
  const { value: mounts, standing, reason } = useAnswer('mounts');
  const shell = mounts?.ok ? mounts.value.shells.find(({ tanks }) => tanks.includes(t)) : undefined;
  const why = reason ?? (mounts?.ok === false ? mounts.error.detail : undefined);
  return (
    <>
      <ShocksPanel />
      {shell ? (
        <Box opacity={standing === 'fresh' ? 1 : 0.6}>
          <PressedPanel shell={shell} t={t} />
        </Box>
      ) : (
        <Panel title="What its liquid presses" testId="pressed">
          {why === undefined ? <Box color="soft">Working out what it presses…</Box> : <NotWorkedOut why={why} />}
        </Panel>
      )}
    </>
  );
}
