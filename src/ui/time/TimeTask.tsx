'use client';

import { Box } from '@chakra-ui/react';
import { dequal } from 'dequal';
import { useEffect, useMemo, useState } from 'react';
import { holdsFor, type Played, type PlayNews } from '@/core/answers';
import type { Scenario, SystemDocument } from '@/core/plan';
import { Beside } from '../parts/Beside';
import { Caution } from '../parts/Caution';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { useAsked } from '../state/answers';
import { openDocument, useSystem } from '../state/editor';
import { clockText } from '@/core/units';
import { useReader } from '../state/reader';
import { chooseTank, useTank } from '../state/tankChoice';
import { ChartsPanel } from './ChartsPanel';
import { chooseScenario, goToTime, keepCourse, showSpan, useCourses, type Course } from './courses';
import { EventsPanel } from './EventsPanel';
import { MomentPanel } from './MomentPanel';
import { OnItsWay } from './OnItsWay';
import { ScenarioPanel } from './ScenarioPanel';
import type { Span } from './span';
import { toldOf } from './timeWords';
import { useScenarios, type Choice } from './useScenarios';
import { VerdictPanel } from './VerdictPanel';

/** A scenario played on the system: what comes of it, and all that moves meanwhile. */
export function TimeTask() {
  const { choices, why } = useScenarios();
  const { chosen, runs } = useCourses();
  const choice = choices.find(({ key }) => key === chosen) ?? choices[0];
  const [way, setWay] = useState<{ readonly key: string; readonly of: SystemDocument; readonly news?: PlayNews }>();
  const played = useAsked('played');
  if (why !== undefined) return <NotWorkedOut why={why} />;
  if (!choice) return <Box color="soft">Being worked out…</Box>;
  const play = ({ key, scenario }: Choice): void => {
    const of = openDocument();
    setWay({ key, of });
    void played
      .ask(scenario, (news) => setWay({ key, of, news }))
      .then((answer) => {
        if (!answer) return;
        setWay(undefined);
        keepCourse(key, { of, played: answer });
      });
  };
  const course = runs[choice.key];
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <ScenarioPanel
        choices={choices}
        chosen={choice}
        news={way?.news}
        running={played.running}
        onChoose={(key) => {
          if (key === choice.key) return;
          played.stop();
          chooseScenario(key);
        }}
        onPlay={() => play(choice)}
        onStop={played.stop}
        onMade={chooseScenario}
      />
      {way?.news && played.running && <OnItsWay news={way.news} of={way.of} />}
      {way?.news && !played.running && way.key === choice.key && (
        <Box color="warn" fontWeight="650" role="status">
          Stopped at {clockText(way.news.progress.sample.t_s)} of {clockText(way.news.progress.duration_s)}: what it
          comes to is not known.
        </Box>
      )}
      <Begun choice={choice} isThere={course !== undefined || played.running} onPlay={play} />
      {course && (
        <PlayedCourse
          key={choice.key}
          now={course.now}
          before={course.before}
          scenario={choice.scenario}
          isRunning={played.running}
        />
      )}
      <Caution>
        It is computed from what is described, and is no test: prove vents, caps and valves on the real tank, with water
        or outdoors, before fuel goes in.
      </Caution>
    </Box>
  );
}

/** What is chosen is played at once the first time. */
function Begun({
  choice,
  isThere,
  onPlay,
}: {
  readonly choice: Choice;
  readonly isThere: boolean;
  readonly onPlay: (choice: Choice) => void;
}) {
  useEffect(() => {
    if (!isThere) onPlay(choice);
    // Once for each that is chosen: what was stopped is not begun again by itself.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [choice.key]);
  return null;
}

function PlayedCourse({
  now: { of, played },
  before,
  scenario,
  isRunning,
}: {
  readonly now: Course;
  readonly before: Course | undefined;
  /** As it is asked now. */ readonly scenario: Scenario;
  readonly isRunning: boolean;
}) {
  const system = useSystem();
  if (!played.ok)
    return (
      <Panel title="It could not be played" testId="verdict">
        <Box color="stop" fontWeight="650" role="alert">
          {played.error.at}: {played.error.detail}
        </Box>
      </Panel>
    );
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4" opacity={isRunning ? 0.5 : 1}>
      <Picture
        played={played.value}
        of={of}
        before={before?.played.ok ? before.played.value : undefined}
        isOld={!holdsFor('played', of, system) || !dequal(played.value.scenario, scenario)}
      />
    </Box>
  );
}

function Picture({
  played,
  of,
  before,
  isOld,
}: {
  readonly played: Played;
  readonly of: SystemDocument;
  readonly before: Played | undefined;
  readonly isOld: boolean;
}) {
  const reader = useReader();
  const { at_s, span: chosen } = useCourses();
  const t = Math.min(useTank(), of.tanks.length - 1);
  const { run, scenario } = played;
  const { duration_s } = scenario;
  const span: Span = chosen ?? [0, duration_s];
  const onTime = (next_s: number): void => goToTime(next_s, duration_s);
  const told = useMemo(() => toldOf(run.events, scenario, of, reader), [run, scenario, of, reader]);
  return (
    <>
      <VerdictPanel played={played} before={before} isOld={isOld} onTime={onTime} />
      <Beside
        share="1fr 1fr"
        picture={
          <MomentPanel
            played={played}
            of={of}
            at_s={at_s}
            told={told}
            tank={t}
            span={span}
            onTime={onTime}
            onTank={chooseTank}
            onSpan={showSpan}
          />
        }
      >
        <ChartsPanel span={span} played={played} of={of} before={before} at_s={at_s} told={told} onTime={onTime} />
        <EventsPanel told={told} at_s={at_s} onTime={onTime} />
      </Beside>
    </>
  );
}
