'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import type { ShapeDocument, SystemDocument } from '@/core/plan';
import { plainName, STL_UNITS, type StlUnit } from '@/core/formats';
import type { Vec3 } from '@/core/geometry';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { helper } from '../state/lanes';
import { applyEdit, openDocument } from '../state/editor';

const UNIT_WORDS: Readonly<Record<StlUnit, string>> = { mm: 'millimetres', in: 'inches', m: 'metres' };
/** A binary STL of all the triangles that are taken has 1 MB, a text one five times that. */
const MOST_BYTES = 12_000_000;
/** Of a file's name, in the name of the edit. */
const MOST_NAME = 80;

type Props = {
  /** Names the input for tests, such as "shape". */
  readonly into: string;
  /** The change that the mesh makes; `corner_m` is where its aft, starboard, lower corner lies in the file. */
  readonly onTake: (system: SystemDocument, shape: ShapeDocument, corner_m: Vec3) => SystemDocument;
};

/** Takes in a closed mesh, asking what unit it is in; a bad one is refused with what is wrong, and nothing changes. */
export function StlImport({ into, onTake }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [unit, setUnit] = useState<StlUnit>('mm');
  const [fault, setFault] = useState('');
  const take = async (file: File): Promise<void> => {
    setFault('');
    if (file.size > MOST_BYTES)
      return setFault(
        `${file.name} has ${(file.size / 1e6).toFixed(0)} MB; up to ${MOST_BYTES / 1e6} MB are read. Save it coarser.`,
      );
    const read = await helper().readStl(new Uint8Array(await file.arrayBuffer()), unit, file.name);
    if (!read.ok) return setFault(`${file.name}: ${read.error.detail}`);
    const { shape, corner_m } = read.value;
    const refused = await helper().unsavable(onTake(openDocument(), shape, corner_m));
    if (refused) return setFault(`${file.name}: ${refused}`);
    applyEdit(`import ${plainName(file.name, MOST_NAME)}`, (system) => onTake(system, shape, corner_m));
  };
  return (
    <Box>
      <Box display="flex" gap="2" alignItems="end" flexWrap="wrap" justifyContent="flex-end">
        <Select
          hideLabel
          label="Unit of the STL file"
          value={unit}
          options={STL_UNITS.map((value) => ({ value, label: `STL in ${UNIT_WORDS[value]}` }))}
          onChange={setUnit}
        />
        <Button onClick={() => input.current?.click()} title="A closed mesh, text or binary">
          <Upload size={18} aria-hidden />
          Import STL
        </Button>
        <chakra.input
          ref={input}
          type="file"
          accept=".stl,model/stl"
          display="none"
          data-testid={`stl-${into}`}
          onChange={(event) => {
            const [file] = event.currentTarget.files ?? [];
            event.currentTarget.value = '';
            if (file)
              take(file).catch((error: unknown) => setFault(`${file.name} could not be read: ${String(error)}.`));
          }}
        />
      </Box>
      {fault && (
        <Box role="alert" color="stop" fontWeight="600" mt="2" maxW="520px">
          {fault} Nothing was changed.
        </Box>
      )}
    </Box>
  );
}
