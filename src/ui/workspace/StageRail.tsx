'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useMemo, type KeyboardEvent } from 'react';
import { valuesOf } from '@/core/answers';
import { useDrawnSystem } from '../state/editor';
import { useJudged } from '../state/results';
import { usePlace, useTask } from './goTo';
import { ACROSS, STAGES, type StageKey } from './stages';
import { placeOfField, standingOf, tasksOf, type Standing } from './tasks';

/** What still stands open at a place. */
type Open = { readonly assumed: number; readonly standing: Standing };

/** The stages in the order of the work, the open one with its tasks, each with what it still lacks. */
export function StageRail() {
  // Of the open document itself: what is assumed in it needs no working out.
  const system = useDrawnSystem();
  const judged = useJudged();
  const { findings, onTheWay, failed } = judged;
  const current = usePlace((place) => place.stage);
  const assumed = useMemo(
    () =>
      (system ? valuesOf(system) : [])
        .filter(({ known }) => known.origin === 'assumed')
        .map(({ path }) => placeOfField(system!, path)),
    [system],
  );
  const open = (stage: StageKey, task?: string): Open => ({
    assumed: assumed.filter((place) => place.stage === stage && (task === undefined || place.task === task)).length,
    standing: standingOf(judged, stage, task),
  });
  const notes: Readonly<Record<string, string>> = {
    paper: 'for the bench',
    measure: `${assumed.length} assumed`,
    findings:
      failed.length > 0
        ? `${findings.length}, not all known`
        : onTheWay.length > 0
          ? `${findings.length > 0 ? findings.length : ''}…`
          : `${findings.length} in all`,
  };
  return (
    <Box
      as="nav"
      aria-label="Stages and tasks; arrow keys go along"
      onKeyDown={goAlong}
      position={{ base: 'static', lg: 'sticky' }}
      top="200px"
      maxH={{ lg: 'calc(100vh - 208px)' }}
      overflowY={{ lg: 'auto' }}
      className="no-print"
      minW="0"
    >
      <Box
        display="flex"
        flexDirection={{ base: 'row', lg: 'column' }}
        gap="1"
        position="relative"
        overflowX={{ base: 'auto', lg: 'visible' }}
      >
        {STAGES.map(({ key, label }, index) => (
          <Box key={key} flexShrink="0">
            <RailItem stage={key} label={label} shortcut={index + 1} open={open(key)} />
            {key === current && (
              <Box display={{ base: 'none', lg: 'block' }}>
                <Tasks stage={key} label={label} open={(task) => open(key, task)} />
              </Box>
            )}
          </Box>
        ))}
        <Box display={{ base: 'none', lg: 'block' }} height="0" borderTopWidth="1px" borderColor="rule" my="1" />
        {ACROSS.map(({ key, label }, index) => (
          <Box key={key} flexShrink="0">
            <RailItem stage={key} label={label} shortcut={STAGES.length + index + 1} note={notes[key]!} />
          </Box>
        ))}
      </Box>
      <Box display={{ base: 'block', lg: 'none' }}>
        {STAGES.filter(({ key }) => key === current).map(({ key, label }) => (
          <Tasks key={key} stage={key} label={label} open={(task) => open(key, task)} />
        ))}
      </Box>
    </Box>
  );
}

/** By which keys one goes along the rail, and whereto. */
const KEYS: Readonly<Record<string, (at: number, last: number) => number>> = {
  ArrowDown: (at, last) => Math.min(last, at + 1),
  ArrowRight: (at, last) => Math.min(last, at + 1),
  ArrowUp: (at) => Math.max(0, at - 1),
  ArrowLeft: (at) => Math.max(0, at - 1),
  Home: () => 0,
  End: (_, last) => last,
};

/** The rail is one stop of the tab key, or two with the tasks: what is open; arrow keys go from there. */
function goAlong(event: KeyboardEvent<HTMLElement>): void {
  const step = KEYS[event.key];
  if (!step) return;
  const all = [...event.currentTarget.querySelectorAll('button')].filter((button) => button.offsetParent !== null);
  const at = all.indexOf(document.activeElement as HTMLButtonElement);
  if (at < 0) return;
  event.preventDefault();
  all[step(at, all.length - 1)]!.focus();
}

const MARKS: Readonly<Record<NonNullable<Standing>, readonly [sign: string, words: string, color: string]>> = {
  stop: ['■', 'has a stop', 'stop'],
  warn: ['▲', 'has a warning', 'warn'],
  unknown: ['?', 'not all of it judged', 'soft'],
  looking: ['…', 'still looking', 'soft'],
};

/** How a place stands by shape and word as well as colour. */
function StandingMark({ standing, color }: { readonly standing: Standing; readonly color?: string }) {
  if (!standing) return null;
  const [sign, words, own] = MARKS[standing];
  return (
    <Box as="span" aria-label={words} title={words} role="img" color={color ?? own} fontWeight="800">
      {sign}
    </Box>
  );
}

/** How much is assumed at a place; nothing where all is known. */
function Assumed({ count }: { readonly count: number }) {
  if (count === 0) return null;
  return (
    <span title={`${count} assumed`}>
      {count}
      <Box as="span" srOnly>
        {' '}
        assumed
      </Box>
    </span>
  );
}

type ItemProps = {
  readonly stage: StageKey;
  readonly label: string;
  readonly shortcut: number;
  readonly open?: Open;
  readonly note?: string;
};

function RailItem({ stage, label, shortcut, open, note }: ItemProps) {
  const { stage: current, goTo } = usePlace();
  const active = current === stage;
  const quiet = active ? 'onAccent' : 'soft';
  return (
    <chakra.button
      type="button"
      onClick={() => goTo(stage)}
      tabIndex={active ? 0 : -1}
      aria-current={active ? 'page' : undefined}
      data-testid={`stage-${stage}`}
      title={shortcut > 10 ? 'Key P' : `Key ${shortcut % 10}`}
      textAlign="left"
      minH={{ base: '44px', lg: '40px' }}
      width="100%"
      px="2.5"
      py="1"
      borderRadius="md"
      cursor="pointer"
      bg={active ? 'accent' : 'transparent'}
      color={active ? 'onAccent' : 'ink'}
      _hover={active ? {} : { bg: 'sunk' }}
      borderWidth={{ base: '1px', lg: '0' }}
      borderColor="rule"
      display="flex"
      alignItems="center"
      flexWrap="wrap"
      columnGap="1"
      rowGap="0"
    >
      <Box as="span" fontWeight="650" whiteSpace="nowrap">
        {label}
      </Box>
      <StandingMark standing={open?.standing} {...(active ? { color: 'onAccent' } : {})} />
      {(note ?? open) && (
        <Box as="span" fontSize="xs" color={quiet} ml="auto" display={{ base: 'none', lg: 'inline' }}>
          {note ?? <Assumed count={open!.assumed} />}
        </Box>
      )}
    </chakra.button>
  );
}

/** The tasks of the open stage. */
function Tasks({
  stage,
  label,
  open,
}: {
  readonly stage: StageKey;
  readonly label: string;
  readonly open: (task: string) => Open;
}) {
  const current = useTask(stage);
  const goToTask = usePlace((place) => place.goToTask);
  return (
    <Box
      role="group"
      aria-label={`Tasks of ${label}`}
      display="flex"
      flexDirection={{ base: 'row', lg: 'column' }}
      gap={{ base: '1', lg: '0' }}
      mt="1"
      ml={{ base: '0', lg: '3' }}
      position="relative"
      overflowX={{ base: 'auto', lg: 'visible' }}
      borderLeftWidth={{ base: '0', lg: '2px' }}
      borderColor="rule"
    >
      {tasksOf(stage).map(({ key, label: name, question }) => {
        const active = key === current;
        const { assumed, standing } = open(key);
        return (
          <chakra.button
            key={key}
            type="button"
            onClick={() => goToTask(stage, key)}
            tabIndex={active ? 0 : -1}
            aria-current={active ? 'true' : undefined}
            data-testid={`task-${key}`}
            title={question}
            textAlign="left"
            minH={{ base: '44px', lg: '36px' }}
            px={{ base: '3', lg: '2' }}
            borderWidth={{ base: '1px', lg: '0' }}
            borderColor={active ? 'accent' : 'rule'}
            borderRadius="md"
            bg={active ? 'sunk' : 'transparent'}
            fontWeight={active ? '700' : '500'}
            cursor="pointer"
            _hover={{ bg: 'sunk' }}
            display="flex"
            alignItems="center"
            gap="2"
            whiteSpace="nowrap"
            flexShrink="0"
          >
            <span>{name}</span>
            <StandingMark standing={standing} />
            <Box as="span" fontSize="xs" color="soft" ml="auto">
              <Assumed count={assumed} />
            </Box>
          </chakra.button>
        );
      })}
    </Box>
  );
}
