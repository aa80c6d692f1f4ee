'use client';

import { Box } from '@chakra-ui/react';
import Link from 'next/link';
import { Button } from '../parts/Button';
import { useLeaving } from './useLeaving';

/** Asks before unsaved work is left by a link. */
export function LeavingQuestion() {
  const { to, stay } = useLeaving();
  if (to === undefined) return null;
  return (
    <Box role="alertdialog" aria-label="Not saved" data-testid="leaving" bg="warnBg" borderLeftWidth="6px" borderColor="warn" borderRadius="md" px="4" py="3" mb="4">
      <Box fontWeight="700">Your last changes are not saved.</Box>
      <Box mt="1">This browser keeps them, and offers them when the system is opened here again. No other device has them.</Box>
      <Box display="flex" gap="2" mt="3" flexWrap="wrap">
        <Button kind="main" onClick={stay}>Stay</Button>
        <Link href={to} data-leave="" onClick={stay}><Button>Leave all the same</Button></Link>
      </Box>
    </Box>
  );
}
