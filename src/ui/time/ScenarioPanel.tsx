'use client';

import { Box } from '@chakra-ui/react';
import { Pencil, Play, Square, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { PlayNews } from '@/core/answers';
import { entriesOf } from '@/core/plan';
import { clockText } from '@/core/units';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { ScenarioEditor } from './ScenarioEditor';
import { addScenario, freeName, putScenario, removeScenario } from './scenarioStore';
import { beginsWords, entryWords } from './timeWords';
import { ownKey, type Choice } from './useScenarios';

/** As many as the format keeps. */
const MOST_OWN = 20;

/** Which scenario is played, what it sets, and its button. */
export function ScenarioPanel({
  choices,
  chosen,
  news,
  running,
  onChoose,
  onPlay,
  onStop,
  onMade,
}: {
  readonly choices: readonly Choice[];
  readonly chosen: Choice;
  readonly news: PlayNews | undefined;
  readonly running: boolean;
  readonly onChoose: (key: string) => void;
  readonly onPlay: () => void;
  readonly onStop: () => void;
  /** A scenario of one's own has been made, renamed or removed: it, or whatever is there. */
  readonly onMade: (key: string | undefined) => void;
}) {
  const system = useSystem();
  const reader = useReader();
  const { scenario, asks, own: at } = chosen;
  const own = system.scenarios ?? [];
  const [isOpen, setOpen] = useState(false);
  return (
    <Panel title={asks} testId="scenario">
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="end">
        <Select
          label="Scenario"
          width="min(100%, 420px)"
          value={chosen.key}
          options={choices.map(({ key, scenario: { name } }) => ({ value: key, label: name }))}
          onChange={onChoose}
        />
        {running ? (
          <Button kind="main" onClick={onStop}>
            <Square size={18} aria-hidden />
            Stop
          </Button>
        ) : (
          <Button kind="main" onClick={onPlay}>
            <Play size={18} aria-hidden />
            Play it
          </Button>
        )}
        {at === undefined ? (
          <Button
            disabled={own.length >= MOST_OWN}
            title={
              own.length >= MOST_OWN ? `A system keeps ${MOST_OWN} scenarios.` : 'Kept with the system, to be changed'
            }
            onClick={() => {
              const mine = { ...scenario, name: freeName(own, scenario.name) };
              addScenario(mine);
              onMade(ownKey(mine.name));
              setOpen(true);
            }}
          >
            <Pencil size={18} aria-hidden />
            Make it my own
          </Button>
        ) : (
          <>
            <Button isPressed={isOpen} onClick={() => setOpen(!isOpen)}>
              <Pencil size={18} aria-hidden />
              {isOpen ? 'Done' : 'Change'}
            </Button>
            <Button
              onClick={() => {
                removeScenario(at, scenario.name);
                onMade(undefined);
              }}
            >
              <Trash2 size={18} aria-hidden />
              Remove
            </Button>
          </>
        )}
        {running && <Progress news={news} />}
      </Box>
      <Box color="soft" fontSize="sm" mt="2">
        {beginsWords(scenario, system, reader)}{' '}
        {entriesOf(scenario)
          .slice(0, SHOWN)
          .map((entry) => `${clockText(entry.at_s)}: ${entryWords(entry, system, reader)}.`)
          .join(' ')}{' '}
        {entriesOf(scenario).length > SHOWN && `And ${entriesOf(scenario).length - SHOWN} more. `}
        Lasts {clockText(scenario.duration_s)} at most.
      </Box>
      {at !== undefined && isOpen && (
        <Box mt="3">
          <ScenarioEditor
            scenario={scenario}
            names={own.filter((_, n) => n !== at).map(({ name }) => name)}
            onPut={(next) => {
              putScenario(at, next);
              if (next.name !== scenario.name) onMade(ownKey(next.name));
            }}
          />
        </Box>
      )}
    </Panel>
  );
}

const SHOWN = 6;

function Progress({ news }: { readonly news: PlayNews | undefined }) {
  const share = news ? news.progress.sample.t_s / news.progress.duration_s : 0;
  return (
    <Box role="status" minW="180px" flex="1" alignSelf="center">
      <Box fontSize="sm" color="soft">
        {news
          ? `Played to ${clockText(news.progress.sample.t_s)} of ${clockText(news.progress.duration_s)}`
          : 'Being worked out…'}
      </Box>
      <Box height="8px" bg="sunk" borderRadius="full" overflow="hidden">
        <Box height="100%" width={`${share * 100}%`} bg="accent" />
      </Box>
    </Box>
  );
}
