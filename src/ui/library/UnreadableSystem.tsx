'use client';

import { Box, chakra, Heading } from '@chakra-ui/react';
import { Download } from 'lucide-react';
import { PageHead } from '../parts/PageHead';

/** In place of a system that is there and cannot be read. */
export function UnreadableSystem({ id, detail }: { readonly id: string; readonly detail: string }) {
  return (
    <Box maxW="760px" mx="auto" px="4" py="4">
      <PageHead />
      <Box as="main">
        <Heading as="h1" fontSize="2xl" fontWeight="800">
          This system cannot be read.
        </Heading>
        <Box mt="3" role="alert">
          {detail} Nothing of it was changed, and nothing else is touched by it.
        </Box>
        <Box mt="3">An earlier state may be in a copy of your data: see “Your data” on the first page.</Box>
        <chakra.a
          href={`/api/systems/${id}/file`}
          mt="4"
          display="inline-flex"
          alignItems="center"
          gap="2"
          minH="44px"
          textDecoration="underline"
        >
          <Download size={18} aria-hidden />
          Download it as it is kept
        </chakra.a>
      </Box>
    </Box>
  );
}
