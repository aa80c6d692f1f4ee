'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Download, Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { fileNameOf } from '@/core/plan';
import { evenStep_m3, type DipResult, type SightResult } from '@/core/answers';
import { drawingSvg, stripDrawing } from '@/core/drawings';
import type { Mark } from '@/core/gauge';
import { PORT_PARTS } from '@/core/reference/portParts';
import { formatQuantity, fromSI, roleUnit, unitById, type Reader } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { readName } from '../fields/readName';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { saveFile } from '../parts/saveFile';
import { Quantity } from '../parts/Quantity';
import { SquareButton } from '../parts/SquareButton';
import { FACE_WORDS } from '../parts/words';
import { applyEdit, openDocument, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useDetails } from '../state/results';
import { withoutScale, withSight, withStick } from './gaugeEdits';

const BOSSES = [
  { value: '', label: 'not said' },
  ...PORT_PARTS.filter(({ group }) => group === 'bung' || group === 'bulkhead').map(({ key, name }) => ({
    value: key,
    label: name,
  })),
];

const SIDES = ['fore', 'aft', 'port', 'starboard'] as const;

/** Sight tubes and dipsticks: what they never show, and their marks at true size. */
export function ScalesPanel({ t }: { readonly t: number }) {
  const reader = useReader();
  const sides = useSides();
  const tank = useValue((system) => system.tanks[t]!);
  const result = useDetails(({ results }) => (results?.ok ? results.evaluation.tanks[t] : undefined));
  const step = evenStep_m3(result?.holds_m3 ?? 0.05, unitById('volume', roleUnit('tankVolume', reader)).toSI);
  return (
    <Panel
      title="Sight tube and dipstick"
      testId="scales"
      aside={
        <Box display="flex" gap="2" flexWrap="wrap">
          <Button onClick={() => applyEdit('add a sight tube', (system) => withSight(system, t, step))}>
            <Plus size={18} aria-hidden />
            Sight tube
          </Button>
          <Button
            disabled={!tank.ports.some(({ face }) => face === 'lid')}
            onClick={() => applyEdit('add a dipstick', (system) => withStick(system, t, step))}
          >
            <Plus size={18} aria-hidden />
            Dipstick
          </Button>
        </Box>
      }
    >
      {tank.sightTubes.length + tank.dipsticks.length === 0 && (
        <Box color="soft">Neither yet. A dipstick costs nothing and reads when all else fails.</Box>
      )}
      {tank.sightTubes.map((sight, i) => {
        const of = (words: string): string => `${words}, ${sight.name}`;
        const at = (key: string) => ['tanks', t, 'sightTubes', i, key];
        return (
          <Box
            key={sight.id}
            borderTopWidth="1px"
            borderColor="rule"
            pt="3"
            mt="2"
            data-path={`tanks.${t}.sightTubes.${i}`}
          >
            <ScaleHead t={t} list="sightTubes" index={i} name={sight.name}>
              <Select
                label={of('On the')}
                value={sight.face}
                options={SIDES.map((value) => ({ value, label: sides(FACE_WORDS[value]) }))}
                onChange={(face) => setValue(`side of ${sight.name}`, at('face'), face)}
              />
            </ScaleHead>
            <FieldGrid>
              <KnownField label={of('Lower boss above the floor')} path={at('lower_m')} />
              <KnownField label={of('Upper boss above the floor')} path={at('upper_m')} />
              <KnownField
                label={of(
                  sides(
                    sight.face === 'fore' || sight.face === 'aft' ? 'From the starboard wall' : 'From the aft wall',
                  ),
                )}
                path={at('along_m')}
              />
              <KnownField label={of('A mark every')} path={at('markEvery_m3')} />
              <Box data-path={at('boss').join('.')}>
                <Select
                  label={of('Bosses')}
                  value={sight.boss ?? ''}
                  options={BOSSES}
                  onChange={(boss) => setValue(`bosses of ${sight.name}`, at('boss'), boss || undefined)}
                />
              </Box>
            </FieldGrid>
            {sight.boss ? (
              <Box color="soft" fontSize="sm" mt="1">
                Their holes stand on the hole chart, at Ports.
              </Box>
            ) : (
              <Box color="soft" fontSize="sm" mt="1">
                Choose the bosses, and their holes stand on the hole chart.
              </Box>
            )}
            <SightSaid
              result={result?.sights.find(({ id }) => id === sight.id)}
              length_m={sight.upper_m.value - sight.lower_m.value}
            />
          </Box>
        );
      })}
      {tank.dipsticks.map((stick, i) => {
        const of = (words: string): string => `${words}, ${stick.name}`;
        const at = (key: string) => ['tanks', t, 'dipsticks', i, key];
        return (
          <Box
            key={stick.id}
            borderTopWidth="1px"
            borderColor="rule"
            pt="3"
            mt="2"
            data-path={`tanks.${t}.dipsticks.${i}`}
          >
            <ScaleHead t={t} list="dipsticks" index={i} name={stick.name}>
              <Select
                label={of('Through')}
                value={stick.port}
                options={tank.ports.map(({ id, name }) => ({ value: id, label: name }))}
                onChange={(port) => setValue(`port of ${stick.name}`, at('port'), port)}
              />
            </ScaleHead>
            <FieldGrid>
              <KnownField label={of('A mark every')} path={at('markEvery_m3')} />
            </FieldGrid>
            <StickSaid result={result?.dips.find(({ id }) => id === stick.id)} />
          </Box>
        );
      })}
    </Panel>
  );
}

/** Name of a scale, what it stands on, and its removal with what was calibrated of it. */
function ScaleHead({
  t,
  list,
  index,
  name,
  children,
}: {
  readonly t: number;
  readonly list: 'sightTubes' | 'dipsticks';
  readonly index: number;
  readonly name: string;
  readonly children: ReactNode;
}) {
  return (
    <Box display="flex" gap="2" alignItems="end" mb="2" flexWrap="wrap">
      <Box flex="1 1 180px">
        <TextEntry
          label={`Name, ${name}`}
          value={name}
          onEnter={(text) =>
            readName(text, (entered) => setValue(`rename ${name}`, ['tanks', t, list, index, 'name'], entered))
          }
        />
      </Box>
      {children}
      <SquareButton
        label={`Remove ${name}`}
        onClick={() => applyEdit(`remove ${name}`, (system) => withoutScale(system, t, list, index))}
      >
        <Trash2 size={18} aria-hidden />
      </SquareButton>
    </Box>
  );
}

function SightSaid({ result, length_m }: { readonly result: SightResult | undefined; readonly length_m: number }) {
  if (!result) return null;
  if (!result.scale.ok)
    return (
      <Box mt="2" color="stop" fontWeight="600">
        {result.scale.error.detail}
      </Box>
    );
  const { marks, unseenLow_m3, unseenHigh_m3 } = result.scale.value;
  return (
    <Box mt="2">
      <Box>
        Never seen: the lowest{' '}
        <b>
          <Quantity value={unseenLow_m3} role="tankVolume" />
        </b>
        {result.unseenWorst_m3 !== undefined && (
          <>
            {' '}
            (at the worst slope <Quantity value={result.unseenWorst_m3} role="tankVolume" />)
          </>
        )}
        , the highest{' '}
        <b>
          <Quantity value={unseenHigh_m3} role="tankVolume" />
        </b>
        .
      </Box>
      <TrueStrip name={result.name} foot="lower boss, its middle" length_m={length_m} marks={marks} />
    </Box>
  );
}

function StickSaid({ result }: { readonly result: DipResult | undefined }) {
  if (!result) return null;
  if (!result.scale.ok)
    return (
      <Box mt="2" color="stop" fontWeight="600">
        {result.scale.error.detail}
      </Box>
    );
  const { marks, length_m, unseenLow_m3 } = result.scale.value;
  return (
    <Box mt="2">
      <Box>
        From the floor to the top of the lid{' '}
        <b>
          <Quantity value={length_m} role="tape" />
        </b>
        . Never wetted: the lowest{' '}
        <b>
          <Quantity value={unseenLow_m3} role="tankVolume" />
        </b>
        . Marked for the vehicle standing level.
      </Box>
      <TrueStrip name={result.name} foot="foot, on the floor" length_m={length_m} marks={marks} />
    </Box>
  );
}

/** Every fifth mark, or every one where there are few, carries its volume. */
const MAIN_EVERY = 5;
const FEW = 14;

const stripMarks = (marks: readonly Mark[], reader: Reader) => {
  const unit = unitById('volume', roleUnit('tankVolume', reader));
  return marks.map(({ at_m, volume_m3 }, i) => ({
    at_m,
    isMain: marks.length <= FEW || i % MAIN_EVERY === MAIN_EVERY - 1,
    label: `${Number(fromSI(volume_m3, unit).toFixed(2))} ${unit.symbol}`,
  }));
};

/** The marks as numbers, and as a strip at true size to print or save. */
function TrueStrip({
  name,
  foot,
  length_m,
  marks,
}: {
  readonly name: string;
  readonly foot: string;
  readonly length_m: number;
  readonly marks: readonly Mark[];
}) {
  const reader = useReader();
  const title = `${openDocument().name}: ${name}`;
  const drawing = stripDrawing({ title, length_m, foot, marks: stripMarks(marks, reader) });
  const { width_mm, height_mm } = drawing;
  const svg = drawingSvg(drawing);
  return (
    <chakra.details mt="2" data-testid="strip">
      <chakra.summary minH="42px" cursor="pointer">
        <b>{marks.length} marks</b>, from {formatQuantity(marks[0]?.at_m ?? 0, 'tape', { reader }).text} to{' '}
        {formatQuantity(marks.at(-1)?.at_m ?? 0, 'tape', { reader }).text} up: see, print or save them at true size
      </chakra.summary>
      <Box my="2" className="no-print">
        <Button onClick={() => saveFile(`${fileNameOf(title, 'scale')}.svg`, 'image/svg+xml', svg)}>
          <Download size={18} aria-hidden />
          Save at true size (SVG)
        </Button>
      </Box>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Marks">
        {/* eslint-disable-next-line @next/next/no-img-element -- drawn here, at a size in millimetres */}
        <img
          src={`data:image/svg+xml,${encodeURIComponent(svg)}`}
          alt={`Marks of ${name} at true size`}
          style={{ width: `${width_mm}mm`, height: `${height_mm}mm`, maxWidth: 'none' }}
        />
      </Box>
    </chakra.details>
  );
}
