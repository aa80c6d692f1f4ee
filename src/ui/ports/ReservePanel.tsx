'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { chosen, withValue } from '@/core/plan';
import type { ReserveResult } from '@/core/answers';
import { entryText, roleUnit, ROLES, unitById } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Quantity } from '../parts/Quantity';
import { partName } from '../parts/words';
import { useAsked } from '../state/answers';
import { applyEdit, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';

/** Two that draw from one tank: who goes out first, and what the other then has. */
export function ReservePanel({ t }: { readonly t: number }) {
  const system = useSystem();
  const { results } = useDetails();
  const reserves = results?.ok ? results.evaluation.reserves.filter(({ tank }) => tank === system.tanks[t]!.id) : [];
  if (reserves.length === 0) return null;
  return (
    <>
      {reserves.map((reserve) => (
        <Reserve key={reserve.first.pickup} reserve={reserve} t={t} />
      ))}
    </>
  );
}

function Reserve({ reserve, t }: { readonly reserve: ReserveResult; readonly t: number }) {
  const system = useSystem();
  const reader = useReader();
  const [wanted, setWanted] = useState<number>();
  const { answer, fresh, ask: askHeight, forget } = useAsked('reserveHeight');
  const height = answer && fresh ? (answer.ok ? { value: answer.value } : { why: answer.error.detail }) : undefined;
  const { first, second, level_m3, worst_m3, lasts_s, lastsWorst_s, goes_m, goesWorst_m } = reserve;
  const ask = (text: string): EntryVerdict => {
    const read = readEntry(text, 'tankVolume', reader, { min: 0, max: 20 });
    if (!read.ok) return read;
    setWanted(read.value);
    forget();
    void askHeight(t, first.pickup, second.pickup, read.value);
    return { ok: true };
  };
  const take = (value: number): void =>
    applyEdit(`height of ${partName(system, first.pickup)}`, (current) => {
      const p = current.tanks[t]!.pickups.findIndex(({ id }) => id === first.pickup);
      return withValue(
        current,
        ['tanks', t, 'pickups', p, 'heightOffFloor_m'],
        chosen(Math.round(value * 1000) / 1000),
      );
    });
  const tripRole = system.vehicle.kind === 'boat' ? 'seaTrip' : 'trip';
  return (
    <Panel title={`When ${first.consumer} goes out`} testId="reserve">
      {level_m3 <= 0 ? (
        <Box fontSize="2xl" fontWeight="800" color="stop">
          {second.consumer} has starved before
        </Box>
      ) : (
        <Box fontSize="2xl" fontWeight="800">
          <Quantity value={level_m3} role="tankVolume" /> left for {second.consumer}:{' '}
          <Quantity value={lasts_s} role="duration" />
          {goes_m !== undefined && (
            <>
              , <Quantity value={goes_m} role={tripRole} />
            </>
          )}
        </Box>
      )}
      <Box mb="3">
        On the level. At the worst of the slopes asked for{' '}
        {worst_m3 <= 0 ? (
          <b>nothing is left: {second.consumer} goes out first.</b>
        ) : (
          <>
            <b>
              <Quantity value={worst_m3} role="tankVolume" />
            </b>
            , <Quantity value={lastsWorst_s} role="duration" />
            {goesWorst_m !== undefined && (
              <>
                , <Quantity value={goesWorst_m} role={tripRole} />
              </>
            )}
            .
          </>
        )}{' '}
        At the set duty.
      </Box>
      <FieldGrid>
        <Practice of="heaterPickup" />
        <Box>
          <TextEntry
            label={`Keep for ${second.consumer}`}
            value={wanted === undefined ? '' : entryText(wanted, 'tankVolume', reader)}
            unit={unitById(ROLES.tankVolume.kind, roleUnit('tankVolume', reader)).symbol}
            onEnter={ask}
            hint="The height that leaves so much is worked out."
          />
          {height?.why && (
            <Box color="stop" fontWeight="600">
              {height.why}
            </Box>
          )}
          {height?.value !== undefined && (
            <Box mt="2" display="flex" gap="2" alignItems="center" flexWrap="wrap">
              <Box>
                {partName(system, first.pickup)} ends{' '}
                <b>
                  <Quantity value={height.value} role="tape" />
                </b>{' '}
                off the floor.
              </Box>
              <Button onClick={() => take(height.value!)}>Set it so</Button>
            </Box>
          )}
        </Box>
      </FieldGrid>
    </Panel>
  );
}
