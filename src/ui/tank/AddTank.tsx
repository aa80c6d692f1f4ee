'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { freeInlets, middleOf, withSealedDivider, withSecondTank, type Divider, type SecondTank } from '@/core/plan';
import { formatQuantity } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { applyEdit, openDocument, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { chooseTank, useTank } from '../state/tankChoice';
import { withTank } from './tankEdits';

type Joined = SecondTank['by'] | 'apart' | 'divided';

const BY: readonly { readonly value: Joined; readonly label: string }[] = [
  { value: 'pump', label: 'by a transfer pump' },
  { value: 'gravity', label: 'by gravity, from above' },
  { value: 'vacuum', label: 'by the vacuum of a tank whose breathers are shut' },
  { value: 'selector', label: 'a selector valve: the engine draws from either' },
  { value: 'apart', label: 'not at all: a tank by itself' },
  { value: 'divided', label: 'one shell: a sealed wall parts it' },
];
const STANDS: readonly { readonly value: SecondTank['stands']; readonly label: string }[] = [
  { value: 'behind', label: 'behind it' },
  { value: 'beside', label: 'beside it' },
  { value: 'above', label: 'above it' },
];
const VENTS: readonly { readonly value: SecondTank['vent']; readonly label: string }[] = [
  { value: 'vent-line', label: 'a vent line' },
  { value: 'vented-cap', label: 'a hole in its cap' },
];
const ACROSS: readonly { readonly value: Divider['axis']; readonly label: string }[] = [
  { value: 'x', label: 'across: one part before the other' },
  { value: 'y', label: 'along: one part beside the other' },
  { value: 'z', label: 'level: one part over the other' },
];
const NEW_PORT = '';
const FROM: Readonly<Record<Divider['axis'], string>> = {
  x: 'Its aft side from aft',
  y: 'Its starboard side from starboard',
  z: 'Its underside from below',
};
const WALL_M = { min: 0, max: 20 };
const LIMITS_M3 = { min: 2e-4, max: 5 };

/** Five questions of one more tank: its ports, run, valve or pump with switch and fuse are made from them. */
export function AddTank({ onDone }: { readonly onDone: () => void }) {
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const sides = useSides();
  const main = system.tanks[t]!;
  const [holds_m3, setHolds] = useState(0.05);
  const [by, setBy] = useState<Joined>('pump');
  const [stands, setStands] = useState<SecondTank['stands']>('behind');
  const [vent, setVent] = useState<SecondTank['vent']>('vent-line');
  const [port, setPort] = useState(NEW_PORT);
  const [axis, setAxis] = useState<Divider['axis']>('x');
  const [setAt_m, setAt] = useState<number>();
  const at_m = setAt_m ?? middleOf(main, axis);
  const [why, setWhy] = useState<string>();
  const wall = formatQuantity(at_m, 'tape', { reader });
  const shown = formatQuantity(holds_m3, 'tankVolume', { reader });
  const divide = (): void => {
    const divided = withSealedDivider(openDocument(), t, { axis, at_m });
    if (!divided.ok) return setWhy(divided.error.detail);
    applyEdit('divide the tank', () => divided.value);
    chooseTank(divided.value.tanks.length - 1);
    onDone();
  };
  const add = (): void => {
    if (by === 'divided') return divide();
    applyEdit('add a tank', (now) =>
      by === 'apart'
        ? withTank(now)
        : withSecondTank(now, t, { holds_m3, by, stands, vent, ...(port === NEW_PORT ? {} : { port }) }),
    );
    chooseTank(openDocument().tanks.length - 1);
    onDone();
  };
  return (
    <Panel title={`One more tank, beside ${main.name}`} testId="add-tank">
      <Box
        display="grid"
        gap="3"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 240px), 1fr))"
        alignItems="start"
      >
        <Select label={`How does its fuel get to ${main.name}?`} value={by} options={BY} onChange={setBy} />
        {by === 'divided' && (
          <>
            <Select
              label="Which way does the wall stand?"
              value={axis}
              options={ACROSS}
              onChange={(value) => {
                setAxis(value);
                setAt(undefined);
              }}
            />
            <TextEntry
              label={sides(FROM[axis])}
              value={wall.number}
              unit={wall.symbol}
              onEnter={(text) => {
                const read = readEntry(text, 'tape', reader, WALL_M);
                if (read.ok) setAt(read.value);
                return read;
              }}
            />
          </>
        )}
        {by !== 'apart' && by !== 'divided' && (
          <>
            <TextEntry
              label="How much should it hold?"
              value={shown.number}
              unit={shown.symbol}
              onEnter={(text) => {
                const read = readEntry(text, 'tankVolume', reader, LIMITS_M3);
                if (read.ok) setHolds(read.value);
                return read;
              }}
            />
            <Select label="Where does it stand?" value={stands} options={STANDS} onChange={setStands} />
            {by !== 'selector' && (
              <Select
                label={`By which port into ${main.name}?`}
                value={port}
                options={[
                  { value: NEW_PORT, label: 'a new one in its lid' },
                  ...freeInlets(system, t).map(({ id, name }) => ({ value: id, label: name })),
                ]}
                onChange={setPort}
              />
            )}
            <Select label="How is it vented?" value={vent} options={VENTS} onChange={setVent} />
          </>
        )}
      </Box>
      {by === 'divided' && (
        <Box mt="2" maxW="75ch">
          <b>Each part needs its own vent and filler.</b> Prove each by itself with the other open: a leak in the
          divider shows nowhere else. Filled on one side only, the whole weight and pressure stands against it.
        </Box>
      )}
      {why && by === 'divided' && (
        <Box role="alert" mt="2" color="stop" fontWeight="600">
          {why}
        </Box>
      )}
      {by === 'vacuum' && (
        <Box mt="2" color="warn" fontWeight="600">
          It draws only while every breather and the cap of {main.name} are shut; a vacuum pulls thin sides in.
        </Box>
      )}
      <Box display="flex" gap="2" mt="3">
        <Button kind="main" onClick={add}>
          {by === 'divided' ? 'Divide it' : 'Add tank'}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Box>
    </Panel>
  );
}
