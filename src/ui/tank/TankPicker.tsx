'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { applyEdit, openDocument, setValue, useValue } from '../state/editor';
import { chooseTank, useTank } from '../state/tankChoice';
import { withoutTank, withTank } from './tankEdits';

/** Which tank a stage shows; with `manage` also its name, one more, and its removal. */
export function TankPicker({ manage = false }: { readonly manage?: boolean }) {
  const t = useTank();
  const names = useValue((system) => system.tanks.map((tank) => tank.name).join('\n')).split('\n');
  const add = (): void => {
    applyEdit('add a tank', withTank);
    chooseTank(openDocument().tanks.length - 1);
  };
  const rename = (text: string) => {
    const name = text.trim();
    if (name.length < 1 || name.length > 80) return { ok: false as const, message: 'A name has 1 to 80 characters.' };
    setValue('rename a tank', ['tanks', t, 'name'], name);
    return { ok: true as const };
  };
  if (names.length < 2 && !manage) return null;
  return (
    <Box display="flex" gap="2" flexWrap="wrap" alignItems="end" className="no-print">
      {names.length > 1 && names.map((name, i) => (
        <chakra.button
          key={i} type="button" aria-pressed={i === t} onClick={() => chooseTank(i)} minH="44px" px="4" borderRadius="md" borderWidth="1.5px" fontWeight="650" cursor="pointer"
          bg={i === t ? 'accent' : 'panel'} color={i === t ? 'onAccent' : 'ink'} borderColor={i === t ? 'accent' : 'edge'}
        >
          {name}
        </chakra.button>
      ))}
      {manage && <Box flex="1" />}
      {manage && names.length > 1 && <Box width="220px"><TextEntry label="Name of the tank" value={names[t]!} onEnter={rename} /></Box>}
      {manage && names.length > 1 && <Button onClick={() => applyEdit(`remove ${names[t]}`, (system) => withoutTank(system, t))}><Trash2 size={18} aria-hidden />Remove this tank</Button>}
      {manage && <Button onClick={add}><Plus size={18} aria-hidden />Tank</Button>}
    </Box>
  );
}
