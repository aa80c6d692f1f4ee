'use client';

import { Box, Heading } from '@chakra-ui/react';
import { differences, type Difference, type SystemDocument } from '@/core/plan';
import { formatQuantity } from '@/core/units';
import { fromDocument } from '../fields/readEntry';
import { pathWords } from '../measure/pathWords';
import { useReader } from '../state/reader';
import type { Chosen } from './chosen';
import { valueText } from './valueText';

/** What was changed between the first system and each of the others, in words. */
export function DifferenceRows({ chosen }: { readonly chosen: readonly Chosen[] }) {
  const [first, ...others] = chosen;
  return others.map(({ id, document }) => {
    const found = differences(first!.document, document);
    return (
      <Box
        key={id}
        as="section"
        mt="4"
        bg="panel"
        borderWidth="1px"
        borderColor="rule"
        borderRadius="lg"
        p="4"
        data-testid="differences"
      >
        <Heading as="h2" fontSize="lg" fontWeight="700" mb="2">
          What differs in {document.name}
        </Heading>
        {found.length === 0 ? (
          <Box color="soft">Nothing but its name and conditions.</Box>
        ) : (
          <DifferenceList found={found} before={first!.document} after={document} />
        )}
      </Box>
    );
  });
}

/** Places in which two systems differ, one row each: what it is, before, after. */
export function DifferenceList({
  found,
  before,
  after,
}: {
  readonly found: readonly Difference[];
  readonly before: SystemDocument;
  readonly after: SystemDocument;
}) {
  return found.map((difference) => (
    <Row key={difference.path.join('.')} difference={difference} before={before} after={after} />
  ));
}

function Row({
  difference,
  before,
  after,
}: {
  readonly difference: Difference;
  readonly before: SystemDocument;
  readonly after: SystemDocument;
}) {
  const reader = useReader();
  const { path } = difference;
  const words = pathWords(difference.after === undefined ? before : after, path);
  const text = (value: unknown): string =>
    valueText(
      value,
      (known) => formatQuantity(fromDocument(known, words.role), words.role, { reader, digits: 4 }).text,
    );
  return (
    <Box
      display="grid"
      gridTemplateColumns={{ base: '1fr', md: '1.3fr 1fr 1fr' }}
      columnGap="3"
      py="1"
      borderTopWidth="1px"
      borderColor="rule"
    >
      <Box>
        {words.owner}
        {isEntry(difference) ? '' : `: ${words.label}`}
      </Box>
      <Box color="soft">{text(difference.before)}</Box>
      <Box fontWeight="650">{text(difference.after)}</Box>
    </Box>
  );
}

const isEntry = ({ before, after }: Difference): boolean =>
  [before, after].some((value) => typeof value === 'object' && value !== null && 'id' in value);
