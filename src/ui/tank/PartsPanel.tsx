'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import { PART_OPERATIONS, type PartDocument, type SliceDocument, type SystemDocument } from '@/core/plan';
import { formatQuantity } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { EntryFold, useUnfolded } from '../parts/EntryFold';
import { EntryHead } from '../parts/EntryHead';
import { Panel, FieldGrid } from '../parts/Panel';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useShown } from '../state/results';
import { openTank, useTank } from '../state/tankChoice';
import { withMeshPart, withNotch, withPumpModule, withSlice, withSump, withTubeThrough } from './newParts';
import { AXIS_WORDS, ShapeFields } from './ShapeFields';
import { StlImport } from './StlImport';

const OPERATION_WORDS: Readonly<Record<PartDocument['operation'], string>> = {
  add: 'added to the tank',
  take: 'cut away from it',
  displace: 'stands inside it',
};

/** Bodies added, cut away and standing inside, and bands taken out: each with the litres that it makes or costs. */
export function PartsPanel() {
  const t = useTank();
  const parts = useValue((system) => system.tanks[t]!.parts);
  const slices = useValue((system) => system.tanks[t]!.slices);
  const fold = useUnfolded([...parts, ...slices].map(({ id }) => id));
  return (
    <Panel
      title="Added and cut away"
      testId="parts"
      aside={<StlImport into="part" onTake={(system, shape) => withMeshPart(system, openTank(), shape)} />}
    >
      <Box display="flex" gap="2" flexWrap="wrap" mb={parts.length + slices.length > 0 ? '3' : undefined}>
        <AddButton edit="add a sump" change={withSump}>
          Sump
        </AddButton>
        <AddButton edit="cut a notch" change={withNotch}>
          Notch
        </AddButton>
        <AddButton edit="stand a pump module inside" change={withPumpModule}>
          Pump module inside
        </AddButton>
        <AddButton edit="lead a tube through" change={withTubeThrough}>
          Tube through it
        </AddButton>
        <AddButton edit="cut a slice out" change={withSlice}>
          Cut a slice out
        </AddButton>
      </Box>
      {parts.length + slices.length === 0 && (
        <Box color="soft" mt="2">
          A sump, a step, a T: add bodies to the shape or cut them away. A band taken out shows what it costs.
        </Box>
      )}
      {parts.map((part, p) => (
        <EntryFold
          key={part.id}
          path={['tanks', t, 'parts', p]}
          name={part.name}
          note={<Change id={part.id} t={t} />}
          isOpen={fold.isOpen(part.id)}
          onToggle={(isOpen) => fold.toggled(part.id, isOpen)}
        >
          <PartFields part={part} t={t} p={p} />
        </EntryFold>
      ))}
      {slices.map((slice, s) => (
        <EntryFold
          key={slice.id}
          path={['tanks', t, 'slices', s]}
          name={slice.name}
          note={<Change id={slice.id} t={t} />}
          isOpen={fold.isOpen(slice.id)}
          onToggle={(isOpen) => fold.toggled(slice.id, isOpen)}
        >
          <SliceFields slice={slice} t={t} s={s} />
        </EntryFold>
      ))}
    </Panel>
  );
}

function AddButton({
  edit,
  change,
  children,
}: {
  readonly edit: string;
  readonly change: (system: SystemDocument, t: number) => SystemDocument;
  readonly children: ReactNode;
}) {
  return (
    <Button onClick={() => applyEdit(edit, (system) => change(system, openTank()))}>
      <Plus size={18} aria-hidden />
      {children}
    </Button>
  );
}

function PartFields({ part, t, p }: { readonly part: PartDocument; readonly t: number; readonly p: number }) {
  const sides = useSides();
  const list = ['tanks', t, 'parts'] as const;
  const at = (key: string) => [...list, p, key];
  return (
    <>
      <EntryHead name={part.name} list={list} index={p}>
        <Select
          hideLabel
          label={`What ${part.name} does`}
          width="190px"
          value={part.operation}
          options={PART_OPERATIONS.map((value) => ({ value, label: OPERATION_WORDS[value] }))}
          onChange={(operation) => setValue(`what ${part.name} does`, at('operation'), operation)}
        />
      </EntryHead>
      <ShapeFields shape={part.shape} path={at('shape')} side="" owner={part.name}>
        <KnownField label={`${sides('From aft')}, ${part.name}`} path={at('x_m')} />
        <KnownField label={`${sides('From starboard')}, ${part.name}`} path={at('y_m')} />
        <KnownField
          label={`Its bottom above the floor, ${part.name}`}
          path={at('z_m')}
          hint="Minus for below the floor."
        />
      </ShapeFields>
    </>
  );
}

function SliceFields({ slice, t, s }: { readonly slice: SliceDocument; readonly t: number; readonly s: number }) {
  const sides = useSides();
  const list = ['tanks', t, 'slices'] as const;
  const at = (key: string) => [...list, s, key];
  return (
    <>
      <EntryHead name={slice.name} list={list} index={s} />
      <FieldGrid>
        <Select
          label={`Across, ${slice.name}`}
          value={slice.axis}
          options={(['x', 'y', 'z'] as const).map((value) => ({ value, label: sides(AXIS_WORDS[value]) }))}
          onChange={(axis) => setValue('which way a band runs', at('axis'), axis)}
        />
        <KnownField label={`Begins at, ${slice.name}`} path={at('at_m')} />
        <KnownField label={`Width taken out, ${slice.name}`} path={at('width_m')} />
      </FieldGrid>
      <Box fontSize="sm" color="soft" mt="2">
        What lies beyond moves back to close the gap. Ports keep the places that are typed for them: look at those
        beyond the band again.
      </Box>
    </>
  );
}

/** The litres that one part makes or costs. */
function Change({ id, t }: { readonly id: string; readonly t: number }) {
  const reader = useReader();
  const change = useShown(({ results }) => (results?.ok ? results.evaluation.tanks[t]?.changes[id] : undefined));
  if (change === undefined) return null;
  const text = formatQuantity(Math.abs(change), Math.abs(change) < 5e-3 ? 'smallVolume' : 'tankVolume', {
    reader,
  }).text;
  return (
    <Box fontWeight="700" fontSize="lg" pb="2" minW="110px" textAlign="right" data-testid={`change-${id}`}>
      {change < 0 ? `costs ${text}` : `adds ${text}`}
    </Box>
  );
}
