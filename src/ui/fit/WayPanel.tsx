'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { parseWay, shellsIn, WAY_EXAMPLE, type SystemDocument, type WayStep } from '@/core/plan';
import { moveOf, partChoices, stepOf, type WayNews, type WayCheck, type WayPicture } from '@/core/answers';
import { alongMove } from '@/core/fit';
import { placed, type Pose } from '@/core/geometry';
import { formatQuantity } from '@/core/units';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { Panel } from '../parts/Panel';
import { useAsked } from '../state/answers';
import { stopSearch } from '../state/lanes';
import { applyEdit, openDocument, useSystem, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { movingOf, type Moving } from './FitViews';
import { OpeningsWords, Searched, type Search } from './SearchWords';
import { withWay } from './fitEdits';
import { stepWords } from './fitWords';

/** Gaps smaller than this are told to a tenth [m]: 0.3 mm is not none. */
const SMALL_M = 0.01;

/**
 * How a part comes out: a way that is typed and checked, or one that is looked for; played step by step in the drawing.
 */
export function WayPanel({ onMoving }: { readonly onMoving: (moving: Moving | undefined) => void }) {
  const sides = useSides();
  const system = useSystem();
  const reader = useReader();
  const choices = useValue(useShallow((document) => partChoices(document).map(({ id, name }) => `${id} ${name}`)));
  const [chosen, setPart] = useState<string>();
  const ids = choices.map((choice) => choice.split(' ')[0]!);
  const part = chosen && ids.includes(chosen) ? chosen : ids[0]!;
  const kept = system.fit.removals.find((way) => way.part === part)?.steps;
  const [steps, setSteps] = useState<{ readonly part: string; readonly steps: readonly WayStep[] }>();
  const shown = steps?.part === part ? steps.steps : kept;
  const check = useAsked('wayCheck');
  const found = useAsked('way');
  const order = useAsked('wayOrder');
  // A search that nobody looks at any more would go on for ever.
  useEffect(() => stopSearch, []);
  const [search, setSearch] = useState<Search>();
  const size = (value: number): string => formatQuantity(value, value < SMALL_M ? 'bore' : 'tape', { reader }).text;
  const nameOf = (id: string): string =>
    partChoices(system).find((choice) => choice.id === id)?.name ??
    system.fit.obstacles.find((obstacle) => obstacle.id === id)?.name ??
    (system.fit.bay.kind === 'measured'
      ? (system.fit.bay.sides.find((side) => side.id === id)?.name ??
        (id === 'near-end' ? system.fit.bay.nearEnd.name : id === 'far-end' ? system.fit.bay.farEnd.name : id))
      : id);

  const nearestWords = (check: WayCheck): string =>
    Number.isFinite(check.tightest_m)
      ? `no nearer than ${size(check.tightest_m)}${check.tightestTo ? ` to ${nameOf(check.tightestTo)}` : ''}`
      : 'past nothing that is described';
  const lookAt = (next: readonly WayStep[]): void => {
    setSteps({ part, steps: next });
    void check.ask(part, next);
  };
  const enter = (text: string) => {
    const read = parseWay(text, reader);
    if (!read.ok) return { ok: false as const, message: `${read.error.at}: ${read.error.detail}` };
    lookAt(read.value);
    return { ok: true as const };
  };
  const find = (): void => {
    stop();
    found.forget();
    setSearch({ part, system: openDocument() });
    const tell = (news: WayNews): void => setSearch((before) => before && { ...before, ...news });
    void found.ask(part, tell).then((answer) => {
      if (answer?.ok && answer.value.way.ok) setSteps({ part, steps: answer.value.way.value.moves.map(stepOf) });
    });
  };
  /** One worker does one obstacle at a time. */
  const stop = (): void => {
    if (!found.running && !order.running) return;
    if (found.running) setSearch((before) => before && { ...before, stopped: true });
    found.stop();
    order.stop();
  };
  const undone = undoneFirst(system, part);
  const way = found.answer?.ok ? found.answer.value : undefined;
  return (
    <Panel title="In and out" testId="removals">
      <Box display="flex" gap="2" flexWrap="wrap" alignItems="end">
        <Select
          label="What comes out"
          value={part}
          options={choices.map((choice) => ({
            value: choice.split(' ')[0]!,
            label: choice.slice(choice.indexOf(' ') + 1),
          }))}
          onChange={(id) => {
            stop();
            setPart(id);
            found.forget();
            check.forget();
            order.forget();
            onMoving(undefined);
          }}
        />
        <Button kind="main" disabled={found.running} onClick={find}>
          {found.running ? 'Looking for a way…' : 'Find a way out'}
        </Button>
        <Button
          disabled={order.running}
          onClick={() => {
            stop();
            void order.ask(part);
          }}
        >
          {order.running ? 'Working out the order…' : 'What must come out first?'}
        </Button>
        {(found.running || order.running) && (
          <Button kind="danger" onClick={stop}>
            Stop
          </Button>
        )}
      </Box>
      {undone && (
        <Box color="soft" mt="2">
          {undone}
        </Box>
      )}
      <Box mt="3">
        <TextEntry
          label="Or say how, and see whether it goes"
          value=""
          onEnter={enter}
          hint={`Moves parted by commas, such as: ${sides(WAY_EXAMPLE)}.`}
        />
      </Box>
      {found.answer && !found.answer.ok && (
        <Box role="alert" mt="2" color="stop" fontWeight="600">
          {found.answer.error.at}: {found.answer.error.detail}
        </Box>
      )}
      {search?.part === part && !way && (
        <Searched search={search} running={found.running} changed={search.system !== system} size={size} />
      )}
      {way && !way.way.ok && (
        <Box mt="2" color="stop" fontWeight="600" data-testid="no-way">
          {way.way.error.detail} <OpeningsWords openings={way.openings} size={size} />
        </Box>
      )}
      {way?.way.ok && (
        <Box mt="2" fontWeight="650" color={found.fresh ? 'good' : 'soft'} data-testid="way-found">
          A way out, {nearestWords(way.way.value.check)}.{found.fresh ? '' : ' The system has changed since.'}
        </Box>
      )}
      {check.answer && !check.answer.ok && (
        <Box role="alert" mt="2" color="stop" fontWeight="600">
          {check.answer.error.detail}
        </Box>
      )}
      {check.answer?.ok && (
        <Checked
          check={check.answer.value}
          fresh={check.fresh}
          nearestWords={nearestWords}
          nameOf={nameOf}
          size={size}
        />
      )}
      {shown && shown.length > 0 && (
        <Player
          key={`${part} ${shown.length}`}
          part={part}
          title={shown === kept ? 'The way that is kept' : 'This way, not kept yet'}
          steps={shown}
          onMoving={onMoving}
        />
      )}
      {shown && shown.length > 0 && (
        <Box mt="2" display="flex" gap="2" flexWrap="wrap">
          <Button
            disabled={shown === kept}
            onClick={() => {
              applyEdit(`keep the way out of ${nameOf(part)}`, (document) => withWay(document, part, [...shown]));
              setSteps(undefined);
            }}
          >
            {shown === kept ? 'This way is kept' : 'Keep this way'}
          </Button>
          <Button onClick={() => lookAt(shown)}>Check it again</Button>
        </Box>
      )}
      {order.answer && !order.answer.ok && (
        <Box role="alert" mt="2" color="stop" fontWeight="600">
          {order.answer.error.detail}
        </Box>
      )}
      {order.answer?.ok && (
        <Box mt="3" opacity={order.fresh ? 1 : 0.5} data-testid="removal-order">
          <Box fontWeight="700">Order of removal</Box>
          <chakra.ol pl="6" css={{ listStyle: 'decimal' }}>
            {order.answer.value.map(
              ({
                id,
                name,
                way: {
                  moves,
                  check: { tightest_m },
                },
              }) => (
                <chakra.li key={id} py="1">
                  <b>{name}</b>: {moves.map((move) => stepWords(stepOf(move), sides, reader)).join(', then ')}{' '}
                  <chakra.span color="soft">
                    ({Number.isFinite(tightest_m) ? `${size(tightest_m)} at the tightest` : 'past nothing'})
                  </chakra.span>
                </chakra.li>
              ),
            )}
          </chakra.ol>
        </Box>
      )}
      <Box mt="3">
        <Caution>
          Drain a tank before it is lifted out, and cap its lines: fuel weighs about 0.8 kg a litre, runs to one side,
          and its vapour lies low. Two people or a hoist.
        </Caution>
      </Box>
    </Panel>
  );
}

function Checked({
  check,
  fresh,
  nearestWords,
  nameOf,
  size,
}: {
  readonly check: WayCheck;
  readonly fresh: boolean;
  readonly nearestWords: (check: WayCheck) => string;
  readonly nameOf: (id: string) => string;
  readonly size: (value: number) => string;
}) {
  const last = check.steps.at(-1);
  const tone = check.isOut ? 'good' : 'stop';
  return (
    <Box mt="2" fontWeight="650" color={fresh ? tone : 'soft'} data-testid="way-check">
      {last?.blocked
        ? `Move ${check.steps.length} touches ${nameOf(last.blocked.by)} after ${Math.round(100 * last.blocked.share)} % of it.`
        : check.isOut
          ? `It comes out, ${nearestWords(check)}.`
          : `Nothing touches${Number.isFinite(check.tightest_m) ? ` (${size(check.tightest_m)} at the tightest)` : ''}, but after the last move it is not out yet.`}
      {fresh ? '' : ' The system has changed since.'}
    </Box>
  );
}

const SHARES_A_STEP = 12;
const FRAME_MS = 70;

/** Plays a way in the drawing: by itself, or step by step under the builder's thumb. */
function Player({
  part,
  title,
  steps,
  onMoving,
}: {
  readonly part: string;
  readonly title: string;
  readonly steps: readonly WayStep[];
  readonly onMoving: (moving: Moving | undefined) => void;
}) {
  const sides = useSides();
  const reader = useReader();
  const { answer, ask } = useAsked('wayPicture');
  const [frame, setFrame] = useState(0);
  const [playing, setPlaying] = useState(false);
  const most = steps.length * SHARES_A_STEP;
  const tell = useRef(onMoving);
  useEffect(() => {
    tell.current = onMoving;
  });
  useEffect(() => {
    void ask(part);
    return () => tell.current(undefined);
    // Asked once for each part.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [part]);
  useEffect(() => {
    if (!playing) return undefined;
    const timer = setInterval(() => setFrame((now) => Math.min(most, now + 1)), FRAME_MS);
    return () => clearInterval(timer);
  }, [playing, most]);
  const picture = answer?.ok ? answer.value : undefined;
  useEffect(() => {
    if (picture && frame > 0) tell.current(movingAt(part, picture, steps, frame / SHARES_A_STEP));
  }, [picture, frame, part, steps]);
  if (!picture) return null;
  const done = frame >= most;
  const step = Math.min(steps.length - 1, Math.floor(frame / SHARES_A_STEP));
  return (
    <Box mt="3">
      <Box fontWeight="700">{title}</Box>
      <chakra.ol pl="6" css={{ listStyle: 'decimal' }}>
        {steps.map((one, i) => (
          <chakra.li key={i} py="1" fontWeight={frame > 0 && i === step ? '750' : undefined}>
            {stepWords(one, sides, reader)}
          </chakra.li>
        ))}
      </chakra.ol>
      <Box display="flex" gap="2" alignItems="center" flexWrap="wrap" mt="1">
        <Button
          onClick={() => {
            if (done) setFrame(1);
            setPlaying(!playing || done);
          }}
        >
          {playing && !done ? 'Pause' : 'Play it'}
        </Button>
        <Button
          disabled={frame <= 0}
          onClick={() => {
            setPlaying(false);
            setFrame(Math.max(0, (Math.ceil(frame / SHARES_A_STEP) - 1) * SHARES_A_STEP));
          }}
        >
          Step back
        </Button>
        <Button
          disabled={done}
          onClick={() => {
            setPlaying(false);
            setFrame((Math.floor(frame / SHARES_A_STEP) + 1) * SHARES_A_STEP);
          }}
        >
          Step on
        </Button>
        <chakra.input
          type="range"
          aria-label="How far along the way"
          min={0}
          max={most}
          value={frame}
          onChange={(event) => {
            setPlaying(false);
            setFrame(Number(event.target.value));
          }}
          flex="1 1 160px"
          minH="42px"
          accentColor="var(--chakra-colors-accent)"
        />
      </Box>
    </Box>
  );
}

function movingAt(
  part: string,
  { part: { positions, triangles }, at, middle_m }: WayPicture,
  steps: readonly WayStep[],
  along: number,
): Moving {
  let pose: Pose = at;
  steps.forEach((step, i) => {
    if (along > i) pose = alongMove(pose, { middle_m }, moveOf(step), Math.min(1, along - i));
  });
  const points = Array.from(new Set(triangles), (vertex) =>
    placed(pose, [positions[3 * vertex]!, positions[3 * vertex + 1]!, positions[3 * vertex + 2]!]),
  );
  return movingOf(part, [points]);
}

/** What of a tank's mounts is taken to be undone before it comes out; nothing for other parts. */
function undoneFirst({ tanks, mounts }: SystemDocument, part: string): string | undefined {
  const shell = shellsIn(tanks).find((each) => each[0]?.id === part);
  if (!shell) return undefined;
  const own = mounts.filter(({ tank }) => shell.some(({ id }) => id === tank));
  const straps = own.some(({ kind }) => kind === 'strap');
  const tabs = own.some(({ kind, made }) => made && (kind === 'tab' || kind === 'flange'));
  return straps || tabs
    ? `Taken to be undone: ${[...(straps ? ['its straps'] : []), ...(tabs ? ['the bolts of its tabs, which go with it'] : [])].join(' and ')}. Whether a tool gets there stands below.`
    : undefined;
}
