'use client';

import { Box } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { differences } from '@/core/plan';
import { plainName } from '@/core/formats';
import { DifferenceList } from '../compare/DifferenceRows';
import { createOnServer } from '../library/serverSystems';
import { Button } from '../parts/Button';
import { settleConflict, useSaveState } from '../state/autosave';
import { openDocument, useSystem } from '../state/editor';
import { Asks } from './Asks';

/** Two devices changed the same place: what each has, and the choice. Nothing is overwritten before it is made. */
export function ConflictPanel() {
  const conflict = useSaveState((shown) => shown.conflict);
  const mine = useSystem();
  const router = useRouter();
  const [fault, setFault] = useState('');
  if (!conflict) return null;
  const { theirs, places, detail } = conflict;
  const all = differences(theirs, mine);
  const within = all.filter(({ path }) =>
    places.some(
      (place) =>
        place.every((key, i) => String(path[i]) === String(key)) ||
        path.every((key, i) => String(place[i]) === String(key)),
    ),
  );
  const saveCopy = async (): Promise<void> => {
    const system = openDocument();
    const made = await createOnServer({ ...system, name: `${plainName(system.name, 70)} (mine)` });
    if (!made.ok) return setFault(made.detail);
    settleConflict('theirs');
    router.push(`/systems/${made.id}`);
  };
  return (
    <Asks kind="stop" testId="conflict">
      <Box fontWeight="700">
        Another device changed this system at the same time.{' '}
        {detail ? `Both together do not go: ${detail}` : 'You both changed:'}
      </Box>
      <Box mt="2">
        <Box
          fontSize="sm"
          color="soft"
          display={{ base: 'none', md: 'grid' }}
          gridTemplateColumns="1.3fr 1fr 1fr"
          columnGap="3"
        >
          <span>What</span>
          <span>On the other device</span>
          <span>Here</span>
        </Box>
        <DifferenceList found={within.length > 0 ? within : all} before={theirs} after={mine} />
      </Box>
      {fault && (
        <Box mt="2" color="stop" fontWeight="600">
          {fault}
        </Box>
      )}
      <Box display="flex" gap="2" mt="3" flexWrap="wrap">
        <Button kind="main" onClick={() => void saveCopy()}>
          Save mine as a copy
        </Button>
        <Button onClick={() => settleConflict('mine')}>Use mine for everything</Button>
        <Button onClick={() => settleConflict('theirs')}>Use theirs for everything</Button>
      </Box>
    </Asks>
  );
}
