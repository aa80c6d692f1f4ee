'use client';

import { Box, chakra } from '@chakra-ui/react';
import { assumed, chosen, withValue, type Known } from '@/core/plan';
import type { FoamBlock } from '@/core/answers';
import { FOAM } from '@/core/reference/foam';
import { formatQuantity } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { cardTable } from '../parts/cardTable';
import { Caution } from '../parts/Caution';
import { FieldGrid, Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useDetails } from '../state/results';
import { useReader } from '../state/reader';
import { useTank } from '../state/tankChoice';

/** How foam is cut to begin with. */
const NEW_FOAM: { over_m: Known; clear_m: Known; squeezed_ratio: Known } = {
  over_m: assumed(FOAM.over_m, FOAM.overSpread_m),
  clear_m: chosen(FOAM.clear_m),
  squeezed_ratio: assumed(FOAM.squeezed_ratio, 0.1),
};
const FOAM_TAKES = assumed(FOAM.solid_ratio, FOAM.solidSpread_ratio);
/** An opening of a clean-out plate, to begin with. */
const OPENING = chosen(0.125);

/** The foam of the tank: what is bought, how it is cut, and the wells in it. */
export function FoamPanel() {
  const t = useTank();
  const reader = useReader();
  const ratio = useValue((system) => system.tanks[t]!.foam_ratio);
  const foam = useValue((system) => system.tanks[t]!.foam);
  const { system: of, results } = useDetails();
  const fresh = useValue((system) => system === of);
  const at = ['tanks', t, 'foam'];
  const blocks = results?.ok ? results.evaluation.tanks[t]?.foam : undefined;
  const size = (...sizes: readonly number[]): string => {
    const shown = sizes.map((value) => formatQuantity(value, 'tape', { reader }));
    return `${shown.map(({ number }) => number).join(' × ')} ${shown[0]!.symbol}`;
  };
  return (
    <Panel title="Foam" testId="foam">
      <FieldGrid>
        <Select
          label="Foam"
          value={ratio ? 'whole' : 'none'}
          options={[
            { value: 'none', label: 'none' },
            { value: 'whole', label: 'fills the tank' },
          ]}
          onChange={(value) =>
            applyEdit('foam', (system) =>
              value === 'none'
                ? withValue(withValue(system, ['tanks', t, 'foam_ratio'], undefined), at, undefined)
                : withValue(withValue(system, ['tanks', t, 'foam_ratio'], FOAM_TAKES), at, NEW_FOAM),
            )
          }
        />
        {ratio && <KnownField label="Foam takes" path={['tanks', t, 'foam_ratio']} />}
        {ratio && foam && (
          <>
            <KnownField path={[...at, 'over_m']} />
            <KnownField path={[...at, 'clear_m']} />
            <Select
              label="It goes in"
              value={foam.opening_m ? 'opening' : 'open'}
              options={[
                { value: 'open', label: 'before the lid' },
                { value: 'opening', label: 'through an opening' },
              ]}
              onChange={(value) =>
                setValue('how foam goes in', [...at, 'opening_m'], value === 'open' ? undefined : OPENING)
              }
            />
            {foam.opening_m && <KnownField path={[...at, 'opening_m']} />}
            {foam.opening_m && <KnownField path={[...at, 'squeezed_ratio']} />}
          </>
        )}
      </FieldGrid>
      {ratio && !foam && (
        <Box mt="3">
          <Button onClick={() => setValue('how foam is cut', at, NEW_FOAM)}>Plan how it is cut</Button>
        </Box>
      )}
      {foam && blocks && blocks.length > 0 && (
        <Box mt="3" opacity={fresh ? 1 : 0.6}>
          <Box fontSize="lg">
            To buy{' '}
            <b>
              <Quantity value={blocks.reduce((sum, { foam_m3 }) => sum + foam_m3, 0)} role="tankVolume" />
            </b>{' '}
            in <b>{pieceCount(blocks)}</b>
          </Box>
          <chakra.table width="100%" mt="2" borderCollapse="collapse" aria-label="Foam to be cut" css={CARDS}>
            <thead>
              <tr>
                {HEADS.map((head) => (
                  <chakra.th key={head} textAlign="left" px="2" py="1" color="soft" fontWeight="600">
                    {head}
                  </chakra.th>
                ))}
              </tr>
            </thead>
            <tbody>
              {blocks.map(({ block_m, pieces, wells }, b) => (
                <chakra.tr key={b} borderTopWidth="1px" borderColor="rule" verticalAlign="top">
                  <chakra.td px="2" py="1" fontWeight="650">
                    {b + 1}
                  </chakra.td>
                  <chakra.td px="2" py="1">
                    {size(...block_m)}
                  </chakra.td>
                  <chakra.td px="2" py="1" {...(pieces.ok ? {} : { color: 'stop', fontWeight: 600 })}>
                    {pieces.ok
                      ? pieces.value.count === 1
                        ? 'one piece'
                        : `${pieces.value.count} of ${size(...pieces.value.size_m)}`
                      : 'none goes through'}
                  </chakra.td>
                  <chakra.td px="2" py="1">
                    {wells.length === 0
                      ? 'none'
                      : wells.map(({ of, round, length_m, width_m }) => (
                          <Box key={of}>
                            {of}: {round ? `⌀ ${size(length_m)}` : size(length_m, width_m)}
                          </Box>
                        ))}
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
          <Box color="soft" fontSize="sm" mt="2">
            Length × width × height. Wells go from floor to lid. Foam slows what swings and runs; it does not hold fuel
            at the pickup.
          </Box>
          <Caution>
            Foam charges as fuel runs through it: fill slowly, earth tank and nozzle. Never weld or heat a tank with
            foam in it. Old foam crumbles: look at it each year.
          </Caution>
        </Box>
      )}
    </Panel>
  );
}

const HEADS = ['compartment', 'block', 'cut into', 'wells'];
const CARDS = cardTable(HEADS);

function pieceCount(blocks: readonly FoamBlock[]): string {
  const cut = blocks.map(({ pieces }) => (pieces.ok ? pieces.value.count : undefined));
  if (cut.includes(undefined)) return 'pieces that do not all go in';
  const count = cut.reduce((sum: number, each) => sum + (each ?? 0), 0);
  return count === 1 ? 'one piece' : `${count} pieces`;
}
