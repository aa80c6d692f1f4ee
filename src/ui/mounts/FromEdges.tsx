'use client';

import { Box } from '@chakra-ui/react';
import { chosen, type MountDocument } from '@/core/plan';
import { entryText, ROLES, roleUnit, unitById } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { applyEdit, setValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { withMirrored, type Span } from './mountEdits';

const EDGES = [
  ['x_m', 'Off the tank’s aft end'],
  ['y_m', 'Off its starboard side'],
  ['z_m', 'Over its bottom'],
] as const;
/** As a tape is read [m]. */
const toMarks = (value_m: number): number => Math.round(1e3 * value_m) / 1e3;
/** As far as a tape may lie either way [m]. */
const LIMITS = { min: -20, max: 20 };

/** Where a mount is from the edges of its tank, as it is marked out on it; and its like elsewhere on it. */
export function FromEdges({
  mount,
  m,
  span,
}: {
  readonly mount: MountDocument;
  readonly m: number;
  readonly span: Span;
}) {
  const sides = useSides();
  const reader = useReader();
  const unit = unitById(ROLES.tape.kind, roleUnit('tape', reader)).symbol;
  const enter =
    (key: (typeof EDGES)[number][0], edge_m: number) =>
    (text: string): EntryVerdict => {
      const read = readEntry(text, 'tape', reader, LIMITS);
      if (!read.ok) return read;
      setValue(`move ${mount.name}`, ['mounts', m, key], chosen(Number((edge_m + read.value).toPrecision(12))));
      return { ok: true };
    };
  const mirror = (over: 'sides' | 'ends') => () =>
    applyEdit(`one more like ${mount.name}`, (current) => withMirrored(current, m, over, span));
  return (
    <Box mt="2">
      <FieldGrid min="150px">
        {EDGES.map(([key, label], k) => (
          <TextEntry
            key={key}
            label={`${sides(label)}, ${mount.name}`}
            value={entryText(toMarks(mount[key].value - span.low[k]!), 'tape', reader)}
            unit={unit}
            onEnter={enter(key, span.low[k]!)}
            quiet
          />
        ))}
      </FieldGrid>
      <Box display="flex" gap="2" flexWrap="wrap" mt="2">
        <Button onClick={mirror('sides')}>One more on the other side</Button>
        <Button onClick={mirror('ends')}>One more at the other end</Button>
      </Box>
    </Box>
  );
}
