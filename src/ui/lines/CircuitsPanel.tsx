'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { flowRole, chosen } from '@/core/plan';
import { type TransferResult } from '@/core/answers';
import { byHand, USUAL_CAN } from '@/core/range';
import { toSI, unitById } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Quantity } from '../parts/Quantity';
import { setValue, useSystem } from '../state/editor';
import { useDetails } from '../state/results';
import { useLines } from '../state/useLines';

/** Transfer, return, gravity, flow back, and lifting cans instead. */
export function CircuitsPanel() {
  const system = useSystem();
  const { lines, fresh } = useLines();
  if (!lines) return null;
  const { transfers, returns, backflows, sights, lowest, failed } = lines.circuits;
  return (
    <Panel title="Transfer, return and gravity" testId="circuits">
      <Box opacity={fresh ? 1 : 0.6} display="grid" gap="2">
        {failed && <Box color="warn">All circuits together cannot be solved: {failed}</Box>}
        {transfers.map((transfer) => (
          <Box key={transfer.run}>
            <b>{transfer.name}</b>: <Course transfer={transfer} />
            {transfer.atRest_m3PerS > 0 && (
              <Box as="span" color="warn">
                {' '}
                · ▲ <Quantity value={transfer.atRest_m3PerS} role="burn" /> goes on with the pump off
              </Box>
            )}
          </Box>
        ))}
        {returns.map((back) => (
          <Box key={back.from}>
            <b>{back.name}</b> sends{' '}
            <b>
              <Quantity value={back.flow_m3PerS} role="burn" />
            </b>{' '}
            back to {back.tankName}; the whole tank goes round in <Quantity value={back.round_s} role="duration" />
            {back.warming_KPerS * HOUR_S >= 1
              ? `, warmed by the pump’s work alone at ${Math.round(back.warming_KPerS * HOUR_S)} K an hour`
              : ''}
            {back.elsewhere && (
              <Box as="span" color="stop" fontWeight="700">
                {' '}
                · ■ another tank than it draws from
                {back.full_s === undefined ? (
                  ''
                ) : (
                  <>
                    : full in <Quantity value={back.full_s} role="duration" />
                  </>
                )}
              </Box>
            )}
            {back.aerates && (
              <Box as="span" color="warn">
                {' '}
                · ▲ falls in from above and aerates
              </Box>
            )}
          </Box>
        ))}
        {lowest.map((low) => (
          <Box key={low.consumer}>
            <b>{low.name}</b> on gravity at the tank’s last: head{' '}
            <b>
              <Quantity value={low.head_m} role="run" />
            </b>
            ,{' '}
            {low.delivered_m3PerS === undefined ? (
              <Box as="span" color="warn" fontWeight="650">
                ? what arrives is not worked out
              </Box>
            ) : (
              <>
                <Quantity value={Math.max(0, low.delivered_m3PerS)} role={flowRole(low.delivered_m3PerS)} /> arrives
              </>
            )}
          </Box>
        ))}
        {backflows.map((back) => (
          <Box key={back.pump} color="warn">
            ▲{' '}
            <b>
              <Quantity value={back.flow_m3PerS} role="burn" />
            </b>{' '}
            flows back through {back.name} while it {back.running ? 'runs against a stronger one' : 'stands'}
          </Box>
        ))}
        {sights.map((sight) => (
          <Box key={sight.sight}>
            {sight.name} reads{' '}
            <b>
              <Quantity value={Math.abs(sight.error_m)} role="tape" />
            </b>{' '}
            too {sight.error_m > 0 ? 'high' : 'low'} while this flows (
            <Quantity value={Math.abs(sight.error_m3)} role="tankVolume" />)
          </Box>
        ))}
        {transfers.length + returns.length + lowest.length === 0 && (
          <Box color="soft">Nothing is transferred, returned or fed by gravity yet.</Box>
        )}
      </Box>
      <Box
        mt="4"
        display="grid"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 300px), 1fr))"
        gap="3"
        alignItems="start"
      >
        {system.wishes.moves_m3 ? (
          <KnownField label="Transfer per batch" path={['wishes', 'moves_m3']} />
        ) : (
          <Button onClick={() => setValue('volume to move', ['wishes', 'moves_m3'], chosen(0.1))}>
            Say how much a batch is
          </Button>
        )}
        <Practice of="transferBy" />
        <Practice of="returnOutlet" />
        <Practice of="losses" />
      </Box>
      <Cans />
    </Panel>
  );
}

/** What a transfer moves, in what time, and why no more. */
function Course({ transfer }: { transfer: TransferResult }) {
  if (transfer.ends === 'failed')
    return (
      <Box as="span" color="warn" fontWeight="650">
        ? not worked out
      </Box>
    );
  if (transfer.time_s === undefined)
    return (
      <Box as="span" color="stop" fontWeight="650">
        ■ nothing moves
        {transfer.endsAt === undefined
          ? ''
          : transfer.ends === 'target-full'
            ? `: ${transfer.endsAt} is full`
            : `: ${transfer.endsAt} is down to its pickup`}
      </Box>
    );
  return (
    <>
      <b>
        <Quantity value={transfer.flow_m3PerS} role={flowRole(transfer.flow_m3PerS)} />
      </b>{' '}
      now, <Quantity value={transfer.volume_m3} role="tankVolume" /> in{' '}
      <b>
        <Quantity value={transfer.time_s} role="duration" />
      </b>
      {transfer.ends !== 'moved' && (
        <Box as="span" color="warn">
          {' '}
          · ▲ no more of the <Quantity value={transfer.asked_m3} role="tankVolume" />:{' '}
          {transfer.ends === 'source-dry'
            ? `${transfer.endsAt} is down to its pickup`
            : transfer.ends === 'target-full'
              ? `${transfer.endsAt} is full`
              : 'the levels have come to rest'}
        </Box>
      )}
    </>
  );
}

const HOUR_S = 3600;
const MINUTE_S = 60;
const CAN_L = String(USUAL_CAN.can_m3 * 1e3);
const MINUTES = String(USUAL_CAN.each_s / MINUTE_S);

/** What a pump saves against lifting cans. */
function Cans() {
  const system = useSystem();
  const { results } = useDetails();
  const { lines } = useLines();
  const [can, setCan] = useState(CAN_L);
  const [minutes, setMinutes] = useState(MINUTES);
  const transfer = lines?.circuits.transfers.find(({ time_s }) => time_s !== undefined);
  const nozzle = system.consumers.findIndex(({ kind }) => kind === 'nozzle');
  const delivered =
    nozzle >= 0 && results?.ok && results.evaluation.flows[nozzle]?.ok
      ? results.evaluation.flows[nozzle].value.delivered_m3PerS
      : undefined;
  // What really moves, in the time that falling levels leave it; a nozzle gives what it gives now.
  const volume = transfer?.volume_m3 ?? system.wishes.moves_m3?.value;
  const byLine =
    transfer?.time_s ??
    (volume !== undefined && delivered !== undefined && delivered > 0 ? volume / delivered : undefined);
  if (system.wishes.moves_m3 === undefined || volume === undefined || byLine === undefined) return null;
  const number = (set: (text: string) => void) => (text: string) => {
    if (!(Number(text.replace(',', '.')) > 0)) return { ok: false as const, message: 'Enter a number above 0.' };
    set(text);
    return { ok: true as const };
  };
  const { cans, time_s } = byHand(volume, {
    can_m3: toSI(Number(can.replace(',', '.')), unitById('volume', 'L')),
    each_s: Number(minutes.replace(',', '.')) * MINUTE_S,
  });
  return (
    <Box mt="4" borderTopWidth="1px" borderColor="rule" pt="3">
      <Box fontWeight="700" mb="1">
        Against lifting cans
      </Box>
      <Box display="flex" gap="3" flexWrap="wrap" mb="2">
        <Box width="190px">
          <TextEntry label="A can holds" value={can} unit="L" onEnter={number(setCan)} />
        </Box>
        <Box width="190px">
          <TextEntry
            label="Each takes"
            value={minutes}
            unit="min"
            onEnter={number(setMinutes)}
            hint="4 to 5 min: common practice"
          />
        </Box>
      </Box>
      <b>
        {cans} cans, <Quantity value={time_s} role="duration" />
      </b>{' '}
      by hand;{' '}
      <b>
        <Quantity value={byLine} role="duration" />
      </b>{' '}
      by the line: it {byLine <= time_s ? 'saves' : 'costs'}{' '}
      <Quantity value={Math.abs(time_s - byLine)} role="duration" /> each time.
    </Box>
  );
}
