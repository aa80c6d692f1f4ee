import { Box } from '@chakra-ui/react';

/** The name, with a level line through a slanted tank. */
/** Drawing and name; the drawing alone where `isShort` and on a phone. */
export function Mark({ isShort = false }: { readonly isShort?: boolean }) {
  return (
    <Box
      as="span"
      display="inline-flex"
      alignItems="center"
      gap="2"
      fontWeight="800"
      fontSize="lg"
      whiteSpace="nowrap"
      minH="44px"
    >
      <svg width="28" height="28" viewBox="0 0 28 28" aria-hidden>
        <g transform="rotate(-12 14 14)">
          <path d="M4 13.5 L24 17.8 L24 22 L4 22 Z" fill="var(--chakra-colors-fuel)" />
          <rect x="4" y="7" width="20" height="15" rx="1.5" fill="none" stroke="currentColor" strokeWidth="2.2" />
          <path d="M17 7 V4.5" stroke="currentColor" strokeWidth="2.2" />
        </g>
      </svg>
      <Box as="span" display={isShort ? { base: 'none', md: 'inline' } : 'inline'}>
        Gas Line
      </Box>
    </Box>
  );
}
