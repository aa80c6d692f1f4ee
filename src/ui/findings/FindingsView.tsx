'use client';

import { Box, chakra } from '@chakra-ui/react';
import { CircleAlert, Info, OctagonX } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Finding, Severity, Stage } from '@/core/rules';
import { inReaderUnits, messageText } from '@/core/units';
import { Panel } from '../parts/Panel';
import { useReader } from '../state/reader';
import { useJudged, type Judged } from '../state/results';
import { usePlace } from '../workspace/goTo';
import { taskOfRule } from '../workspace/tasks';

const LOOK: Readonly<Record<Severity, { word: string; color: string; bg: string; Icon: typeof Info }>> = {
  stop: { word: 'Stop', color: 'stop', bg: 'stopBg', Icon: OctagonX },
  warn: { word: 'Warn', color: 'warn', bg: 'warnBg', Icon: CircleAlert },
  note: { word: 'Note', color: 'note', bg: 'noteBg', Icon: Info },
};

export function FindingsView() {
  const judged = useJudged();
  const { findings, notJudged, onTheWay, failed } = judged;
  const sure = onTheWay.length === 0 && failed.length === 0;
  return (
    <Box display="grid" gap="4">
      <Panel title="Findings">
        {sure && findings.length === 0 && notJudged.length === 0 && (
          <Box color="good" fontWeight="600">
            Nothing found at these conditions. Tilt it, empty it and heat it to see whether that holds.
          </Box>
        )}
        {sure && findings.length === 0 && notJudged.length > 0 && (
          <Box fontWeight="600">
            Nothing found by the rules that could be asked; {notJudged.length} could not, see below.
          </Box>
        )}
        <Pending judged={judged} />
        <FindingList findings={findings} />
      </Panel>
      {notJudged.length > 0 && (
        <Panel title="Not judged">
          <Box color="soft" mb="2">
            These rules could not be asked, for want of what stands beside them. That they are silent says nothing.
          </Box>
          <NotJudgedList list={notJudged} />
        </Panel>
      )}
    </Box>
  );
}

/** What is still on its way, and what could not be had. */
function Pending({ judged: { onTheWay, failed } }: { readonly judged: Judged }) {
  return (
    <Box role="status">
      {onTheWay.length > 0 && (
        <Box color="soft" mb="2">
          Still looking: {onTheWay.join(', ')}.
        </Box>
      )}
      {failed.map((each) => (
        <Box key={each} color="stop" fontWeight="600" mb="2">
          Not worked out: {each}
        </Box>
      ))}
    </Box>
  );
}

/** Rules by what they lack. */
function NotJudgedList({ list }: { readonly list: Judged['notJudged'] }) {
  const lacks = [...new Set(list.map((each) => each.lacks))];
  return (
    <Box as="ul" listStyleType="none" display="grid" gap="2" data-testid="not-judged">
      {lacks.map((lack) => (
        <li key={lack}>
          <b>
            ? {lack[0]!.toUpperCase()}
            {lack.slice(1)}.
          </b>{' '}
          <Box as="span" color="soft">
            {list
              .filter((each) => each.lacks === lack)
              .map(({ title }) => title)
              .join(' · ')}
          </Box>
        </li>
      ))}
    </Box>
  );
}

/** What is wrong at a task and what could not be judged there, a line each that opens. */
export function TaskFindings({ stage, task }: { readonly stage: Stage; readonly task: string | undefined }) {
  const judged = useJudged();
  const here = (each: { readonly id: string; readonly stage: Stage }): boolean =>
    each.stage === stage && (task === undefined || taskOfRule(each) === task);
  const findings = judged.findings.filter(here);
  const notJudged = judged.notJudged.filter(here);
  if (findings.length + notJudged.length + judged.failed.length === 0) return null;
  return (
    <Box
      as="section"
      aria-label="Findings here"
      display="grid"
      gap="1"
      mb={{ base: '3', lg: '4' }}
      className="no-print"
    >
      {judged.failed.length > 0 && <Pending judged={judged} />}
      {findings.map((finding, index) => (
        <FindingLine key={`${finding.id}-${index}`} finding={finding} />
      ))}
      {notJudged.length > 0 && (
        <Box as="details" bg="panel" borderRadius="md" px="3" data-testid="not-judged-here">
          <Summary>
            {notJudged.length} {notJudged.length === 1 ? 'rule' : 'rules'} not judged here
          </Summary>
          <Box pb="2">
            <NotJudgedList list={notJudged} />
          </Box>
        </Box>
      )}
    </Box>
  );
}

function Summary({ children }: { readonly children: ReactNode }) {
  return (
    <chakra.summary
      cursor="pointer"
      minH={{ base: '42px', lg: '36px' }}
      py={{ base: '2', lg: '1.5' }}
      display="list-item"
      fontSize="sm"
    >
      {children}
    </chakra.summary>
  );
}

/** One finding in a line: what it is and by how much; why and how to mend it when it is opened. */
function FindingLine({ finding }: { readonly finding: Finding }) {
  const reader = useReader();
  const { word, color, bg } = LOOK[finding.severity];
  return (
    <Box
      as="details"
      data-testid={`here-${finding.id}`}
      bg={bg}
      borderLeftWidth="6px"
      borderColor={color}
      borderRadius="md"
      px="3"
    >
      <Summary>
        <Box as="b" color={color}>
          {word}:
        </Box>{' '}
        <b>{finding.title}.</b> {messageText(finding.what, reader)}
      </Summary>
      <Box pb="2">
        <Reasons finding={finding} />
      </Box>
    </Box>
  );
}

function FindingList({ findings }: { readonly findings: readonly Finding[] }) {
  return (
    <Box display="grid" gap="2">
      {findings.map((finding, index) => (
        <FindingCard key={`${finding.id}-${index}`} finding={finding} />
      ))}
    </Box>
  );
}

function FindingCard({ finding }: { readonly finding: Finding }) {
  const reader = useReader();
  const { word, color, bg, Icon } = LOOK[finding.severity];
  return (
    <Box
      as="article"
      data-testid={`finding-${finding.id}`}
      borderLeftWidth="6px"
      borderColor={color}
      bg={bg}
      borderRadius="md"
      px="3"
      py="2"
    >
      <Box display="flex" gap="2" alignItems="center" fontWeight="700">
        <Box color={color} display="flex">
          <Icon size={18} aria-hidden />
        </Box>
        <Box>
          <Box as="span" color={color}>
            {word}:{' '}
          </Box>
          {finding.title}
        </Box>
      </Box>
      <Box fontSize="md" mt="1" fontWeight="600">
        {messageText(finding.what, reader)}
      </Box>
      <Reasons finding={finding} />
    </Box>
  );
}

/** Why it matters, how to mend it, who says so, and the way to it. */
function Reasons({ finding }: { readonly finding: Finding }) {
  const reader = useReader();
  const goTo = usePlace((place) => place.goTo);
  return (
    <>
      <Box fontSize="sm" mt="1">
        <b>Why.</b> {inReaderUnits(finding.why, reader)}
      </Box>
      <Box fontSize="sm" mt="1">
        <b>Fix.</b> {inReaderUnits(finding.mend, reader)}
      </Box>
      <Box
        display="flex"
        justifyContent="space-between"
        gap="2"
        alignItems="center"
        flexWrap="wrap"
        fontSize="sm"
        color="soft"
        mt="1"
      >
        <Box>
          Source: {finding.source}
          {finding.source.includes(finding.status) ? '' : ` (${finding.status})`}.
        </Box>
        {finding.path && (
          <chakra.button
            type="button"
            onClick={() => goTo(finding.stage, finding.path)}
            color="accent"
            fontWeight="600"
            minH="36px"
            px="2"
            cursor="pointer"
            textDecoration="underline"
          >
            Go to it
          </chakra.button>
        )}
      </Box>
    </>
  );
}
