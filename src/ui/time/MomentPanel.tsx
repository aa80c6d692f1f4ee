'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Pause, Play, ZoomIn, ZoomOut } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { positionsAt, sampleAt, type Played } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { withPositions } from '@/core/state';
import { clockText, formatQuantity } from '@/core/units';
import { SolidPicture } from '../drawing/Picture';
import { Circuits } from '../lines/SchematicPanel';
import { Button } from '../parts/Button';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { SquareButton } from '../parts/SquareButton';
import { useReader } from '../state/reader';
import { Levels, roundedLean } from './Levels';
import { spanAbout, type Span } from './span';
import { leanWords, overWords, type Told } from './timeWords';
import { useMoment } from './useMoment';

/** Each press shows so many times less or more time. */
const CLOSER = 4;
const LEAST_SPAN_S = 0.5;
/** What the slider goes over is shown in so long. */
const SHOWN_IN_MS = 15_000;
/** The slider goes in so many steps; keys with a large step go a twentieth. */
const STEPS = 1000;

/** The tanks at one moment of a course: a slider goes through it, or it goes by itself. */
export function MomentPanel({
  played: { run, scenario },
  of,
  at_s,
  told,
  tank,
  span,
  onTime,
  onTank,
  onSpan,
}: {
  readonly played: Played;
  readonly of: SystemDocument;
  readonly at_s: number;
  readonly told: readonly Told[];
  /** Which one is seen in three dimensions. */ readonly tank: number;
  readonly onTime: (at_s: number) => void;
  readonly onTank: (tank: number) => void;
  /** What the slider goes over [s]. */ readonly span: Span;
  readonly onSpan: (span: Span) => void;
}) {
  const reader = useReader();
  const [view, setView] = useState<'solid' | 'circuits'>('solid');
  const { duration_s } = scenario;
  const [from_s, to_s] = span;
  const sample = sampleAt(run.samples, at_s);
  const volumes_m3 = sample.tanks.map(({ volume_m3 }) => Math.max(0, volume_m3));
  const { pitch_deg, roll_deg } = sample;
  const { value, fresh } = useMoment(of, { pitch_deg, roll_deg, volumes_m3 }, tank);
  const moment = value?.ok ? value.value : undefined;
  const last = told.findLast(({ t_s }) => t_s <= at_s);
  const text = (volume_m3: number): string => formatQuantity(volume_m3, 'tankVolume', { reader }).text;
  return (
    <Panel title="At one moment" testId="moment">
      <Box display="flex" gap="3" alignItems="center">
        <Player at_s={at_s} span={span} onTime={onTime} />
        <Box flex="1" minW="0">
          <Box fontSize="2xl" fontWeight="800" lineHeight="1.15" data-testid="moment-time">
            {clockText(at_s)}
          </Box>
          <Box fontSize="sm" color="soft" minH="1.5em">
            {last ? `${last.says}${last.t_s < at_s ? `, at ${clockText(last.t_s)}` : ''}` : ''}
          </Box>
        </Box>
        <SquareButton
          label="Closer: less time about this moment"
          disabled={to_s - from_s <= LEAST_SPAN_S}
          onClick={() => onSpan(spanAbout(at_s, (to_s - from_s) / CLOSER, duration_s))}
        >
          <ZoomIn size={20} aria-hidden />
        </SquareButton>
        <SquareButton
          label="Wider: more time about this moment"
          disabled={to_s - from_s >= duration_s}
          onClick={() => onSpan(spanAbout(at_s, (to_s - from_s) * CLOSER, duration_s))}
        >
          <ZoomOut size={20} aria-hidden />
        </SquareButton>
      </Box>
      <chakra.input
        type="range"
        aria-label="Time"
        aria-valuetext={`${clockText(at_s)} of ${clockText(duration_s)}`}
        min={0}
        max={STEPS}
        step={1}
        value={Math.round(((at_s - from_s) / (to_s - from_s)) * STEPS)}
        onChange={(event) => onTime(from_s + (Number(event.target.value) / STEPS) * (to_s - from_s))}
        width="100%"
        minH="40px"
        accentColor="var(--chakra-colors-accent)"
      />
      <Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(150px, 1fr))" gap="3" mb="2">
        {of.tanks.map(({ id, name }, t) => (
          <chakra.button
            key={id}
            type="button"
            textAlign="left"
            cursor="pointer"
            aria-pressed={of.tanks.length > 1 ? t === tank : undefined}
            onClick={() => onTank(t)}
            borderLeftWidth="4px"
            borderColor={t === tank ? 'accent' : 'rule'}
            pl="2"
            minH="44px"
            data-testid={`moment-${id}`}
          >
            <Box fontSize="sm" color="soft">
              {name}
            </Box>
            <Box fontSize="xl" fontWeight="800" lineHeight="1.2">
              {text(volumes_m3[t]!)}
            </Box>
            <Box fontSize="sm">{overWords(sample.tanks[t]!.gauge_Pa, reader)}</Box>
            {moment?.tanks[t]?.needles.map(({ id: sender, name: called, needle }) => (
              <Box key={sender} fontSize="sm" opacity={fresh ? 1 : 0.5}>
                {needle.ok
                  ? `${called} shows ${formatQuantity(needle.value, 'share', { reader }).text}`
                  : `${called}: ${needle.error.detail}`}
              </Box>
            ))}
          </chakra.button>
        ))}
      </Box>
      <Box fontSize="sm" color="soft">
        The vehicle stands {leanWords(roundedLean(pitch_deg), roundedLean(roll_deg), reader)}.
      </Box>
      {value?.ok === false && <NotWorkedOut why={value.error.detail} />}
      <Levels
        of={of}
        samples={run.samples}
        now={sample}
        drawings={moment?.tanks.map(({ drawing }) => drawing)}
        fresh={fresh}
      />
      <Box display="flex" gap="2" mt="3" mb="2" className="no-print">
        {(['solid', 'circuits'] as const).map((key) => (
          <Button
            key={key}
            kind={key === view ? 'main' : 'plain'}
            isPressed={key === view}
            onClick={() => setView(key)}
          >
            {key === 'solid' ? `${of.tanks[tank]!.name} in the round` : 'All circuits'}
          </Button>
        ))}
      </Box>
      {view === 'solid' ? (
        <Box height="220px" className="no-print">
          <SolidPicture solid={moment?.tanks[tank]?.solid} fresh={fresh} />
        </Box>
      ) : (
        <Circuits
          system={withPositions(of, positionsAt(scenario, run.events, of, at_s))}
          flows={{
            flowOf: (line) => sample.lines_m3PerS[of.lines.findIndex(({ id }) => id === line)],
            noteOf: (part) => {
              const t = of.tanks.findIndex(({ id }) => id === part);
              return t < 0 ? undefined : text(volumes_m3[t]!);
            },
          }}
        />
      )}
    </Panel>
  );
}

/** Goes through what the slider goes over by itself, and stops at its end. */
function Player({
  at_s,
  span: [from_s, to_s],
  onTime,
}: {
  readonly at_s: number;
  readonly span: Span;
  readonly onTime: (at_s: number) => void;
}) {
  const [playing, setPlaying] = useState(false);
  const place = useRef({ at_s, onTime });
  useEffect(() => {
    place.current = { at_s, onTime };
  });
  useEffect(() => {
    if (!playing) return undefined;
    let frame = 0;
    let then = performance.now();
    const go = (now: number): void => {
      const next = place.current.at_s + ((now - then) / SHOWN_IN_MS) * (to_s - from_s);
      then = now;
      place.current.onTime(Math.min(to_s, next));
      if (next >= to_s) return setPlaying(false);
      frame = requestAnimationFrame(go);
    };
    frame = requestAnimationFrame(go);
    return () => cancelAnimationFrame(frame);
  }, [playing, from_s, to_s]);
  return (
    <SquareButton
      label={playing ? 'Pause' : 'Show it going on'}
      onClick={() => {
        if (!playing && at_s >= to_s) onTime(from_s);
        setPlaying(!playing);
      }}
    >
      {playing ? <Pause size={20} aria-hidden /> : <Play size={20} aria-hidden />}
    </SquareButton>
  );
}
