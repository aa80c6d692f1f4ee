'use client';

import { Box } from '@chakra-ui/react';
import type { Layout } from '@/core/answers';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { Panel } from '../parts/Panel';
import { useAsked } from '../state/answers';
import { applyEdit, useSystem } from '../state/editor';
import { useTank } from '../state/tankChoice';
import { withLayout } from './mountEdits';
import { partHead, SCHOOL_WORDS } from './mountWords';
import { factorText } from './factors';

/** Ways to hold the tank down: one of each school, sized for what it is thrown with. */
export function LayoutsPanel({ isFirst }: { readonly isFirst: boolean }) {
  const t = useTank();
  const { name } = useSystem().tanks[t]!;
  const { ask, answer, running, fresh } = useAsked('layouts');
  return (
    <Panel title={isFirst ? `Hold ${name} down` : 'Other ways to hold it'} testId="layouts">
      <Box color="soft" maxW="75ch" mb="3">
        {isFirst ? 'Nothing is said of what holds it. ' : 'What is chosen here takes the place of all its mounts. '}
        Two or three layouts for a tank that stands on a floor, each with bolts and sheet as small as bear what this
        vehicle throws it with, put where the space has room for it.
      </Box>
      <Button kind="main" disabled={running} onClick={() => void ask(t)}>
        {running ? 'Working them out…' : 'Hold this tank down here'}
      </Button>
      {answer && !answer.ok && (
        <Box role="alert" color="stop" mt="3">
          {answer.error.detail}
        </Box>
      )}
      {answer?.ok && (
        <Box
          display="grid"
          gap="3"
          mt="3"
          opacity={fresh ? 1 : 0.6}
          gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 260px), 1fr))"
        >
          {answer.value.map((layout) => (
            <Card key={layout.school} layout={layout} t={t} isFresh={fresh} />
          ))}
        </Box>
      )}
      {isFirst && (
        <Box mt="3">
          <Caution>
            A tank that breaks loose kills. Where people ride with it, on a road or at sea, the rules in force and
            someone licensed decide what holds it.
          </Caution>
        </Box>
      )}
    </Panel>
  );
}

function Card({ layout, t, isFresh }: { readonly layout: Layout; readonly t: number; readonly isFresh: boolean }) {
  const { name, because } = SCHOOL_WORDS[layout.school];
  const count = (kind: string, one: string, many: string): string[] => {
    const of = layout.mounts.filter((mount) => mount.kind === kind).length;
    return of === 0 ? [] : [`${of} ${of === 1 ? one : many}`];
  };
  const parts = [
    ...count('strap', 'strap', 'straps'),
    ...count('cradle', 'bearer', 'bearers'),
    ...count('stop', 'stop', 'stops'),
    ...count('tab', 'tab', 'tabs'),
  ].join(', ');
  const { weakest } = layout;
  // It counts the mounts of the plan that would be: those of other tanks stand first.
  const others = useSystem().mounts.filter(({ tank }) => tank !== layout.mounts[0]?.tank).length;
  return (
    <Box borderWidth="1.5px" borderColor="rule" borderRadius="md" p="3" display="grid" gap="2" alignContent="start">
      <Box fontWeight="700">{name}</Box>
      <Box>{parts}</Box>
      <Box color={layout.holds === true ? 'good' : layout.holds === false ? 'stop' : 'warn'} fontWeight="650">
        {layout.holds === true
          ? `Holds${weakest?.factor === undefined ? '' : `, with ${factorText(weakest.factor)} times what is asked (${partHead(weakest.part, layout.mounts.at(weakest.mount - others)?.kind)} first)`}`
          : layout.holds === false
            ? 'Does not hold as it is: take it to mend it'
            : 'Whether it holds could not be worked out'}
      </Box>
      {layout.fouls === undefined ? (
        <Box color="soft">Whether it has room is not judged: nothing is said of the space.</Box>
      ) : layout.fouls.length > 0 ? (
        <Box color="stop" fontWeight="650">
          No room:{' '}
          {layout.fouls.map(({ name: one, others: met }) => `${one} runs into ${met.join(' and ')}`).join('; ')}.
        </Box>
      ) : (
        <Box color="good" fontWeight="650">
          Has room where it is
        </Box>
      )}
      {layout.unreached === undefined && (
        <Box color="warn">Whether a tool gets to its bolts could not be worked out.</Box>
      )}
      {layout.unreached && layout.unreached.length > 0 && (
        <Box color="warn" fontWeight="650">
          No tool gets to every bolt of {layout.unreached.join(', ')}.
        </Box>
      )}
      <Box color="soft" fontSize="sm">
        {because}
      </Box>
      <Button
        disabled={!isFresh}
        onClick={() => applyEdit(`${name.toLowerCase()} hold it`, (current) => withLayout(current, t, layout.mounts))}
      >
        Take {name.toLowerCase()}
      </Button>
    </Box>
  );
}
