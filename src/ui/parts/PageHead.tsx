import { Box } from '@chakra-ui/react';
import Link from 'next/link';
import { Mark } from './Mark';
import { ReaderPicker } from './ReaderPicker';
import { ThemeSwitch } from './ThemeSwitch';

/** What stands on top of a page outside the workspace; the mark leads to all systems, but on their own page. */
export function PageHead({ home = false }: { readonly home?: boolean }) {
  return (
    <Box as="header" display="flex" alignItems="center" gap="2" mb="4">
      {home ? (
        <Mark />
      ) : (
        <Link href="/" aria-label="All systems">
          <Mark />
        </Link>
      )}
      <Box flex="1" />
      <ReaderPicker />
      <ThemeSwitch />
    </Box>
  );
}
