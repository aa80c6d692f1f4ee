'use client';

import { Box, chakra } from '@chakra-ui/react';
import { CircleCheck, Info, OctagonX, TriangleAlert } from 'lucide-react';
import type { Played, VerdictLine } from '@/core/answers';
import { messageText } from '@/core/units';
import { Panel } from '../parts/Panel';
import { useReader } from '../state/reader';
import { figuresOf } from './figures';

const ICONS = { stop: OctagonX, warn: TriangleAlert, note: Info, good: CircleCheck } as const;
const COLORS = { stop: 'stop', warn: 'warn', note: 'note', good: 'good' } as const;
const SAID = { stop: 'Stop', warn: 'Warning', note: 'Note', good: 'Good' } as const;

/** What a course comes to, the worst first; a line that is of one moment leads there. */
export function VerdictPanel({
  played,
  before,
  isOld,
  onTime,
}: {
  readonly played: Played;
  readonly before: Played | undefined;
  /** System or scenario have been changed since. */ readonly isOld: boolean;
  readonly onTime: (at_s: number) => void;
}) {
  return (
    <Panel title={`What comes of it: ${played.scenario.name}`} testId="verdict">
      {isOld && (
        <Box color="warn" fontWeight="650" mb="2" role="status">
          It has been changed since. Play it again: then both stand side by side.
        </Box>
      )}
      <chakra.ul listStyleType="none" m="0" p="0" opacity={isOld ? 0.6 : 1}>
        {played.verdict.map((line, i) => (
          <VerdictItem key={i} line={line} isFirst={i === 0} onTime={onTime} />
        ))}
      </chakra.ul>
      {before && <Compared now={played} before={before} />}
    </Panel>
  );
}

/** One thing that a course comes to. */
export function VerdictItem({
  line: { severity, says, t_s },
  isFirst,
  onTime,
}: {
  readonly line: VerdictLine;
  readonly isFirst: boolean;
  /** Leads to its moment, where that can be shown. */ readonly onTime?: (at_s: number) => void;
}) {
  const reader = useReader();
  const Icon = ICONS[severity];
  const words = (
    <Box as="span" fontSize={isFirst ? 'xl' : 'md'} fontWeight={isFirst ? '750' : '400'} lineHeight="1.3">
      {messageText(says, reader)}
    </Box>
  );
  return (
    <chakra.li display="flex" gap="2" py="1" alignItems="start">
      <Box color={COLORS[severity]} pt="1" flexShrink="0">
        <Icon size={20} aria-label={SAID[severity]} role="img" />
      </Box>
      {t_s === undefined || !onTime ? (
        words
      ) : (
        <chakra.button
          type="button"
          textAlign="left"
          cursor="pointer"
          minH="32px"
          textDecoration="underline"
          textDecorationThickness="1px"
          textUnderlineOffset="3px"
          title="Show this moment"
          onClick={() => onTime(t_s)}
        >
          {words}
        </chakra.button>
      )}
    </chakra.li>
  );
}

/** The course before it beside this one, figure by figure, as far as they differ. */
function Compared({ now, before }: { readonly now: Played; readonly before: Played }) {
  const reader = useReader();
  const old = new Map(figuresOf(before, reader));
  const rows = figuresOf(now, reader).map(([label, text]) => [label, old.get(label) ?? '–', text] as const);
  const gone = [...old].filter(([label]) => !rows.some(([each]) => each === label));
  const changed = [
    ...rows.filter(([, was, is]) => was !== is),
    ...gone.map(([label, was]) => [label, was, '–'] as const),
  ];
  return (
    <Box mt="3" data-testid="compared-courses">
      <Box fontWeight="650">Against the system as it was played before</Box>
      {changed.length === 0 ? (
        <Box color="soft">Nothing comes out otherwise.</Box>
      ) : (
        <chakra.table
          width="100%"
          fontSize="sm"
          mt="1"
          css={{ '& th, & td': { textAlign: 'left', padding: '4px 8px 4px 0' } }}
        >
          <thead>
            <tr>
              <th />
              <th scope="col">Before</th>
              <th scope="col">Now</th>
            </tr>
          </thead>
          <tbody>
            {changed.map(([label, was, is]) => (
              <chakra.tr key={label} borderTopWidth="1px" borderColor="rule">
                <th scope="row">{label}</th>
                <td>{was}</td>
                <chakra.td fontWeight="700">{is}</chakra.td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      )}
    </Box>
  );
}
