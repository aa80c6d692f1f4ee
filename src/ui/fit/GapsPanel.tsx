'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect } from 'react';
import type { SystemDocument } from '@/core/plan';
import { allKnown, type FitGap, type MountGap, type TankFit } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { Button } from '../parts/Button';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useAnswer, useAsked } from '../state/answers';
import { setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { openTank, useTank } from '../state/tankChoice';
import { pathWords } from '../measure/pathWords';
import { changeWords, travelWords } from './fitWords';
import { cardTable } from '../parts/cardTable';

type Props = {
  readonly fit: TankFit | undefined;
  readonly gap: FitGap | undefined;
  readonly onChoose: (to: string) => void;
};

const HEADS = ['to', 'clearance', 'at worst', 'to keep', 'from'];
const CARDS = cardTable(HEADS);

const percent = (chance: number): string =>
  chance > 0.995 ? 'over 99 %' : chance < 0.005 ? 'under 1 %' : `${Math.round(chance * 100)} %`;

/** Whether a clearance is to a wall of a bay of which nothing is measured. */
function isGuessed({ fit: { bay } }: SystemDocument, kind: FitGap['kind']): boolean {
  return (
    kind === 'wall' &&
    bay.kind === 'measured' &&
    allKnown(bay).every(({ known }) => known.origin === 'assumed' || known.value === 0)
  );
}

/** The tightest place as the largest number, then every clearance, then what would free the chosen one. */
export function GapsPanel({ fit, gap, onChoose }: Props) {
  const system = useSystem();
  const reader = useReader();
  const { value: outcome, standing, reason: failed } = useAnswer('clearances');
  const known = outcome !== undefined;
  const fresh = standing === 'fresh';
  const isDescribed = system.fit.bay.kind !== 'none' || system.fit.obstacles.length > 0;
  if (isDescribed && failed !== undefined)
    return (
      <Panel title="Does it fit?" testId="gaps">
        <NotWorkedOut why={failed} />
      </Panel>
    );
  if (isDescribed && !known)
    return (
      <Panel title="Does it fit?" testId="gaps">
        <Box color="soft">Working out the clearances…</Box>
      </Panel>
    );
  if (isDescribed && !fit)
    return (
      <Panel title="Does it fit?" testId="gaps">
        <Box color="stop" fontWeight="650">
          It cannot be worked out: see the findings of this task.
        </Box>
      </Panel>
    );
  if (!fit || fit.gaps.length === 0) {
    return (
      <Panel title="Does it fit?" testId="gaps">
        <Box color="soft">
          Nothing is said of the space yet. Describe it at Bay and Obstacles; clearances follow at once.
        </Box>
      </Panel>
    );
  }
  const tightest = fit.gaps[0]!;
  // Drawn round the tank to begin with, a bay says nothing until something of it is measured.
  const guessed = isGuessed(system, tightest.kind);
  const word = guessed
    ? 'Not judged: nothing here has been measured yet'
    : tightest.distance_m < -5e-4
      ? 'Does not fit'
      : tightest.distance_m < tightest.keep_m
        ? 'Fits, but tighter than asked'
        : 'Fits';
  const tone = guessed
    ? 'soft'
    : tightest.distance_m < -5e-4
      ? 'stop'
      : tightest.distance_m < tightest.keep_m
        ? 'warn'
        : 'good';
  return (
    <Panel title={`Does ${fit.name} fit?`} testId="gaps">
      <Box display="flex" columnGap="6" rowGap="1" flexWrap="wrap" alignItems="baseline">
        <Box
          fontSize={{ base: '2xl', md: '4xl' }}
          fontWeight="750"
          color={tone}
          lineHeight="1.1"
          data-testid="tightest"
          data-fresh={fresh}
          opacity={fresh ? 1 : 0.6}
        >
          <Quantity value={tightest.distance_m} role="tape" />
        </Box>
        <Box fontWeight="650">
          {word}. Tightest: {tightest.pieceName} to {tightest.name}
          {travelWords(system, tightest) ? `, ${travelWords(system, tightest)}` : ''}.
        </Box>
      </Box>
      <Box color="soft" mb="3">
        {guessed ? (
          'The bay was drawn round the tank to begin with. Measure it at Bay, and this says whether the tank fits.'
        ) : (
          <>
            As measured it touches nothing with {percent(fit.chanceClear)} probability, and keeps every distance asked
            for with {percent(fit.chanceKept)}.
          </>
        )}
      </Box>
      {!guessed && fit.unknown.length > 0 && (
        <Box color="warn" fontWeight="600" mb="3" data-testid="fit-unknown">
          Not counted in it, since what it does is not worked out:{' '}
          {fit.unknown
            .map((path) => {
              const { owner, label } = pathWords(system, path);
              return `${owner}, ${label}`;
            })
            .join('; ')}
          . The chances are no surer than that.
        </Box>
      )}
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Clearances, a row each">
        <chakra.table borderCollapse="collapse" width="100%" minW="520px" aria-label="Clearances" css={CARDS}>
          <thead>
            <tr>
              {HEADS.map((head, i) => (
                <chakra.th
                  key={head}
                  textAlign={i % 4 === 0 ? 'left' : 'right'}
                  px="2"
                  py="1"
                  color="soft"
                  fontWeight="600"
                >
                  {head}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {fit.gaps.map((other) => {
              const bad = other.distance_m < -5e-4 ? 'stop' : other.distance_m < other.keep_m ? 'warn' : undefined;
              return (
                <chakra.tr
                  key={other.to}
                  borderTopWidth="1px"
                  borderColor="rule"
                  bg={other === gap ? 'sunk' : undefined}
                >
                  <td>
                    <chakra.button
                      type="button"
                      aria-pressed={other === gap}
                      onClick={() => onChoose(other.to)}
                      textAlign="left"
                      px="2"
                      minH="42px"
                      width="100%"
                      fontWeight="650"
                      cursor="pointer"
                      color={bad}
                    >
                      {other.name}
                      {travelWords(system, other) ? (
                        <chakra.span color="soft" fontWeight="400">
                          , {travelWords(system, other)}
                        </chakra.span>
                      ) : null}
                    </chakra.button>
                  </td>
                  <chakra.td px="2" textAlign="right" fontWeight="750" color={bad} data-testid={`gap-${other.to}`}>
                    {bad === 'stop' ? 'overlaps ' : ''}
                    {formatQuantity(bad === 'stop' ? -other.distance_m : other.distance_m, 'tape', { reader }).text}
                  </chakra.td>
                  <chakra.td px="2" textAlign="right">
                    {formatQuantity(other.worst_m, 'tape', { reader }).text}
                  </chakra.td>
                  <chakra.td px="2" textAlign="right">
                    {formatQuantity(other.keep_m, 'tape', { reader }).text}
                  </chakra.td>
                  <chakra.td px="2">{other.pieceName}</chakra.td>
                </chakra.tr>
              );
            })}
          </tbody>
        </chakra.table>
      </Box>
      {outcome?.ok && <MountRows tank={fit.tank} mounts={outcome.value.mounts} />}
      {gap && gap.distance_m < gap.keep_m - 5e-4 && <Mends gap={gap} />}
    </Panel>
  );
}

/** Less than this is rounding and rubber [m]. */
const TOUCH_M = 5e-4;

/** What holds and guards the tank: the tightest place of each. */
function MountRows({ tank, mounts }: { readonly tank: string; readonly mounts: readonly MountGap[] }) {
  const system = useSystem();
  const own = system.mounts.flatMap(({ id, tank: of }) => {
    const tightest = of === tank ? mounts.find(({ mount }) => mount === id) : undefined;
    return tightest ? [tightest] : [];
  });
  // A strap of which nothing more is said is counted with its tank.
  const unknown = system.mounts.filter(
    ({ id, tank: of, kind, made }) => of === tank && (made || kind !== 'strap') && !own.some((one) => one.mount === id),
  );
  if (own.length + unknown.length === 0) return null;
  const overlap = own.filter(({ distance_m }) => distance_m < -TOUCH_M);
  const isShort = ({ distance_m, keep_m }: MountGap): boolean => distance_m < keep_m - TOUCH_M;
  const near = own.filter((one) => isShort(one) && !overlap.includes(one));
  const tone = overlap.length > 0 ? 'stop' : near.length + unknown.length > 0 ? 'warn' : 'good';
  return (
    <Box mt="3" data-testid="mount-gaps">
      <Box fontWeight="700" color={tone}>
        {overlap.length > 0
          ? `What holds it does not fit: ${overlap.map(({ mountName }) => mountName).join(', ')}`
          : near.length > 0
            ? `What holds it comes too near: ${near.map(({ mountName }) => mountName).join(', ')}`
            : unknown.length > 0
              ? 'Whether what holds it fits is not known of all'
              : 'What holds it fits'}
      </Box>
      {unknown.length > 0 && (
        <Box color="warn">
          Not judged, since it is not at the tank or it is not said how it is made:{' '}
          {unknown.map(({ name }) => name).join(', ')}.
        </Box>
      )}
      <Box color="soft" mb="1">
        As measured, with no spread. It may touch what stands still, to which it is bolted.
      </Box>
      {own.map((one) => (
        <Box
          key={one.mount}
          display="grid"
          gridTemplateColumns="1fr auto"
          gap="3"
          borderTopWidth="1px"
          borderColor="rule"
          py="1.5"
          px="2"
        >
          <Box>
            <b>{one.mountName}</b> to {one.name}
          </Box>
          <Box fontWeight="700" color={one.distance_m < -TOUCH_M ? 'stop' : isShort(one) ? 'warn' : undefined}>
            {one.distance_m < -TOUCH_M && 'overlaps '}
            <Quantity value={Math.abs(one.distance_m)} role="tape" />
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/**
 * What would give the chosen place what is asked, with what it costs and what then is tightest; one press applies it.
 */
function Mends({ gap }: { readonly gap: FitGap }) {
  const sides = useSides();
  const t = useTank();
  const reader = useReader();
  const { answer, fresh, running, ask } = useAsked('changes');
  const key = `${t} ${gap.to} ${gap.distance_m}`;
  useEffect(() => {
    void ask(t, gap);
    // The key says which gap is asked about.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return (
    <Box mt="3" borderTopWidth="1px" borderColor="rule" pt="3" data-testid="mends">
      <Box fontWeight="700" mb="2">
        What gives {gap.name} its room
      </Box>
      {running && <Box color="soft">Working it out…</Box>}
      {answer?.ok &&
        fresh &&
        answer.value.map(({ change, tank, volume_m3, margin_m }, i) => (
          <Box key={i} display="flex" gap="3" alignItems="center" flexWrap="wrap" py="1">
            <Button onClick={() => setValue(changeWords(change, sides, reader), ['tanks', openTank()], tank)}>
              {changeWords(change, sides, reader)}
            </Button>
            <Box fontWeight="650">
              {Math.abs(volume_m3) < 5e-6
                ? 'costs no volume'
                : `${volume_m3 < 0 ? 'costs' : 'adds'} ${formatQuantity(Math.abs(volume_m3), 'tankVolume', { reader }).text}`}
            </Box>
            {margin_m !== undefined && (
              <Box color={margin_m < -5e-4 ? 'warn' : 'good'}>
                {margin_m < -5e-4
                  ? `then ${formatQuantity(-margin_m, 'tape', { reader }).text} short elsewhere`
                  : 'then every distance is kept'}
              </Box>
            )}
          </Box>
        ))}
    </Box>
  );
}
