'use client';

import { Box } from '@chakra-ui/react';
import { askedNumbers, type Card } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import type { Reader } from '@/core/units';
import { figureIn } from '../state/keptCard';
import { Amount, Cell, Cells, countWords, FIGURE_SIZE, gravestTone, NO_SPREAD, NoNumber } from './cells';
import { numberLabels } from './labels';

type Props = { readonly system: SystemDocument; readonly card: Card; readonly reader: Reader };

/**
 * The numbers of a system that is being opened, as this build worked them out before of the same plan at the same
 * conditions: they come with the page itself, and the bar takes their place once it can be worked with.
 */
export function KeptNumbers({ system, card, reader }: Props) {
  const keys = askedNumbers(system);
  const labels = numberLabels(system);
  const { stops, warns, notes, notJudged } = card;
  const words = [...countWords(card), notJudged > 0 ? `${notJudged} not judged` : ''].filter(Boolean);
  return (
    <section aria-label="The four numbers" aria-busy="true" data-testid="numbers-kept">
      <Box bg="panel" borderBottomWidth="1px" borderColor="rule">
        <Cells keys={keys}>
          {keys.map((key) => {
            const number = figureIn(card, key);
            return (
              <Cell key={key} label={labels[key]}>
                {number ? (
                  <Amount
                    of={key}
                    number={number}
                    spread={number.spread}
                    whyNoSpread={number.hasNoSpread ? NO_SPREAD : undefined}
                    reader={reader}
                  />
                ) : (
                  <NoNumber of={key}>none</NoNumber>
                )}
              </Cell>
            );
          })}
          <Cell label="Findings">
            <Box
              data-testid="number-findings"
              fontSize={FIGURE_SIZE}
              fontWeight="750"
              lineHeight="1.05"
              color={gravestTone(card, notes + notJudged > 0)}
            >
              {stops + warns + notes}
            </Box>
            <Box display={{ base: 'none', md: 'block' }} fontSize="sm" mt="1" color="soft">
              {words.length > 0 ? words.join(' · ') : 'nothing found'}
            </Box>
          </Cell>
        </Cells>
      </Box>
    </section>
  );
}
