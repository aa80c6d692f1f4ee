'use client';

import { flowRole } from '@/core/plan';
import { Box, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { AS_IT_STANDS, COMFORT_RATIO, VAPOUR_MARGIN_PA, type FlowResult } from '@/core/answers';
import { clockText } from '@/core/units';
import { Button } from '../parts/Button';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useOutcome } from '../state/answers';
import { useSystem } from '../state/editor';
import { useDetails } from '../state/results';
import { useLines } from '../state/useLines';
import { chooseScenario } from '../time/courses';
import { VerdictItem } from '../time/VerdictPanel';
import { usePlace } from '../workspace/goTo';

const DUTY_WORDS = { idle: 'idle', cruise: 'at the set duty', full: 'full load' } as const;

/**
 * Whether the fuel gets to a consumer: what arrives against what it needs, at each duty, and how near it comes to
 * boiling.
 */
export function AnswersPanel({ k }: { readonly k: number }) {
  const system = useSystem();
  const { results } = useDetails();
  const consumer = system.consumers[k]!;
  const flow = results?.ok ? results.evaluation.flows[k] : undefined;
  if (!flow) return null;
  if (!flow.ok) {
    // With what air there is in the tank some flows, until its vacuum holds the rest back.
    const isForAWhile = flow.error.code === 'vent-shut';
    return (
      <Panel title={`To ${consumer.name}`} testId="answers">
        <Box color="stop" fontWeight="700" fontSize="xl">
          ■ {isForAWhile ? 'No air follows' : 'Nothing flows'}
        </Box>
        <Box mt="1">{flow.error.detail}</Box>
        {isForAWhile && <PlayedOut />}
      </Panel>
    );
  }
  return (
    <>
      <Answers title={`To ${consumer.name}`} value={flow.value} />
      <PrimingPanel consumer={consumer.id} />
    </>
  );
}

/** What comes of it from how all stands now: a tank without air runs on for a while, and that is no steady flow. */
function PlayedOut() {
  const goToTask = usePlace((place) => place.goToTask);
  const { value: played, fresh } = useOutcome('played', AS_IT_STANDS);
  return (
    <Box mt="3" data-testid="played-out">
      <Box fontWeight="650">
        Run on at full load from how all stands now
        {played?.ok && `, for ${clockText(played.value.scenario.duration_s)}`}
      </Box>
      {!played && <Box color="soft">Being worked out…</Box>}
      {played?.ok === false && <NotWorkedOut why={played.error.detail} />}
      {played?.ok && (
        <chakra.ul listStyleType="none" m="0" p="0" opacity={fresh ? 1 : 0.6}>
          {played.value.verdict.map((line, i) => (
            <VerdictItem key={i} line={line} isFirst={false} />
          ))}
        </chakra.ul>
      )}
      <Box mt="2">
        <Button
          onClick={() => {
            chooseScenario(AS_IT_STANDS);
            goToTask('vents', 'time');
          }}
        >
          See it over time
        </Button>
      </Box>
    </Box>
  );
}

/** What it takes to fill the dry feed, and how a dosing pump strokes. */
function PrimingPanel({ consumer }: { readonly consumer: string }) {
  const { lines } = useLines();
  const priming = lines?.primings.find((each) => each.consumer === consumer);
  if (!priming) return null;
  const { dry_m3, time_s, strokes, pumpName } = priming;
  return (
    <Panel title="Priming" testId="priming">
      <Box>
        Dry, pickup and lines take{' '}
        <b>
          <Quantity value={dry_m3} role={dry_m3 < SMALL_M3 ? 'dose' : 'smallVolume'} digits={2} />
        </b>
        ;{' '}
        {time_s === undefined ? (
          <Box as="span" color="warn" fontWeight="650">
            {pumpName} moves nothing as it stands
          </Box>
        ) : (
          <>
            {pumpName} fills them in{' '}
            <b>
              <Quantity value={time_s} role="duration" digits={2} />
            </b>{' '}
            at the least
          </>
        )}
        .
      </Box>
      {strokes && (
        <Box mt="1">
          It strokes <b>{strokes.full_perS.toFixed(1)}</b> times a second at full load, {strokes.idle_perS.toFixed(1)}{' '}
          at its lowest; {strokes.most_perS.toFixed(1)} is the most that it does.
        </Box>
      )}
    </Panel>
  );
}
/** What is less is told in millilitres [m³]. */
const SMALL_M3 = 1e-3;

function Answers({ title, value }: { readonly title: string; readonly value: FlowResult }) {
  const role = flowRole(value.needed_m3PerS);
  const tone = value.margin_ratio < 1 ? 'stop' : value.margin_ratio < COMFORT_RATIO ? 'warn' : 'good';
  const sign = tone === 'good' ? '●' : tone === 'warn' ? '▲' : '■';
  const times = value.margin_ratio >= 10 ? value.margin_ratio.toFixed(0) : value.margin_ratio.toFixed(1);
  return (
    <Panel title={title} testId="answers">
      <Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(180px, 1fr))" gap="4">
        <Figure
          label="Arrives"
          note={
            <>
              {times} × the <Quantity value={value.needed_m3PerS} role={role} /> needed
            </>
          }
          tone={tone}
          sign={sign}
        >
          <Quantity value={value.delivered_m3PerS} role={role} />
        </Figure>
        <Figure
          label="Pressure at the needed flow"
          note={
            <>
              <Quantity value={value.neededPressure_Pa} role="pressure" /> needed
            </>
          }
          tone={value.pressureAtNeed_Pa < value.neededPressure_Pa ? 'stop' : 'good'}
          sign={value.pressureAtNeed_Pa < value.neededPressure_Pa ? '■' : '●'}
        >
          <Quantity value={value.pressureAtNeed_Pa} role="pressure" />
        </Figure>
        <Figure
          label="Margin to vapour lock"
          note={<>at {value.suction.node}</>}
          tone={value.suction.margin_Pa < 0 ? 'stop' : value.suction.margin_Pa < VAPOUR_MARGIN_PA ? 'warn' : 'good'}
          sign={value.suction.margin_Pa < 0 ? '■' : value.suction.margin_Pa < VAPOUR_MARGIN_PA ? '▲' : '●'}
        >
          <Quantity value={value.suction.margin_Pa} role="pressure" />
        </Figure>
      </Box>
      {value.duties.length > 0 && value.duties.some(({ drawn_m3PerS }) => drawn_m3PerS !== value.needed_m3PerS) && (
        <Box mt="3" display="flex" gap="5" flexWrap="wrap" fontSize="md">
          {value.duties.map((duty) => (
            <Box key={duty.duty}>
              <Box as="span" color="soft">
                {DUTY_WORDS[duty.duty]}:{' '}
              </Box>
              <Quantity value={duty.drawn_m3PerS} role={role} /> drawn,{' '}
              <b>
                {duty.pressure_Pa === undefined ? (
                  '? not worked out'
                ) : (
                  <Quantity value={duty.pressure_Pa} role="pressure" />
                )}
              </b>{' '}
              there
            </Box>
          ))}
        </Box>
      )}
    </Panel>
  );
}

function Figure({
  label,
  children,
  note,
  tone,
  sign,
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly note: ReactNode;
  readonly tone: 'good' | 'warn' | 'stop';
  readonly sign: string;
}) {
  return (
    <Box>
      <Box color="soft" fontSize="sm">
        {label}
      </Box>
      <Box fontSize="2xl" fontWeight="700" lineHeight="1.2">
        {children}
      </Box>
      <Box fontSize="sm" color={tone}>
        <Box as="span" aria-hidden>
          {sign}{' '}
        </Box>
        {note}
      </Box>
    </Box>
  );
}
