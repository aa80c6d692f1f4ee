'use client';

import { Box } from '@chakra-ui/react';
import Link from 'next/link';
import { Button } from '../parts/Button';
import { Asks } from './Asks';
import { useLeaving, useLeavingTo } from './useLeaving';

/** Asks before unsaved work is left by a link. */
export function LeavingQuestion() {
  useLeaving();
  const to = useLeavingTo((leaving) => leaving.to);
  const stay = (): void => useLeavingTo.setState({ to: undefined });
  if (to === undefined) return null;
  return (
    <Asks kind="warn" testId="leaving" role="alertdialog" label="Not saved">
      <Box fontWeight="700">Your last changes are not saved.</Box>
      <Box mt="1">
        This browser keeps them, and offers them when the system is opened here again. No other device has them.
      </Box>
      <Box display="flex" gap="2" mt="3" flexWrap="wrap">
        <Button kind="main" onClick={stay}>
          Stay
        </Button>
        <Link href={to} data-leave="" onClick={stay}>
          <Button>Leave all the same</Button>
        </Link>
      </Box>
    </Asks>
  );
}
