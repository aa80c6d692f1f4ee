'use client';

import { Box, chakra } from '@chakra-ui/react';
import { allKnown } from '@/core/answers';
import { pathWords } from '../measure/pathWords';
import { useDrawnSystem } from '../state/editor';
import { useJudged } from '../state/results';
import { usePlace } from './goTo';
import { ACROSS, STAGES, type StageKey } from './stages';

/** The stages in the order of the work, each with what it still lacks. */
export function StageRail() {
  // Of the open document itself: what is assumed in it needs no working out.
  const system = useDrawnSystem();
  const { findings, onTheWay, failed } = useJudged();
  const assumptions = (system ? allKnown(system) : [])
    .filter(({ known }) => known.origin === 'assumed')
    .map(({ path }) => pathWords(system!, path).stage);
  const worst = (stage: StageKey): 'stop' | 'warn' | undefined =>
    findings.some((finding) => finding.stage === stage && finding.severity === 'stop')
      ? 'stop'
      : findings.some((finding) => finding.stage === stage && finding.severity === 'warn')
        ? 'warn'
        : undefined;
  return (
    <Box as="nav" aria-label="Stages" position={{ base: 'static', lg: 'sticky' }} top="216px" className="no-print">
      <Box display="flex" flexDirection={{ base: 'row', lg: 'column' }} flexWrap="wrap" gap="1">
        {STAGES.map(({ key, label }, index) => {
          const open = assumptions.filter((stage) => stage === key).length;
          return (
            <RailItem
              key={key}
              stage={key}
              label={label}
              shortcut={index + 1}
              note={open > 0 ? `${open} assumed` : 'all known'}
              worst={worst(key)}
            />
          );
        })}
        <Box
          flexBasis="100%"
          height="0"
          borderTopWidth={{ base: '0', lg: '1px' }}
          borderColor="rule"
          my={{ base: '0', lg: '1' }}
        />
        {ACROSS.map(({ key, label }, index) => (
          <RailItem
            key={key}
            stage={key}
            label={label}
            shortcut={STAGES.length + index + 1}
            note={
              key === 'paper'
                ? 'for the bench'
                : key === 'findings'
                  ? failed.length > 0
                    ? `${findings.length}, not all known`
                    : onTheWay.length > 0
                      ? `${findings.length > 0 ? findings.length : ''}…`
                      : `${findings.length} in all`
                  : `${assumptions.length} assumed`
            }
            worst={undefined}
          />
        ))}
      </Box>
    </Box>
  );
}

type ItemProps = {
  readonly stage: StageKey;
  readonly label: string;
  readonly shortcut: number;
  readonly note: string;
  readonly worst: 'stop' | 'warn' | undefined;
};

function RailItem({ stage, label, shortcut, note, worst }: ItemProps) {
  const { stage: current, goTo } = usePlace();
  const active = current === stage;
  return (
    <chakra.button
      type="button"
      onClick={() => goTo(stage)}
      aria-current={active ? 'page' : undefined}
      data-testid={`stage-${stage}`}
      title={`Key ${shortcut % 10}`}
      textAlign="left"
      minH="44px"
      px="3"
      py="1"
      borderRadius="md"
      cursor="pointer"
      bg={active ? 'accent' : 'transparent'}
      color={active ? 'onAccent' : 'ink'}
      _hover={active ? {} : { bg: 'sunk' }}
      borderWidth={{ base: '1px', lg: '0' }}
      borderColor="rule"
    >
      <Box fontWeight="650" display="flex" alignItems="center" gap="2">
        {label}
        {worst && (
          <Box
            as="span"
            aria-label={worst === 'stop' ? 'has a stop' : 'has a warning'}
            role="img"
            color={active ? 'onAccent' : worst}
            fontWeight="800"
          >
            {worst === 'stop' ? '■' : '▲'}
          </Box>
        )}
      </Box>
      <Box fontSize="xs" display={{ base: 'none', lg: 'block' }} color={active ? 'onAccent' : 'soft'}>
        {note}
      </Box>
    </chakra.button>
  );
}
