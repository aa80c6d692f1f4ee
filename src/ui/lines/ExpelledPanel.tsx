'use client';

import { Box } from '@chakra-ui/react';
import type { Expelled } from '@/core/answers';
import { Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Quantity } from '../parts/Quantity';
import { Caution } from '../parts/Caution';
import { useSystem } from '../state/editor';
import { useDetails } from '../state/results';
import { CoolantTables } from './CoolantTables';

/** What engines throw out: how much may come, what takes it, and what pressure it builds on its way. */
export function ExpelledPanel() {
  const { results } = useDetails();
  const expelled = results?.ok ? results.evaluation.expelled : [];
  if (expelled.length === 0) return null;
  return (
    <Panel title="What the engine throws out" testId="expelled">
      <Box display="grid" gap="2">
        {expelled.map((each) => (
          <Source key={each.source} expelled={each} />
        ))}
      </Box>
      {expelled.some(({ kind }) => kind === 'crankcase') && (
        <Box mt="3" display="grid" gap="3" gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 320px), 1fr))">
          <Practice of="catchTank" />
          <Practice of="expelledPlace" />
        </Box>
      )}
      <Box mt="3">
        <Caution>
          Hot oil and coolant scald, and on a tyre or an exhaust they kill. Never open a hot cap; empty a catch tank
          cold, into a can.
        </Caution>
      </Box>
    </Panel>
  );
}

function Source({ expelled }: { readonly expelled: Expelled }) {
  const { components } = useSystem();
  const { name, comes, room_m3, tank, pressure, boils, source, coolant } = expelled;
  const part = components.find(({ id }) => id === source);
  return (
    <Box>
      <b>{name}</b>:{' '}
      {comes.ok ? (
        <>
          <b>
            <Quantity value={comes.value} role="tankVolume" />
          </b>{' '}
          may come
        </>
      ) : (
        <Unknown>{comes.error.detail}</Unknown>
      )}
      {tank && room_m3 !== undefined && (
        <>
          , {tank.name} has room for{' '}
          <b>
            <Quantity value={room_m3} role="tankVolume" />
          </b>
        </>
      )}
      {pressure && (
        <>
          ;{' '}
          {pressure.ok ? (
            <>
              <b>
                <Quantity value={pressure.value} role="pressure" />
              </b>{' '}
              in it at full load
              {part?.kind === 'crankcase' && (
                <>
                  , <Quantity value={part.mostPressure_Pa.value} role="pressure" /> allowed
                </>
              )}
            </>
          ) : (
            <Unknown>{pressure.error.detail}</Unknown>
          )}
        </>
      )}
      {boils?.ok && part?.kind === 'cooling-system' && (
        <>
          ; at its hottest it boils below <Quantity value={Math.max(0, boils.value)} role="pressure" /> over the air
          outside, the cap opens at <Quantity value={part.cap_Pa.value} role="pressure" />
        </>
      )}
      {tank && coolant && part?.kind === 'cooling-system' && (
        <CoolantTables coolant={coolant} bottle={tank.name} part={part} />
      )}
    </Box>
  );
}

const Unknown = ({ children }: { readonly children: string }) => (
  <Box as="span" color="warn" fontWeight="650">
    ? {children}
  </Box>
);
