'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { type Carried, type Hangs, type Lifted, type TipFill } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { Select } from '../fields/Select';
import { Caution } from '../parts/Caution';
import { FieldGrid, Panel } from '../parts/Panel';
import { useAnswer } from '../state/answers';
import { useReader } from '../state/reader';
import { useTank } from '../state/tankChoice';
import { FILLS, FILL_WORDS, wholeDegrees } from '../tank/TipsPanel';
import { Table, useWrite, type Cell } from '../parts/Table';

const FORKS_M = [0.3, 0.4, 0.5, 0.6, 0.8, 1];
const HOOKS_M = [0.3, 0.5, 0.75, 1, 1.5, 2, 3];
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
        two are reckoned with: a stiff load hangs from two of them. They are taken to be fast at the upper corners of
        the box about it.
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

function Rows({ carried: { forks, feet, pockets, hangs } }: { readonly carried: Carried }) {
  const write = useWrite();
  const leans = (of: Carried['forks'], fill: TipFill): Cell =>
    of.ok
      ? { text: write(wholeDegrees(Math.min(...of.value.map(({ angles_rad }) => angles_rad[fill]))), 'slope') }
      : { text: 'not known', tone: 'warn' };
  const hung = (fill: TipFill, show: (hangs: Hangs) => Cell): Cell => {
    const one = hangs[fill];
    return one.ok ? show(one.value) : { text: 'not steady', tone: 'stop' };
  };
  const row = (head: string, cell: (fill: TipFill) => Cell) => ({ head, cells: FILLS.map(cell) });
  const whys = [forks, feet, ...(pockets ? [pockets] : [])].flatMap((one) => (one.ok ? [] : [one.error.detail]));
  return (
    <>
      <Table
        label="Lifted and carried"
        heads={['', ...FILLS.map((fill) => FILL_WORDS[fill])]}
        rows={[
          row('On forks it goes over at', (fill) => leans(forks, fill)),
          ...(pockets ? [row('In the pockets of its skid', (fill) => leans(pockets, fill))] : []),
          row('On its feet it goes over at', (fill) => leans(feet, fill)),
          row('From slings it hangs', (fill) =>
            hung(fill, ({ tilt_rad }) => ({
              text: tilt_rad < LEVEL_RAD ? 'level' : `${write(tilt_rad, 'slope')} off level`,
            })),
          ),
          row('Each of two legs pulls', (fill) => hung(fill, ({ pull_N }) => ({ text: write(pull_N, 'force') }))),
          row('Legs lean from plumb', (fill) =>
            hung(fill, ({ lean_rad }) =>
              lean_rad > MOST_LEAN_RAD
                ? { text: `${write(lean_rad, 'slope')}: too flat, hook higher`, tone: 'stop' }
                : { text: write(lean_rad, 'slope') },
            ),
          ),
        ]}
      />
      {whys.map((why) => (
        <Box key={why} color="warn" mt="1">
          {why}
        </Box>
      ))}
    </>
  );
}
