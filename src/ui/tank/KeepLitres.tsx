'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { chosen, withValue, type Known, type ShapeDocument } from '@/core/plan';
import { shapeKind } from '@/core/shapes';
import { entryText, formatQuantity, roleUnit, ROLES, unitById } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { FieldGrid } from '../parts/Panel';
import { useAsked } from '../state/answers';
import { amendEdit, applyEdit, openDocument, useDrawnSystem, useEditor, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';
import { useSizeWord } from './ShapeFields';

/** Sizes that are the first to give way, as most builders would have it: the height, then what is left. */
const GIVES_FIRST = ['height_m', 'shell_m', 'length_m'];
/** A size that is off by less is the same: what a search rounds to, and a hair. */
const SAME = 1.01e-4;

const sizeOf = (shape: ShapeDocument, key: string): Known => shape[key as keyof ShapeDocument] as unknown as Known;

/** What the tank is to hold, and the size that gives way for it: once, or whenever another size changes. */
export function KeepLitres({ t }: { readonly t: number }) {
  const reader = useReader();
  const shape = useValue((system) => system.tanks[t]!.shape);
  const { results, system: of } = useDetails();
  const holds = results?.ok ? results.evaluation.tanks[t]?.holds_m3 : undefined;
  // Litres of a moment ago are not what shall be kept.
  const isFresh = of === useDrawnSystem() && holds !== undefined;
  const [wish, setBy] = useState('');
  const [kept, setKept] = useState<number>();
  const [message, setMessage] = useState('');
  const { ask, running } = useAsked('sizeFor');
  const called = useSizeWord(shape, '');
  const { sizes } = shapeKind(shape);
  const has = (key: string): boolean => sizes.some((size) => size.key === key);
  const by = has(wish) ? wish : (GIVES_FIRST.find(has) ?? sizes[0]!.key);
  const word = called(sizes.find(({ key }) => key === by)!);
  const litres = (value: number): string => formatQuantity(value, 'tankVolume', { reader }).text;

  /** While it is this that edits. */
  const ours = useRef(false);
  /** Sets the size to what holds so much; as a part of the edit that asked for it, where one did. */
  const give = async (
    wanted_m3: number,
    put: typeof applyEdit,
    name = `keeping ${litres(wanted_m3)}`,
  ): Promise<void> => {
    const asked = openDocument();
    setMessage('');
    const found = await ask(t, by, wanted_m3);
    // A newer question has the word; what else was changed of the tank meanwhile asks anew.
    if (!found || openDocument().tanks[t]?.id !== asked.tanks[t]!.id) return;
    if (openDocument().tanks[t] !== asked.tanks[t]) return give(wanted_m3, put, name);
    if (!found.ok) return setMessage(`${litres(wanted_m3)} cannot be had. ${found.error.detail}`);
    const { value } = found.value;
    if (Math.abs(value - sizeOf(asked.tanks[t]!.shape, by).value) < SAME) return;
    ours.current = true;
    put(name, (system) => withValue(system, ['tanks', t, 'shape', by], chosen(value)));
    ours.current = false;
  };
  const giving = useRef(give);
  useEffect(() => {
    giving.current = give;
  });

  useEffect(() => {
    if (kept === undefined) return;
    return useEditor.subscribe((now, before) => {
      const [was, is] = [before.system?.tanks[t]?.shape, now.system?.tanks[t]?.shape];
      if (ours.current || !was || !is || was === is) return;
      const changed = Object.keys(is).filter(
        (key) => was[key as keyof ShapeDocument] !== is[key as keyof ShapeDocument],
      );
      const off =
        was.kind !== is.kind
          ? 'The shape is another'
          : changed.every((key) => key === by)
            ? `${word} was changed by itself`
            : '';
      if (off === '') return void giving.current(kept, amendEdit);
      setKept(undefined);
      setMessage(`${off}: litres are no longer kept.`);
    });
  }, [kept, by, word, t]);

  const enter = (text: string): EntryVerdict => {
    const read = readEntry(text, 'tankVolume', reader, { min: 1e-6, max: 8000 });
    if (!read.ok) return read;
    if (kept !== undefined) setKept(read.value);
    void give(read.value, applyEdit, `${word} for ${litres(read.value)}`);
    return { ok: true, ...(read.note ? { note: read.note } : {}) };
  };
  return (
    <Box mt="3" pt="3" borderTopWidth="1px" borderColor="rule" data-testid="keep-litres">
      <FieldGrid>
        <TextEntry
          label="To hold, to the fill limit"
          value={holds === undefined ? '' : entryText(holds, 'tankVolume', reader)}
          unit={unitById(ROLES.tankVolume.kind, roleUnit('tankVolume', reader)).symbol}
          onEnter={enter}
        />
        <Select
          label="by changing"
          value={by}
          options={sizes.map((size) => ({ value: size.key, label: called(size) }))}
          onChange={setBy}
        />
      </FieldGrid>
      <chakra.label display="flex" gap="2" alignItems="center" minH="44px" cursor="pointer">
        <chakra.input
          type="checkbox"
          width="22px"
          height="22px"
          checked={kept !== undefined}
          disabled={!isFresh && kept === undefined}
          onChange={(event) => {
            setMessage('');
            setKept(event.target.checked ? holds : undefined);
          }}
        />
        {kept === undefined
          ? 'Keep litres when another size changes'
          : `Keep ${litres(kept)}: ${word.toLowerCase()} gives way`}
      </chakra.label>
      <Box role="status" minH="1lh" color={message ? 'warn' : 'soft'} fontWeight={message ? '600' : undefined}>
        {running ? `${word} is being worked out…` : message}
      </Box>
    </Box>
  );
}
