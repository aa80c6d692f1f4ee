'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import type { PourLine } from '@/core/formats';
import { POUR_WAYS, type PourDocument } from '@/core/plan';
import { tankFluid } from '@/core/answers';
import { POUR_SPREADS } from '@/core/reference/senders';
import { formatQuantity, parseQuantity, type Reader, type Role } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';

type Way = (typeof POUR_WAYS)[number];
type Reads = 'resistance' | 'voltage' | 'height';
type Channel = Reads | 'needle' | 'none';

const CHANNEL_WORDS: Readonly<Record<Channel, string>> = {
  resistance: 'ohms of the sender',
  voltage: 'volts of the sender',
  needle: 'needle, in per cent',
  height: 'height wetted or seen',
  none: 'nothing was read',
};
const CHANNEL_ROLES: Readonly<Record<Exclude<Channel, 'none'>, Role>> = {
  resistance: 'resistance',
  voltage: 'voltage',
  needle: 'share',
  height: 'tape',
};
const LIMITS: Readonly<Record<Exclude<Channel, 'none'>, { readonly min: number; readonly max: number }>> = {
  resistance: { min: 0, max: 1e6 },
  voltage: { min: -60, max: 60 },
  needle: { min: -0.5, max: 1.5 },
  height: { min: -1, max: 20 },
};

/** One pour and what was read after it; kept here until both are there, then written down. */
export function PourEntry({
  t,
  reads,
  onPour,
}: {
  readonly t: number;
  readonly reads: Reads;
  readonly onPour: (pour: PourLine) => void;
}) {
  const reader = useReader();
  // From the document itself, at once: a weight typed before the results are there is a weight all the same.
  const state = tankFluid(useSystem(), t);
  const fluid = state.ok ? state.value : undefined;
  const [way, setWay] = useState<Way>('can');
  const [channel, setChannel] = useState<Channel>(reads);
  const [amount, setAmount] = useState<{ readonly text: string; readonly volume_m3: number }>();
  const [reading, setReading] = useState<{ readonly text: string; readonly value: number }>();
  const [note, setNote] = useState('');
  const enterAmount = (text: string): EntryVerdict => {
    const read = readAmount(text, way, reader, fluid?.density_kgPerM3);
    if (read.ok) setAmount({ text, volume_m3: read.volume_m3 });
    return read.ok ? { ok: true, ...(read.note ? { note: read.note } : {}) } : read;
  };
  const enterReading = (text: string): EntryVerdict => {
    if (channel === 'none') return { ok: true };
    const read = readEntry(text, CHANNEL_ROLES[channel], reader, LIMITS[channel]);
    if (read.ok) setReading({ text, value: read.value });
    return read;
  };
  const ready = amount !== undefined && (channel === 'none' || reading !== undefined);
  const write = (): void => {
    if (!ready) return;
    const added_m3 = way === 'drawn-off' ? -amount.volume_m3 : amount.volume_m3;
    onPour({
      at: new Date().toISOString(),
      way,
      added_m3,
      spread_m3: Math.abs(added_m3) * POUR_SPREADS[way].ratio,
      note: note.trim(),
      state: 'counts',
      simulated: false,
      reading: readingOf(channel, reading?.value ?? 0),
    });
    // The next can is most often as large as the last one; its reading is another.
    setReading(undefined);
    setNote('');
  };
  return (
    <Box mt="3" p="3" bg="sunk" borderRadius="md" data-testid="pour-entry" className="no-print">
      <FieldGrid min="200px">
        <Select
          label="Poured by"
          value={way}
          options={POUR_WAYS.map((value) => ({
            value,
            label: `${POUR_SPREADS[value].name}, ± ${formatQuantity(POUR_SPREADS[value].ratio, 'share', { reader, digits: 1 }).text}`,
          }))}
          onChange={(next) => {
            setWay(next);
            setAmount(undefined);
          }}
        />
        <TextEntry
          key={way}
          label={
            way === 'scale' ? 'Weight or volume poured' : way === 'drawn-off' ? 'Volume drawn off' : 'Volume poured'
          }
          value={amount?.text ?? ''}
          unit={way === 'scale' ? 'kg' : formatQuantity(0, 'tankVolume', { reader }).symbol}
          onEnter={enterAmount}
          {...(way !== 'scale'
            ? {}
            : {
                hint: fluid
                  ? `Weight goes by the fuel’s density at the set temperature, ${formatQuantity(fluid.density_kgPerM3, 'density', { reader }).text}.`
                  : `No weight can be taken: the fuel’s density is not known. ${state.ok ? '' : state.error.detail}`,
              })}
        />
        <Select
          label="Read"
          value={channel}
          options={([reads, ...(reads === 'height' ? [] : (['needle'] as const)), 'none'] as const).map((value) => ({
            value,
            label: CHANNEL_WORDS[value],
          }))}
          onChange={(next) => {
            setChannel(next);
            setReading(undefined);
          }}
        />
        {channel !== 'none' && (
          <TextEntry
            key={`${channel} ${reading === undefined ? 'open' : 'read'}`}
            label="Reading after it"
            value={reading?.text ?? ''}
            unit={formatQuantity(0, CHANNEL_ROLES[channel], { reader }).symbol}
            onEnter={enterReading}
          />
        )}
        <TextEntry label="Note to it" value={note} onEnter={(text) => (setNote(text.slice(0, 300)), { ok: true })} />
        <Box pt="5">
          <Button kind="main" disabled={!ready} onClick={write} testId="write-pour">
            Write it down
          </Button>
        </Box>
      </FieldGrid>
    </Box>
  );
}

function readingOf(channel: Channel, value: number): PourDocument['reading'] {
  switch (channel) {
    case 'resistance':
      return { kind: 'resistance', reading_ohm: value };
    case 'voltage':
      return { kind: 'voltage', reading_V: value };
    case 'needle':
      return { kind: 'needle', shown_ratio: value };
    case 'height':
      return { kind: 'height', height_m: value };
    case 'none':
      return { kind: 'none' };
  }
}

/** A volume, or on a scale a weight that the density makes one. */
function readAmount(
  text: string,
  way: Way,
  reader: Reader,
  density_kgPerM3: number | undefined,
):
  | { readonly ok: true; readonly volume_m3: number; readonly note?: string }
  | { readonly ok: false; readonly message: string } {
  if (way === 'scale' && density_kgPerM3) {
    const weight = parseQuantity(text, { kind: 'mass', unit: 'kg', reader });
    if (weight.ok && weight.value.si > 0) {
      const volume_m3 = weight.value.si / density_kgPerM3;
      return {
        ok: true,
        volume_m3,
        note: `${formatQuantity(weight.value.si, 'mass', { reader }).text} = ${formatQuantity(volume_m3, 'tankVolume', { reader }).text}`,
      };
    }
  }
  const read = readEntry(text, 'tankVolume', reader, { min: 0, max: 20 });
  return read.ok ? { ok: true, volume_m3: read.value, ...(read.note ? { note: read.note } : {}) } : read;
}
