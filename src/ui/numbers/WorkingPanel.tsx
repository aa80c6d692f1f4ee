'use client';

import { Box, chakra } from '@chakra-ui/react';
import { X } from 'lucide-react';
import type { SystemDocument } from '@/core/plan';
import { workingOf, type Evaluation, type NumberKey, type WorkingTerm } from '@/core/answers';
import { messageText } from '@/core/units';
import { Quantity } from '../parts/Quantity';
import { useReader } from '../state/reader';
import { pathWords } from '../measure/pathWords';
import { usePlace } from '../workspace/goTo';

type Props = {
  readonly numberKey: NumberKey;
  readonly label: string;
  readonly system: SystemDocument;
  readonly evaluation: Evaluation;
  readonly onClose: () => void;
};

/** How a number came about: formula, what was put in, result, source. */
export function WorkingPanel({ numberKey, label, system, evaluation, onClose }: Props) {
  const reader = useReader();
  const working = workingOf(numberKey, system, evaluation);
  return (
    <Box
      borderTopWidth="1px"
      borderColor="rule"
      bg="sunk"
      px="4"
      py="3"
      maxH="min(60vh, 520px)"
      overflowY="auto"
      data-testid="working"
      role="region"
      aria-label={`Working of ${label}`}
      tabIndex={0}
    >
      <Box display="flex" justifyContent="space-between" alignItems="center" mb="2">
        <Box fontWeight="700">{label}: the working</Box>
        <chakra.button
          type="button"
          onClick={onClose}
          aria-label="Close the working"
          p="2"
          minW="40px"
          minH="40px"
          cursor="pointer"
        >
          <X size={20} aria-hidden />
        </chakra.button>
      </Box>
      {working.steps.length === 0 && (
        <Box color="soft">There is no number, so there is no working. The reason stands under it.</Box>
      )}
      <Box
        display="grid"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 360px), 1fr))"
        gap="3"
        alignItems="start"
      >
        {working.steps.map((step) => (
          <Box
            key={step.result.label + step.formula}
            bg="panel"
            borderRadius="md"
            borderWidth="1px"
            borderColor="rule"
            p="3"
          >
            <Box fontWeight="700" mb="2">
              {step.formula}
            </Box>
            {step.terms.map((term) => (
              <Term key={term.label} term={term} system={system} />
            ))}
            <Box
              display="flex"
              justifyContent="space-between"
              gap="3"
              borderTopWidth="1.5px"
              borderColor="edge"
              mt="1"
              pt="1"
              fontWeight="700"
            >
              <Box>{step.result.label}</Box>
              <Box whiteSpace="nowrap">
                <Quantity value={step.result.value} role={step.result.role} digits={4} />
              </Box>
            </Box>
            <Box fontSize="sm" color="soft" mt="2">
              {step.source}
            </Box>
          </Box>
        ))}
      </Box>
      {working.notes.map((note) => (
        <Box key={note.text} fontSize="sm" color="soft" mt="2">
          {messageText(note, reader)}
        </Box>
      ))}
    </Box>
  );
}

function Term({ term, system }: { readonly term: WorkingTerm; readonly system: SystemDocument }) {
  const goTo = usePlace((place) => place.goTo);
  const { path } = term;
  return (
    <Box display="flex" justifyContent="space-between" gap="3" py="1px">
      {path ? (
        <chakra.button
          type="button"
          textAlign="left"
          color="accent"
          textDecoration="underline"
          cursor="pointer"
          onClick={() => goTo(pathWords(system, path).stage, path)}
        >
          {term.label}
        </chakra.button>
      ) : (
        <Box>{term.label}</Box>
      )}
      <Box whiteSpace="nowrap">
        <Quantity value={term.value} role={term.role} />
        {term.origin && (
          <Box as="span" fontSize="sm" color={term.origin === 'assumed' ? 'warn' : 'soft'} ml="2">
            {term.origin === 'part' ? 'from part' : term.origin}
          </Box>
        )}
      </Box>
    </Box>
  );
}
