'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { readName } from '../fields/readName';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, setValue, useValue } from '../state/editor';
import { chooseTank, useTank } from '../state/tankChoice';
import { AddTank } from './AddTank';
import { withoutTank } from './tankEdits';

/** Which tank a stage shows; with `manage` also its name, its removal and one more. */
export function TankPicker({ manage = false }: { readonly manage?: boolean }) {
  const t = useTank();
  const names = useValue(useShallow((system) => system.tanks.map((tank) => tank.name)));
  const [isAdding, setAdding] = useState(false);
  if (names.length < 2 && !manage) return null;
  return (
    <Box display="flex" gap="2" flexWrap="wrap" alignItems="end" className="no-print">
      {names.length > 1 &&
        names.map((name, i) => (
          <chakra.button
            key={i}
            type="button"
            aria-pressed={i === t}
            onClick={() => chooseTank(i)}
            minH="44px"
            px="4"
            borderRadius="md"
            borderWidth="1.5px"
            fontWeight="650"
            cursor="pointer"
            bg={i === t ? 'accent' : 'panel'}
            color={i === t ? 'onAccent' : 'ink'}
            borderColor={i === t ? 'accent' : 'edge'}
          >
            {name}
          </chakra.button>
        ))}
      {manage && (
        <Button onClick={() => setAdding(!isAdding)}>
          <Plus size={18} aria-hidden />
          Tank
        </Button>
      )}
      {manage && (
        <Box ml="auto">
          <TankHead />
        </Box>
      )}
      {manage && isAdding && (
        <Box flexBasis="100%">
          <AddTank key={t} onDone={() => setAdding(false)} />
        </Box>
      )}
    </Box>
  );
}

/** The name of the shown tank, and its removal where it is not the last. */
function TankHead() {
  const t = useTank();
  const name = useValue((system) => system.tanks[t]!.name);
  const last = useValue((system) => system.tanks.length < 2);
  return (
    <Box display="flex" gap="2" alignItems="start" className="no-print">
      <Box width="200px">
        <TextEntry
          label="Name of the tank"
          hideLabel
          value={name}
          onEnter={(text) => readName(text, (entered) => setValue('rename a tank', ['tanks', t, 'name'], entered))}
        />
      </Box>
      {!last && (
        <SquareButton
          label="Remove this tank"
          title={`Remove ${name}`}
          onClick={() => applyEdit(`remove ${name}`, (system) => withoutTank(system, t))}
        >
          <Trash2 size={18} aria-hidden />
        </SquareButton>
      )}
    </Box>
  );
}
