'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { chosen, limitsAt, measured, withAdded, withoutEntry, withValue } from '@/core/plan';
import { entryText, roleUnit, ROLES, unitById } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { readEntry } from '../fields/readEntry';
import { readName } from '../fields/readName';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, openDocument, setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useLines } from '../state/useLines';

/** How a line is led: points on its way, bends, holders, holes, and whether its ends move. */
export function RoutePanel({ index }: { readonly index: number }) {
  const line = useSystem().lines[index]!;
  const { lines } = useLines();
  const route = lines?.routes.find((each) => each.line === line.id);
  const at = (...rest: (string | number)[]) => ['lines', index, ...rest];
  if (line.kind === 'direct') return null;
  const sheets = (['bend_m', 'held_m'] as const).filter((key) => line[key] === undefined);
  return (
    <chakra.details mt="4" data-testid="route" open={line.points.length + line.passes.length > 0 || undefined}>
      <chakra.summary cursor="pointer" fontWeight="700" minH="44px" display="flex" alignItems="center">
        How it is led
        {route && (
          <Box as="span" color="soft" fontWeight="400">
            : bends no tighter than&nbsp;
            <Quantity value={route.leastBend_m} role="tape" />, held every&nbsp;
            <Quantity value={route.mostApart_m} role="run" />
          </Box>
        )}
      </chakra.summary>
      {route && line.points.length > 0 && (
        <Box mb="2">
          Along its points with bends rounded it takes{' '}
          <b>
            <Quantity value={route.developed_m} role="run" />
          </b>
          .{' '}
          <Button
            onClick={() =>
              setValue('length along its points', at('length_m'), {
                ...measured(Number(route.developed_m.toFixed(3)), 0.02),
              })
            }
          >
            Use that length
          </Button>
        </Box>
      )}
      <FieldGrid>
        {line.bend_m && <KnownField path={at('bend_m')} />}
        {line.held_m && <KnownField label="Furthest between holders" path={at('held_m')} />}
        <Select
          label="Its ends"
          value={line.flexes ? 'move' : 'stand'}
          options={[
            { value: 'stand', label: 'stand still' },
            { value: 'move', label: 'move against each other' },
          ]}
          onChange={(value) => setValue('ends move', at('flexes'), value === 'move' ? true : undefined)}
        />
      </FieldGrid>
      <Box display="flex" gap="2" flexWrap="wrap" mt="2">
        {sheets.includes('bend_m') && (
          <Button onClick={() => setValue('tightest bend', at('bend_m'), measured(route?.leastBend_m ?? 0.1, 0.005))}>
            <Plus size={18} aria-hidden />
            Tightest bend
          </Button>
        )}
        {sheets.includes('held_m') && (
          <Button onClick={() => setValue('holders', at('held_m'), chosen(route?.mostApart_m ?? 0.4))}>
            <Plus size={18} aria-hidden />
            Holders
          </Button>
        )}
        <Button
          onClick={() =>
            applyEdit('add a point on the way', (system) =>
              withAdded(system, at('points'), {
                forward_m: line.forward_m.value / 2,
                toPort_m: line.toPort_m.value / 2,
                rise_m: line.rise_m.value / 2,
              }),
            )
          }
        >
          <Plus size={18} aria-hidden />
          Point on its way
        </Button>
        <Button
          onClick={() =>
            applyEdit('add a hole to pass', (system) =>
              withAdded(system, at('passes'), {
                name: `Sheet ${line.passes.length + 1}`,
                hole_m: chosen(route?.passes[0]?.wants_m ?? 0.018),
              }),
            )
          }
        >
          <Plus size={18} aria-hidden />
          Sheet it passes
        </Button>
      </Box>
      <Points index={index} />
      {line.passes.map((pass, p) => {
        const check = route?.passes[p];
        return (
          <Box key={p} display="flex" gap="2" alignItems="end" mt="2" flexWrap="wrap">
            <Box width="200px">
              <TextEntry
                label={`Sheet ${p + 1}, name`}
                value={pass.name}
                onEnter={(text) =>
                  readName(text, (entered) => setValue('name of the sheet', at('passes', p, 'name'), entered))
                }
              />
            </Box>
            <Box width="min(100%, 380px)">
              <KnownField label={`Hole in ${pass.name}`} path={at('passes', p, 'hole_m')} />
            </Box>
            <SquareButton
              label={`Remove ${pass.name}`}
              onClick={() => applyEdit(`remove ${pass.name}`, (system) => withoutEntry(system, at('passes'), p))}
            >
              <Trash2 size={18} aria-hidden />
            </SquareButton>
            {check && (
              <Box color={check.state === 'fits' ? 'good' : 'stop'} fontWeight="650">
                {check.state === 'fits' ? (
                  '● takes its grommet'
                ) : check.wants_m === undefined ? (
                  '■ wider than any grommet'
                ) : (
                  <>
                    ■ its grommet wants <Quantity value={check.wants_m} role="bore" />
                  </>
                )}
              </Box>
            )}
          </Box>
        );
      })}
    </chakra.details>
  );
}

/** Points on a line's way, from its near end, in vehicle axes; typed or taken from the vehicle. */
function Points({ index }: { readonly index: number }) {
  const sides = useSides();
  const reader = useReader();
  const { points } = useSystem().lines[index]!;
  const unit = unitById(ROLES.run.kind, roleUnit('run', reader)).symbol;
  if (points.length === 0) return null;
  const enter = (p: number, key: 'forward_m' | 'toPort_m' | 'rise_m') => (text: string) => {
    const path = ['lines', index, 'points', p, key];
    const read = readEntry(text, 'run', reader, limitsAt(openDocument(), path));
    if (!read.ok) return read;
    applyEdit('point on the way', (system) => withValue(system, path, read.value));
    return { ok: true as const };
  };
  return (
    <Box mt="3">
      <Box fontWeight="650">Points on its way, from its near end</Box>
      {points.map((point, p) => (
        <Box key={p} display="flex" gap="2" alignItems="end" mt="1" flexWrap="wrap">
          {(
            [
              ['forward_m', 'forward'],
              ['toPort_m', sides('to port')],
              ['rise_m', 'up'],
            ] as const
          ).map(([key, word]) => (
            <Box key={key} width="140px">
              <TextEntry
                label={`Point ${p + 1}, ${word}`}
                value={entryText(point[key], 'run', reader)}
                unit={unit}
                onEnter={enter(p, key)}
              />
            </Box>
          ))}
          <SquareButton
            label={`Remove point ${p + 1}`}
            onClick={() => applyEdit('remove a point', (system) => withoutEntry(system, ['lines', index, 'points'], p))}
          >
            <Trash2 size={18} aria-hidden />
          </SquareButton>
        </Box>
      ))}
    </Box>
  );
}
