'use client';

import { Box, chakra } from '@chakra-ui/react';
import { shakingOf, SWING_WORDS, type MountsOf, type Shaking, type Swing, unheldOf } from '@/core/answers';
import { PAD_ROWS } from '@/core/reference/mountStock';
import { cardTable } from '../parts/cardTable';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useSystem } from '../state/editor';
import { useSides } from '../state/sides';

const HEADS = ['swings', 'full', 'empty'];

/** How the tank swings by itself on its mounts, what shakes it, and through what it touches them. */
export function SwingsPanel({ shell }: { readonly shell: MountsOf }) {
  const system = useSystem();
  const sides = useSides();
  if (shell.mounts.length === 0) return null;
  const { swings } = shell;
  if (!swings.ok)
    return (
      <Panel title="How it swings by itself" testId="swings">
        <NotWorkedOut why={swings.error.detail} />
      </Panel>
    );
  const { full, empty, settles_m } = swings.value;
  const shaking = shakingOf(system.vehicle.kind, swings.value);
  const met = shaking.find(({ by, meets }) => by.from === 'way' && meets.length > 0);
  const slowest = full[0]!;
  const isFree = unheldOf(swings.value) !== undefined;
  return (
    <Panel title="How it swings by itself" testId="swings">
      <Box fontSize="xl" fontWeight="700" color={met || isFree ? 'warn' : 'good'} mb="2">
        {sides(`Slowest ${SWING_WORDS[slowest.way]}`)},{' '}
        {slowest.frequency_Hz > 0 ? <Quantity value={slowest.frequency_Hz} role="frequency" /> : 'held by nothing'}
        {met ? `: shaken by ${met.by.by}` : ''}
      </Box>
      <Box display="flex" flexWrap="wrap" columnGap="8" rowGap="2" alignItems="start">
        <Box overflowX="auto">
          <chakra.table borderCollapse="collapse" aria-label="How fast it swings by itself" css={cardTable(HEADS)}>
            <thead>
              <tr>
                {HEADS.map((text, i) => (
                  <chakra.th key={text} px="3" textAlign={i === 0 ? 'left' : 'right'} color="soft" fontWeight="600">
                    {text}
                  </chakra.th>
                ))}
              </tr>
            </thead>
            <tbody>
              {full.map((swing, i) => (
                <chakra.tr key={i} borderTopWidth="1px" borderColor="rule">
                  <chakra.td px="3" py="1">
                    {sides(SWING_WORDS[swing.way])}
                  </chakra.td>
                  <Hertz swing={swing} row={swing} />
                  <Hertz swing={empty[i]!} row={swing} />
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
        <Box flex="1 1 300px">
          {shaking.map((each) => (
            <Shaken key={each.by.by} shaking={each} />
          ))}
          {settles_m !== undefined && (
            <Box mt="2">
              As it is filled its middle settles by{' '}
              <b>
                <Quantity value={settles_m} role="thickness" />
              </b>
              .
            </Box>
          )}
          <Touches shell={shell} />
        </Box>
      </Box>
      <Box color="soft" mt="2" maxW="75ch">
        A rigid tank, its liquid moving with it, on what presses on it at rest; pads as stiff as in their table. Its own
        walls, which drum, and liquid that sloshes are apart from this: Tank has those.
      </Box>
    </Panel>
  );
}

/** How fast; and which way, where that is not the one its row is of. */
function Hertz({ swing: { frequency_Hz, way }, row }: { readonly swing: Swing; readonly row: Swing }) {
  const sides = useSides();
  return (
    <chakra.td px="3" textAlign="right" whiteSpace="nowrap">
      {way !== row.way && <chakra.span color="soft">{sides(SWING_WORDS[way])} </chakra.span>}
      {frequency_Hz > 0 ? <Quantity value={frequency_Hz} role="frequency" /> : 'nothing holds it'}
    </chakra.td>
  );
}

function Shaken({ shaking: { by, meets } }: { readonly shaking: Shaking }) {
  const first = meets[0];
  const isBad = by.from === 'way' && first !== undefined;
  return (
    <Box mt="2" color={isBad ? 'warn' : undefined}>
      <b>{by.by[0]!.toUpperCase() + by.by.slice(1)}</b>, {by.from_Hz} to {by.to_Hz} Hz:{' '}
      {first === undefined
        ? 'meets none of these.'
        : `meets ${meets.length === 1 ? 'one' : meets.length} of these, the slowest ${first.isFull ? 'full' : 'empty'}.`}
      {by.from === 'engine' && first !== undefined && ' At those speeds it hums along; drive through them.'}
    </Box>
  );
}

/** What rubs on the tank: through what each mount touches it. */
function Touches({ shell }: { readonly shell: MountsOf }) {
  const system = useSystem();
  const pads = shell.mounts.flatMap((m) => {
    const mount = system.mounts[m];
    if (!mount?.made || !('pad' in mount.made)) return [];
    return [{ name: mount.name, of: mount.made.pad.of }];
  });
  const bare = pads.filter(({ of }) => of === 'none').map(({ name }) => name);
  const padded = [...new Set(pads.flatMap(({ of }) => (of === 'none' ? [] : [PAD_ROWS[of].name])))];
  return (
    <Box mt="2">
      {bare.length > 0 && (
        <Box color="warn">
          <b>Chafes:</b> {bare.join(', ')} {bare.length === 1 ? 'rubs' : 'rub'} metal on metal: a pad between, or it
          wears through.
        </Box>
      )}
      {padded.length > 0 && <Box>Touches the tank through {padded.join(', ')}.</Box>}
    </Box>
  );
}
