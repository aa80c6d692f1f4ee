'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { PourLine } from '@/core/formats';
import { settledReading, type RigReading } from '@/core/gauge';
import { formatQuantity } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { openDocument } from '../state/editor';
import { useReader } from '../state/reader';
import { endRig, pourIntoRig, startRig, type RigStarted, type RigTruth } from './rigClient';

type Props = { readonly sender: string; readonly onPour: (pour: PourLine) => void };

const FAULTS = { none: 'nothing broken', sticks: 'float sticks at the bottom', dies: 'float dies half-way' } as const;
const SPEEDS = ['1', '10', '60'] as const;
/** So many readings must lie together, within this share of the range, before one is taken. */
const STILL = 15;
const WITHIN_RATIO = 0.012;
const KEPT = 60;
/** What a meter of a hundred pulses a litre tells of a pour [m³]. */
const METER_RATIO = 0.01;

/** The bench stand-in: a rig that is not there, used as a real one is, and told to be simulated wherever it shows. */
export function RigPanel({ sender, onPour }: Props) {
  const reader = useReader();
  const [rig, setRig] = useState<RigStarted>();
  const [fault, setFault] = useState<keyof typeof FAULTS>('none');
  const [speed, setSpeed] = useState<(typeof SPEEDS)[number]>('10');
  const [seed, setSeed] = useState(1);
  const [sample, setSample] = useState<RigReading>();
  const [settled, setSettled] = useState<number>();
  const [counted, setCounted] = useState(0);
  const [litres, setLitres] = useState<number>(0.005);
  const [why, setWhy] = useState('');
  const [truth, setTruth] = useState<RigTruth>();
  const last = useRef<RigReading[]>([]);
  /** The rig that still runs: whoever leaves the stage ends it. */
  const live = useRef<string>(undefined);
  useEffect(() => {
    if (!rig) return undefined;
    const source = new EventSource(`/api/rig/${rig.id}`);
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const next = JSON.parse(data) as RigReading;
      last.current = [...last.current, next].slice(-KEPT);
      setSample(next);
      setSettled(settledReading(last.current, STILL, WITHIN_RATIO * rig.span));
    };
    source.onerror = () => {
      source.close();
      live.current = undefined;
      setRig(undefined);
      setWhy('The rig has stopped: the server was started again, or the rig was ended.');
    };
    live.current = rig.id;
    return () => {
      source.close();
      if (live.current === rig.id) void endRig(rig.id);
      live.current = undefined;
    };
  }, [rig]);
  const start = async (): Promise<void> => {
    setWhy('');
    setTruth(undefined);
    const answer = await startRig(openDocument(), { sender, seed, speed: Number(speed), fault });
    if (!answer.ok) return setWhy(answer.detail);
    last.current = [];
    setCounted(0);
    setSample(undefined);
    setSettled(undefined);
    setRig(answer.value);
  };
  const pour = async (): Promise<void> => {
    last.current = [];
    setSettled(undefined);
    const answer = await pourIntoRig(rig!.id, litres);
    if (!answer.ok) setWhy(answer.detail);
  };
  const end = async (): Promise<void> => {
    const { id } = rig!;
    live.current = undefined;
    setRig(undefined);
    const answer = await endRig(id);
    if (answer.ok) setTruth(answer.value);
  };
  /** What the meter has counted since the last line, with what the sender reads now it is still. */
  const take = (): void => {
    if (!rig || !sample || settled === undefined) return;
    const added_m3 = (sample.pulses - counted) / rig.pulsesPerLitre / 1000;
    setCounted(sample.pulses);
    const value = Number(settled.toPrecision(5));
    onPour({
      at: new Date().toISOString(),
      way: 'meter',
      added_m3,
      spread_m3: Math.abs(added_m3) * METER_RATIO,
      note: '',
      state: 'counts',
      simulated: true,
      reading:
        rig.signal === 'resistance'
          ? { kind: 'resistance', reading_ohm: Math.max(0, value) }
          : { kind: 'voltage', reading_V: value },
    });
  };
  const enterPour = (text: string): EntryVerdict => {
    const read = readEntry(text, 'tankVolume', reader, { min: 1e-5, max: 20 });
    if (read.ok) setLitres(read.value);
    return read;
  };
  const volume = formatQuantity(litres, 'tankVolume', { reader });
  return (
    <Box mt="4" p="3" borderWidth="2px" borderStyle="dashed" borderColor="warn" borderRadius="md" data-testid="rig">
      <Box fontWeight="800" color="warn">
        Simulated rig: no real tank is connected
      </Box>
      {!rig && (
        <>
          <Box color="soft" mb="2">
            A tank that is built a little otherwise than planned, with noise, slosh and a meter. Pour into it and read
            it as you would a real one; its lines are marked as simulated.
          </Box>
          <Box display="flex" gap="3" flexWrap="wrap" alignItems="end">
            <Select
              label="What is wrong with it"
              value={fault}
              options={(Object.keys(FAULTS) as (keyof typeof FAULTS)[]).map((value) => ({
                value,
                label: FAULTS[value],
              }))}
              onChange={setFault}
            />
            <Select
              label="Its time runs"
              value={speed}
              options={SPEEDS.map((value) => ({
                value,
                label: value === '1' ? 'as the clock' : `${value} times the clock`,
              }))}
              onChange={setSpeed}
            />
            <Box width="120px">
              <TextEntry
                label="Rig number"
                value={String(seed)}
                onEnter={(text) =>
                  /^\d{1,9}$/.test(text.trim())
                    ? (setSeed(Number(text)), { ok: true })
                    : { ok: false, message: 'Enter a whole number; each is another tank.' }
                }
              />
            </Box>
            <Button kind="main" onClick={() => void start()} testId="start-rig">
              Start the rig
            </Button>
          </Box>
        </>
      )}
      {rig && (
        <>
          <Box display="flex" gap="5" flexWrap="wrap" alignItems="baseline" my="2">
            <Box>
              <Box fontSize="sm" color="soft">
                {rig.sender} reads, simulated
              </Box>
              <Box fontSize="3xl" fontWeight="800" data-testid="rig-reading" data-settled={settled !== undefined}>
                {sample ? formatQuantity(sample.reading, rig.signal, { reader, digits: 4 }).text : '…'}
              </Box>
            </Box>
            <Box>
              <Box fontSize="sm" color="soft">
                Meter since the last line
              </Box>
              <Box fontSize="3xl" fontWeight="800" data-testid="rig-meter">
                {
                  formatQuantity(((sample?.pulses ?? 0) - counted) / rig.pulsesPerLitre / 1000, 'tankVolume', {
                    reader,
                  }).text
                }
              </Box>
            </Box>
            <Box fontWeight="650" color={settled === undefined ? 'warn' : 'good'} data-testid="rig-state">
              {sample?.pouring
                ? 'pouring…'
                : settled === undefined
                  ? 'still swinging: wait'
                  : `still, at ${formatQuantity(settled, rig.signal, { reader, digits: 4 }).text}`}
            </Box>
          </Box>
          <FieldGrid min="220px">
            <TextEntry label="Pour in" value={volume.number} unit={volume.symbol} onEnter={enterPour} />
            <Box pt="5" display="flex" gap="2" flexWrap="wrap">
              <Button onClick={() => void pour()} disabled={sample?.pouring === true} testId="rig-pour">
                Pour
              </Button>
              <Button kind="main" onClick={take} disabled={settled === undefined} testId="rig-take">
                Write it down
              </Button>
              <Button onClick={() => void end()}>End the rig</Button>
            </Box>
          </FieldGrid>
        </>
      )}
      {why && (
        <Box mt="2" color="stop" fontWeight="600">
          {why}
        </Box>
      )}
      {truth && (
        <Box mt="2" data-testid="rig-truth">
          The rig’s truth: the tank held{' '}
          <b>
            {Math.abs(truth.volume_ratio * 100).toFixed(1)} % {truth.volume_ratio < 0 ? 'less' : 'more'}
          </b>{' '}
          than drawn, the sender sat{' '}
          <b>
            {formatQuantity(Math.abs(truth.lowered_m), 'bore', { reader }).text}{' '}
            {truth.lowered_m > 0 ? 'lower' : 'higher'}
          </b>
          , the meter counted{' '}
          <b>
            {Math.abs(truth.meter_ratio * 100).toFixed(1)} % too {truth.meter_ratio > 0 ? 'much' : 'little'}
          </b>
          {truth.sticksBelow_ratio > 0 && ', the float stuck at the bottom'}
          {truth.diesAt_ratio !== null && ', the float died half-way'}.
        </Box>
      )}
    </Box>
  );
}
