'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { asBuilt } from '@/core/model';
import { toPath, valueAt, withAdded, withoutEntry, type Known, type SystemDocument } from '@/core/plan';
import { allKnown } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { pathWords } from '../measure/pathWords';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { useAsked } from '../state/answers';
import { applyEdit, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useTank } from '../state/tankChoice';

/** Sizes of a tank that can be measured on the built one. */
const measurable = (system: SystemDocument, t: number): string[] =>
  allKnown(system.tanks[t])
    .filter(
      ({ path }) =>
        (path[0] === 'shape' || path[0] === 'parts' || path[0] === 'mounting') && String(path.at(-1)).endsWith('_m'),
    )
    .map(({ path }) => path.join('.'));

const nameOf = (system: SystemDocument, t: number, of: string): string => {
  const { owner, label } = pathWords(system, ['tanks', t, ...toPath(of)]);
  return of.startsWith('mounting') ? `${label}, in the vehicle` : `${label}, ${owner}`;
};

/** What the built tank really measures, and what that changes. */
export function BuiltPanel() {
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const tank = system.tanks[t]!;
  const { answer, fresh, ask } = useAsked('built');
  const taken = new Set(tank.built.map(({ of }) => of));
  const open = measurable(system, t).filter((of) => !taken.has(of));
  const add = (of: string): void =>
    applyEdit('measure what was built', (document) => {
      const planned = valueAt(document.tanks[t]!, toPath(of)) as Known;
      return withAdded(document, ['tanks', t, 'built'], {
        of,
        measured: { value: planned.value, origin: 'measured', spread: 0.001 },
      });
    });
  const volume = (value: number): string => formatQuantity(value, 'tankVolume', { reader }).text;
  return (
    <Panel title="As it was built" testId="built">
      {tank.built.length === 0 && (
        <Box color="soft" mb="2">
          When it stands on the bench, measure it and enter what you find: the fit and the litres follow.
        </Box>
      )}
      <FieldGrid>
        {tank.built.map(({ of }, b) => (
          <Box key={of}>
            <KnownField
              label={`${nameOf(system, t, of)}, as built`}
              path={['tanks', t, 'built', b, 'measured']}
              hint={`Planned: ${formatQuantity((valueAt(tank, toPath(of)) as Known).value, 'tape', { reader }).text}.`}
            />
            <Button
              onClick={() =>
                applyEdit('as planned again', (document) => withoutEntry(document, ['tanks', t, 'built'], b))
              }
            >
              As planned
            </Button>
          </Box>
        ))}
      </FieldGrid>
      <Box display="flex" gap="2" mt="3" flexWrap="wrap" alignItems="end">
        {open.length > 0 && (
          <Select
            label="Measured on the built tank"
            value=""
            options={[
              { value: '', label: 'choose a size…' },
              ...open.map((of) => ({ value: of, label: nameOf(system, t, of) })),
            ]}
            onChange={(of) => of && add(of)}
          />
        )}
        {tank.built.length > 0 && (
          <Button onClick={() => void ask(t)}>
            <Plus size={18} aria-hidden />
            What does it change?
          </Button>
        )}
        {tank.built.length > 0 && (
          <Button
            onClick={() =>
              applyEdit('the plan follows what was built', (document) => ({
                ...document,
                tanks: document.tanks.map((other, i) => (i === t ? { ...asBuilt(other), built: [] } : other)),
              }))
            }
          >
            Make the plan follow
          </Button>
        )}
      </Box>
      {answer?.ok && (
        <Box mt="3" opacity={fresh ? 1 : 0.5} data-testid="built-result">
          Planned <b>{volume(answer.value.planned_m3)}</b>, built <b>{volume(answer.value.built_m3)}</b> to the brim:{' '}
          {answer.value.built_m3 < answer.value.planned_m3
            ? `${volume(answer.value.planned_m3 - answer.value.built_m3)} less`
            : `${volume(answer.value.built_m3 - answer.value.planned_m3)} more`}
          .
          {answer.value.margin_m !== undefined && answer.value.plannedMargin_m !== undefined && (
            <>
              {' '}
              Least room over what is asked: planned{' '}
              {formatQuantity(answer.value.plannedMargin_m, 'tape', { reader }).text}, built{' '}
              <b>{formatQuantity(answer.value.margin_m, 'tape', { reader }).text}</b>.
            </>
          )}
        </Box>
      )}
    </Panel>
  );
}
