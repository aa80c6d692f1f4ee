'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import { TIP_FILLS, type Carried, type Hangs, type Lifted, type TipFill, type TipRow } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { Select } from '../fields/Select';
import { cardTable } from '../parts/cardTable';
import { Caution } from '../parts/Caution';
import { FieldGrid, Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useAnswer } from '../state/answers';
import { useReader } from '../state/reader';
import { useTank } from '../state/tankChoice';
import { wholeDegrees } from '../tank/TipsPanel';

const FORKS_M = [0.3, 0.4, 0.5, 0.6, 0.8, 1];
const HOOKS_M = [0.3, 0.5, 0.75, 1, 1.5, 2, 3];
const FILLS = [...TIP_FILLS].reverse();
const FILL_WORDS: Readonly<Record<TipFill, string>> = { full: 'full', half: 'half full', empty: 'empty' };
/** Legs that lean more from plumb are not lifted with. @source common practice: no flatter than 30° to the level */
const MOST_LEAN_RAD = Math.PI / 3;
/** What leans less is level to the eye. */
const LEVEL_RAD = (0.5 * Math.PI) / 180;

/** How the tank keeps upright on forks and on its feet, and how it hangs from slings. */
export function CarriedTask() {
  const t = useTank();
  const reader = useReader();
  const [how, setHow] = useState<Lifted>({ forks_m: 0.4, runs: 'along', hook_m: 1 });
  const { value, standing, reason } = useAnswer('carried', t, how);
  const sizes = (values: readonly number[]) =>
    values.map((each) => ({ value: String(each), label: formatQuantity(each, 'tape', { reader }).text }));
  return (
    <Panel title="Lifted and carried" testId="carried">
      <FieldGrid min="190px">
        <Select
          label="Forks apart, outside to outside"
          value={String(how.forks_m)}
          options={sizes(FORKS_M)}
          onChange={(to) => setHow({ ...how, forks_m: Number(to) })}
        />
        <Select
          label="Forks run"
          value={how.runs}
          options={[
            { value: 'along', label: 'along the tank' },
            { value: 'across', label: 'across it' },
          ]}
          onChange={(runs) => setHow({ ...how, runs })}
        />
        <Select
          label="Hook over its top, four slings"
          value={String(how.hook_m)}
          options={sizes(HOOKS_M)}
          onChange={(to) => setHow({ ...how, hook_m: Number(to) })}
        />
      </FieldGrid>
      {!value || !value.ok ? (
        <Box mt="2" color={reason !== undefined || value ? 'stop' : 'soft'} role={value ? 'alert' : undefined}>
          {value && !value.ok ? value.error.detail : (reason ?? 'Working out how it keeps upright…')}
        </Box>
      ) : (
        <Box opacity={standing === 'fresh' ? 1 : 0.6} mt="2">
          <Rows carried={value.value} />
        </Box>
      )}
      <Box color="soft" mt="2" maxW="75ch">
        Slowly leant with nothing to hold it, its liquid running to the low side; forks under all of it. Of four slings
        two are reckoned with: a stiff load hangs from two of them.
      </Box>
      <Box mt="2">
        <Caution>
          Drain it before it is lifted where that can be. Lift with gear and people that are licensed for it, lashed to
          the forks, nobody under it or beside it; slings only on points that were made for lifting.
        </Caution>
      </Box>
    </Panel>
  );
}

const HEADS = ['', ...FILLS.map((fill) => FILL_WORDS[fill])];

function Rows({ carried: { forks, feet, hangs } }: { readonly carried: Carried }) {
  const least = (rows: readonly TipRow[], fill: TipFill): number =>
    Math.min(...rows.map(({ angles_rad }) => angles_rad[fill]));
  const leans = (of: Carried['forks'], fill: TipFill) =>
    of.ok ? <Quantity value={wholeDegrees(least(of.value, fill))} role="slope" /> : 'not known';
  const hung = (fill: TipFill, show: (hangs: Hangs) => ReactNode) => {
    const one = hangs[fill];
    return one.ok ? show(one.value) : <chakra.span color="stop">not steady</chakra.span>;
  };
  const rows: readonly (readonly [string, (fill: TipFill) => ReactNode])[] = [
    ['On forks it goes over at', (fill) => leans(forks, fill)],
    ...(feet.ok ? [['On its feet it goes over at', (fill: TipFill) => leans(feet, fill)] as const] : []),
    [
      'From slings it hangs',
      (fill) =>
        hung(fill, ({ tilt_rad }) =>
          tilt_rad < LEVEL_RAD ? (
            'level'
          ) : (
            <>
              <Quantity value={tilt_rad} role="slope" /> off level
            </>
          ),
        ),
    ],
    ['Each of two legs pulls', (fill) => hung(fill, ({ pull_N }) => <Quantity value={pull_N} role="force" />)],
    [
      'Legs lean from plumb',
      (fill) =>
        hung(fill, ({ lean_rad }) => (
          <chakra.span color={lean_rad > MOST_LEAN_RAD ? 'stop' : undefined}>
            <Quantity value={lean_rad} role="slope" />
            {lean_rad > MOST_LEAN_RAD && ': too flat, hook higher'}
          </chakra.span>
        )),
    ],
  ];
  return (
    <Box overflowX="auto">
      <chakra.table borderCollapse="collapse" aria-label="Lifted and carried" css={cardTable(HEADS)}>
        <thead>
          <tr>
            {HEADS.map((text, i) => (
              <chakra.th key={i} px="2" textAlign={i === 0 ? 'left' : 'right'} color="soft" fontWeight="600">
                {text}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([head, cell]) => (
            <chakra.tr key={head} borderTopWidth="1px" borderColor="rule">
              <chakra.td px="2" py="1">
                {head}
              </chakra.td>
              {FILLS.map((fill) => (
                <chakra.td key={fill} px="2" textAlign="right" whiteSpace="nowrap">
                  {cell(fill)}
                </chakra.td>
              ))}
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}
