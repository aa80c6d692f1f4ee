'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { LINE_KINDS, withAdded, withoutEntry, withValue, withWay } from '@/core/plan';
import { FITTINGS, ROUGHNESS, type FittingKey, type RoughnessKey } from '@/core/reference/losses';
import { formatQuantity } from '@/core/units';
import { Button } from '../parts/Button';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { FieldGrid, Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { useFlows, useLines } from '../state/useLines';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { readName } from '../fields/readName';
import { LINE_KIND_WORDS } from './lineWords';
import { RoutePanel } from './RoutePanel';

export function LinePanel({ index }: { readonly index: number }) {
  const system = useSystem();
  const line = system.lines[index]!;
  const at = (...rest: (string | number)[]) => ['lines', index, ...rest];
  const link = useFlows()
    .flatMap(({ links }) => links)
    .find((candidate) => candidate.id === line.id);
  return (
    <Panel
      title={line.name}
      testId="line"
      aside={
        link && (
          <Box color="soft">
            loses <Quantity value={Math.abs(link.loss_Pa)} role="pressure" /> at the needed flow
          </Box>
        )
      }
    >
      <Box maxW="420px" mb="3">
        <TextEntry
          label="Name"
          value={line.name}
          onEnter={(text) => readName(text, (name) => setValue(`rename ${line.name}`, at('name'), name))}
        />
      </Box>
      <FieldGrid>
        <KnownField
          path={at('bore_m')}
          {...(line.kind === 'direct' ? {} : { entry: { line: line.kind } })}
          hint={line.kind === 'hose' ? 'A size such as -6 or 1/4 NPT is read as its bore.' : undefined}
        />
        <KnownField path={at('length_m')} />
        <KnownField label="Rise to its far end" path={at('rise_m')} />
        <KnownField path={at('forward_m')} hint="Counts when the vehicle is pitched." />
        <KnownField path={at('toPort_m')} hint="Counts when it is rolled." />
        <Select
          label="Kind"
          value={line.kind}
          options={LINE_KINDS.map((value) => ({ value, label: LINE_KIND_WORDS[value] }))}
          onChange={(value) =>
            applyEdit('kind of line', (current) =>
              withValue(withValue(current, at('stock'), undefined), at('kind'), value),
            )
          }
        />
        <Select
          label="Inside surface"
          value={line.wall}
          options={(Object.keys(ROUGHNESS) as RoughnessKey[]).map((value) => ({ value, label: ROUGHNESS[value].name }))}
          onChange={(value) => setValue('inside surface', at('wall'), value)}
        />
      </FieldGrid>
      <FromPlaces index={index} />
      <Fittings index={index} />
      <RoutePanel index={index} />
    </Panel>
  );
}

/** What is read off a tape is right to no better than this [m]. */
const SAME_M = 0.002;

/** Where its two ends stand somewhere, how far they lie apart can be taken from that. */
function FromPlaces({ index }: { readonly index: number }) {
  const reader = useReader();
  const sides = useSides();
  const line = useSystem().lines[index]!;
  const way = useLines().lines?.paths.find((each) => each.line === line.id)?.way_m;
  const written = [line.forward_m.value, line.toPort_m.value, line.rise_m.value];
  if (!way || way.every((value, axis) => Math.abs(value - written[axis]!) < SAME_M)) return null;
  const show = (value: number): string => formatQuantity(value, 'run', { reader }).text;
  return (
    <Box mt="2" display="flex" gap="3" alignItems="center" flexWrap="wrap" data-testid="from-places">
      <Box>
        {sides(
          `Where its ends stand it goes ${show(way[0])} forward, ${show(way[1])} to port and rises ${show(way[2])}.`,
        )}
      </Box>
      <Button
        onClick={() => applyEdit(`take ${line.name} from the places`, (current) => withWay(current, line.id, way))}
      >
        Take from the places
      </Button>
    </Box>
  );
}

const LINE_FITTINGS: readonly FittingKey[] = [
  'elbow-90',
  'elbow-90-long',
  'elbow-45',
  'bend-180',
  'tee-through',
  'tee-branch',
  'ball-valve',
  'gate-valve',
  'globe-valve',
  'barb-step',
  'banjo',
  'swivel',
  'bulkhead',
  'reducer',
  'check-swing',
  'check-lift',
];

function Fittings({ index }: { readonly index: number }) {
  const system = useSystem();
  const line = system.lines[index]!;
  const path = ['lines', index, 'fittings'];
  const setCount = (f: number) => (text: string) => {
    const count = Number(text);
    if (!Number.isInteger(count) || count < 0 || count > 50)
      return { ok: false as const, message: 'Enter a whole number from 0 to 50.' };
    applyEdit('number of fittings', (current) =>
      count === 0
        ? withoutEntry(current, path, f)
        : {
            ...current,
            lines: current.lines.map((each, i) =>
              i === index
                ? { ...each, fittings: each.fittings.map((fitting, j) => (j === f ? { ...fitting, count } : fitting)) }
                : each,
            ),
          },
    );
    return { ok: true as const };
  };
  const unused = LINE_FITTINGS.find((key) => !line.fittings.some(({ fitting }) => fitting === key));
  return (
    <Box mt="3">
      <Box fontWeight="650" mb="1">
        Fittings in it
      </Box>
      <Box display="grid" gap="2">
        {line.fittings.map((fitting, f) => (
          <Box key={`${fitting.fitting}-${f}`} display="flex" gap="2" alignItems="start" maxW="520px">
            <Box width="84px">
              <TextEntry
                label={`Number of ${FITTINGS[fitting.fitting].name}`}
                hideLabel
                value={String(fitting.count)}
                unit="×"
                onEnter={setCount(f)}
              />
            </Box>
            <Box flex="1">
              <Select
                label="Fitting"
                hideLabel
                value={fitting.fitting}
                options={LINE_FITTINGS.map((value) => ({ value, label: FITTINGS[value].name }))}
                onChange={(value) => setValue('kind of fitting', [...path, f, 'fitting'], value)}
              />
            </Box>
          </Box>
        ))}
      </Box>
      {unused && (
        <Box mt="2">
          <Button
            onClick={() =>
              applyEdit('add a fitting', (current) => withAdded(current, path, { fitting: unused, count: 1 }))
            }
          >
            <Plus size={18} aria-hidden />
            Add a fitting
          </Button>
        </Box>
      )}
    </Box>
  );
}
