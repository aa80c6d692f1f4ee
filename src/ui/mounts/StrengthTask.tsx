'use client';

import { Box, chakra } from '@chakra-ui/react';
import {
  GOES_WORDS,
  holds,
  SHOCK_CASES,
  weakest,
  type CaseHeld,
  type Mounts,
  type MountsOf,
  type WorstUse,
} from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { Button } from '../parts/Button';
import { cardTable } from '../parts/cardTable';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useAnswer, useOutcome } from '../state/answers';
import { applyEdit, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';
import { factorText } from './factors';
import { CASE_HEADS, changeWords, countedWords, partHead } from './mountWords';
import { SwingsPanel } from './SwingsPanel';

/** Whether the tank is held when it is thrown, what gives first, and what mends it. */
export function StrengthTask() {
  const t = useTank();
  const { value: mounts, standing, reason } = useAnswer('mounts');
  const shell = mounts?.ok ? mounts.value.shells.find(({ tanks }) => tanks.includes(t)) : undefined;
  return (
    <>
      <Panel title="Does it hold?" testId="strength">
        {mounts?.ok && shell ? (
          <Box opacity={standing === 'fresh' ? 1 : 0.6} data-fresh={standing === 'fresh'}>
            <Verdict shell={shell} mounts={mounts.value} />
            {shell.mounts.length > 0 && <Changes t={t} />}
            {shell.mounts.length > 0 && <Parts shell={shell} needed={mounts.value.needed} />}
            {shell.mounts.length > 0 && <Cases shell={shell} />}
            {shell.mounts.length > 0 && (
              <Box color="soft" mt="3" maxW="75ch">
                Not judged: cracks that grow in welds over years; the tank’s wall where it is round, or at an edge;
                bolts of a cradle pulled by its lip; and what the frame or floor bears beyond the bolts’ own holes.
                Metal as it is sold; factors are against a stress it comes back from.
              </Box>
            )}
          </Box>
        ) : reason !== undefined || mounts?.ok === false ? (
          <NotWorkedOut why={reason ?? (mounts?.ok === false ? mounts.error.detail : '')} />
        ) : (
          <Box color="soft">Working out how it is held…</Box>
        )}
      </Panel>
      {shell && <SwingsPanel shell={shell} />}
    </>
  );
}

function Verdict({ shell, mounts: { needed } }: { readonly shell: MountsOf; readonly mounts: Mounts }) {
  const system = useSystem();
  const verdict = holds(shell, needed);
  const first = weakest(shell);
  const loose = SHOCK_CASES.some((shock) => shell.cases[shock].held === false);
  const times = first?.factor === undefined ? '' : `: ${factorText(first.factor)} times what is asked`;
  const words =
    shell.mounts.length === 0
      ? 'Nothing is said of how it is held'
      : loose
        ? 'It is not held'
        : verdict === undefined
          ? 'Not known whether it holds'
          : `${verdict ? 'Holds' : 'Too weak'}${times}`;
  const name = first && system.mounts[first.mount]?.name;
  return (
    <Box mb="3">
      <Box
        fontSize="2xl"
        fontWeight="750"
        color={verdict === true ? 'good' : verdict === false ? 'stop' : 'warn'}
        data-testid="mount-verdict"
      >
        {words}
      </Box>
      <Box>
        {first && !loose && (
          <>
            {verdict === undefined ? 'Of what is known, first at' : 'First at'} <b>{name}</b>:{' '}
            {partHead(first.part, system.mounts[first.mount]?.kind)}. {needed} times is wanted.{' '}
          </>
        )}
        Filled to its limit it weighs{' '}
        <b>
          <Quantity value={shell.load.mass_kg} role="mass" />
        </b>
        , {countedWords(shell.tanks.map((t) => system.tanks[t]!))}.
      </Box>
      {shell.undescribed.length > 0 && (
        <Box color="warn">
          How {shell.undescribed.map((m) => system.mounts[m]?.name).join(', ')}{' '}
          {shell.undescribed.length === 1 ? 'is' : 'are'} made is not said: counted for nothing here.
        </Box>
      )}
    </Box>
  );
}

function Changes({ t }: { readonly t: number }) {
  const system = useSystem();
  const reader = useReader();
  const { value: changes, fresh } = useOutcome('mountChanges', t);
  if (!changes?.ok || changes.value.length === 0) return null;
  return (
    <Box mb="4" data-testid="mount-changes" opacity={fresh ? 1 : 0.6}>
      <Box fontWeight="700" mb="1">
        Any one of these is enough, cheapest first
      </Box>
      <Box display="grid" gap="2">
        {changes.value.map((change) => {
          const names = change.changed.map((m) => system.mounts[m]?.name).join(', ');
          const words = changeWords(change, names, (value, role) => formatQuantity(value, role, { reader }).text);
          const { weakest } = change;
          return (
            <Box key={change.kind} display="flex" gap="3" alignItems="center" flexWrap="wrap">
              <Button
                disabled={!fresh}
                onClick={() => applyEdit(words, (current) => ({ ...current, mounts: [...change.mounts] }))}
              >
                {words}
              </Button>
              {weakest?.factor !== undefined && (
                <Box color="soft">
                  then {factorText(weakest.factor)} times, first at {system.mounts[weakest.mount]?.name}:{' '}
                  {partHead(weakest.part, system.mounts[weakest.mount]?.kind)}
                </Box>
              )}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

const HEADS = ['what gives', 'factor', 'asked', 'bears', 'when'];

/** So many parts are shown before more is asked for. */
const SHOWN = 8;

function Parts({ shell, needed }: { readonly shell: MountsOf; readonly needed: number }) {
  const system = useSystem();
  const sides = useSides();
  const colour = ({ factor }: WorstUse): string => (factor === undefined ? 'warn' : factor < needed ? 'stop' : 'ink');
  const row = (use: WorstUse) => (
    <chakra.tr key={`${use.mount} ${use.part}`} borderTopWidth="1px" borderColor="rule">
      <chakra.td px="2" py="1">
        {system.mounts[use.mount]?.name}: {partHead(use.part, system.mounts[use.mount]?.kind)}
      </chakra.td>
      <chakra.td px="2" textAlign="right" fontWeight="700" color={colour(use)} whiteSpace="nowrap">
        {use.factor === undefined ? 'not known' : `${factorText(use.factor)} ×`}
      </chakra.td>
      <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
        <Quantity value={use.demand_N} role="force" />
      </chakra.td>
      <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
        {use.capacity_N === undefined ? '–' : <Quantity value={use.capacity_N} role="force" />}
      </chakra.td>
      <chakra.td px="2">{sides(CASE_HEADS[use.shock])}</chakra.td>
    </chakra.tr>
  );
  const head = (text: string, isNumber: boolean) => (
    <chakra.th key={text} px="2" textAlign={isNumber ? 'right' : 'left'} color="soft" fontWeight="600">
      {text}
    </chakra.th>
  );
  const table = (uses: readonly WorstUse[], label: string) => (
    <Box overflowX="auto">
      <chakra.table borderCollapse="collapse" aria-label={label} minW="100%" css={cardTable(HEADS)}>
        <thead>
          <tr>{HEADS.map((text, i) => head(text, i > 0 && i < HEADS.length - 1))}</tr>
        </thead>
        <tbody>{uses.map(row)}</tbody>
      </chakra.table>
    </Box>
  );
  return (
    <Box mb="4">
      {table(shell.parts.slice(0, SHOWN), 'What gives first')}
      {shell.parts.length > SHOWN && (
        <chakra.details>
          <chakra.summary minH="42px" py="2" cursor="pointer">
            {shell.parts.length - SHOWN} more, all stronger
          </chakra.summary>
          {table(shell.parts.slice(SHOWN), 'What gives later')}
        </chakra.details>
      )}
    </Box>
  );
}

/** How it is held in each case: what is plainly held in one line, the rest each with what it does. */
function Cases({ shell }: { readonly shell: MountsOf }) {
  const system = useSystem();
  const sides = useSides();
  const words = (held: CaseHeld): string | undefined => {
    if (held.held === undefined) return held.why;
    if (!held.held) return sides(`not held: it ${GOES_WORDS[held.goes]}`);
    const loose = held.letGo.map((m) => system.mounts[m]?.name).join(', ');
    const remarks = [
      ...(held.creeps === undefined ? [] : [sides(`held by friction alone; shaken, it ${GOES_WORDS[held.creeps]}`)]),
      ...(loose === '' ? [] : [`held; ${loose} let${held.letGo.length === 1 ? 's' : ''} go of it`]),
    ];
    return remarks.length > 0 ? remarks.join('; ') : undefined;
  };
  const told = SHOCK_CASES.map((shock) => ({ shock, held: shell.cases[shock].held, text: words(shell.cases[shock]) }));
  const plain = told.filter(({ text }) => text === undefined).map(({ shock }) => sides(CASE_HEADS[shock]));
  const others = told.filter(({ text }) => text !== undefined);
  return (
    <>
      {plain.length > 0 && (
        <Box mb="1">
          <chakra.span color="good" fontWeight="650">
            Held
          </chakra.span>{' '}
          {plain.join(', ')}.
        </Box>
      )}
      {others.length > 0 && (
        <Box overflowX="auto">
          <chakra.table borderCollapse="collapse" aria-label="Thrown each way">
            <tbody>
              {others.map(({ shock, held, text }) => (
                <chakra.tr key={shock} borderTopWidth="1px" borderColor="rule">
                  <chakra.th px="2" py="1" textAlign="left" color="soft" fontWeight="600" whiteSpace="nowrap">
                    {sides(CASE_HEADS[shock])}
                  </chakra.th>
                  <chakra.td px="2" color={held === true ? 'ink' : held === false ? 'stop' : 'warn'}>
                    {text}
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
      )}
    </>
  );
}
