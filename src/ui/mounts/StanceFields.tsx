'use client';

import { Box } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { assumed, chosen, WEIGHED, withoutEntry, withValue, type Path, type StanceDocument } from '@/core/plan';
import { WATER_ROWS, WATERS } from '@/core/reference/waters';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { EntryFold } from '../parts/EntryFold';
import { EntryHead } from '../parts/EntryHead';
import { FieldGrid, Panel } from '../parts/Panel';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { useSides } from '../state/sides';
import { useEntry } from '../workspace/useEntry';
import { newAxle, newStance } from './newStance';

const WEIGHED_WORDS: Readonly<Record<StanceDocument['weighed'], string>> = {
  without: 'without the tanks',
  dry: 'with the tanks dry',
  full: 'with the tanks filled to their limits',
};

/** What was weighed and measured of the vehicle: axles and coupling, or the hull. */
export function StanceFields({ stance }: { readonly stance: StanceDocument }) {
  const system = useSystem();
  const sides = useSides();
  const hasAxles = (stance.axles ?? []).length > 0;
  return (
    <Panel title="Weighed and measured" testId="stance">
      <FieldGrid min="190px">
        <Select
          label="Weighed"
          value={stance.weighed}
          options={WEIGHED.map((value) => ({ value, label: WEIGHED_WORDS[value] }))}
          onChange={(value) => setValue('what was on it when weighed', ['stance', 'weighed'], value)}
        />
        {system.tanks.length > 1 &&
          system.tanks.map((tank, t) => (
            <Select
              key={tank.id}
              label={`Where it is, ${tank.name}`}
              value={tank.elsewhere ? 'elsewhere' : 'aboard'}
              options={[
                { value: 'aboard', label: 'on the vehicle' },
                { value: 'elsewhere', label: 'elsewhere: not counted' },
              ]}
              onChange={(value) =>
                setValue(`where ${tank.name} is`, ['tanks', t, 'elsewhere'], value === 'elsewhere' ? true : undefined)
              }
            />
          ))}
        <KnownField label={sides('Middle, from starboard')} path={['stance', 'middle_m']} />
        {hasAxles && <Optional label="Most it may weigh" path={['stance', 'rating_kg']} start={chosen(2000)} />}
      </FieldGrid>
      {hasAxles && <Axles stance={stance} />}
      {stance.hull && <HullFields hull={stance.hull} />}
      <Box display="flex" gap="2" flexWrap="wrap" mt="3">
        {!hasAxles && (
          <Button onClick={() => setValue('axles', ['stance'], newStance(system, 'axles'))}>It stands on axles</Button>
        )}
        {!stance.hull && (
          <Button onClick={() => setValue('hull', ['stance'], newStance(system, 'hull'))}>It floats</Button>
        )}
      </Box>
    </Panel>
  );
}

/** A value that may be left out: a press brings it, another takes it away. */
function Optional({
  label,
  path,
  start,
}: {
  readonly label: string;
  readonly path: Path;
  readonly start: ReturnType<typeof chosen>;
}) {
  const system = useSystem();
  const has = path.reduce<unknown>((at, key) => (at as Record<string | number, unknown> | undefined)?.[key], system);
  return has === undefined ? (
    <Box alignSelf="end">
      <Button label={label} onClick={() => setValue(label, path, start)}>
        <Plus size={18} aria-hidden />
        {label.split(', ')[0]}
      </Button>
    </Box>
  ) : (
    <KnownField label={label} path={path} />
  );
}

function Axles({ stance }: { readonly stance: StanceDocument }) {
  const system = useSystem();
  const sides = useSides();
  const axles = stance.axles ?? [];
  const [entry, choose] = useEntry(axles, ['stance', 'axles']);
  return (
    <Box mt="3">
      {axles.map((axle, a) => {
        const at = (...keys: readonly string[]): Path => ['stance', 'axles', a, ...keys];
        const of = (text: string): string => `${text}, ${axle.name}`;
        return (
          <EntryFold
            key={axle.id}
            path={['stance', 'axles', a]}
            name={axle.name}
            note={axle.sharesWithLast ? 'shares with the one before' : ''}
            isOpen={entry === a}
            onToggle={(isOpen) => isOpen && choose(a)}
          >
            <EntryHead name={axle.name} list={['stance', 'axles']} index={a} />
            <FieldGrid min="150px">
              <KnownField label={of(sides('From aft'))} path={at('x_m')} />
              <KnownField label={of('Weighed on it')} path={at('load_kg')} />
              <Optional
                label={of(sides('Of that on its port side'))}
                path={at('portLoad_kg')}
                start={assumed(axle.load_kg.value / 2, Math.abs(axle.load_kg.value) * 0.05 + 1)}
              />
              <Optional label={of('Most it may bear')} path={at('rating_kg')} start={chosen(1000)} />
              <KnownField label={of('Track')} path={at('track_m')} />
              <Optional label={of('Spring rate at each wheel')} path={at('rate_NPerM')} start={assumed(4e4, 1e4)} />
              {a > 0 && (
                <Select
                  label={of('Shares its load')}
                  value={axle.sharesWithLast ? 'beam' : 'own'}
                  options={[
                    { value: 'own', label: 'on springs of its own' },
                    { value: 'beam', label: 'by a beam with the one before' },
                  ]}
                  onChange={(value) =>
                    setValue(of('how it shares'), at('sharesWithLast'), value === 'beam' ? true : undefined)
                  }
                />
              )}
            </FieldGrid>
          </EntryFold>
        );
      })}
      {stance.hitch && (
        <Box borderTopWidth="1px" borderColor="rule" py="2">
          <Box display="flex" justifyContent="space-between" alignItems="center" mb="2">
            <b>Coupling</b>
            <SquareButton
              label="Remove the coupling"
              onClick={() => setValue('remove the coupling', ['stance', 'hitch'], undefined)}
            >
              <Trash2 size={18} aria-hidden />
            </SquareButton>
          </Box>
          <FieldGrid min="150px">
            <KnownField label={sides('Coupling, from aft')} path={['stance', 'hitch', 'x_m']} />
            <KnownField label="Weighed on the coupling" path={['stance', 'hitch', 'load_kg']} />
            <Optional label="Most the coupling may bear" path={['stance', 'hitch', 'rating_kg']} start={chosen(75)} />
          </FieldGrid>
        </Box>
      )}
      {stance.height && (
        <FieldGrid min="150px">
          <KnownField label="Height of the ground" path={['stance', 'height', 'ground_m']} />
          <KnownField label="Height of its weight’s middle" path={['stance', 'height', 'centre_m']} />
        </FieldGrid>
      )}
      <Box display="flex" gap="2" flexWrap="wrap" mt="2">
        {axles.length < 8 && (
          <Button
            onClick={() =>
              applyEdit('add an axle', (current) =>
                withValue(
                  current,
                  ['stance', 'axles'],
                  [...axles, newAxle(current, `Axle ${axles.length + 1}`, (axles.at(-1)?.x_m.value ?? 0) - 0.8, 200)],
                ),
              )
            }
          >
            <Plus size={18} aria-hidden />
            Axle
          </Button>
        )}
        {!stance.hitch && (
          <Button
            onClick={() =>
              setValue('a coupling', ['stance', 'hitch'], {
                x_m: assumed(Math.max(...axles.map(({ x_m }) => x_m.value)) + 2, 0.5),
                load_kg: assumed(50, 20),
              })
            }
          >
            <Plus size={18} aria-hidden />
            Coupling
          </Button>
        )}
        {!stance.height && (
          <Button
            onClick={() =>
              setValue('how high its weight lies', ['stance', 'height'], {
                ground_m: assumed((system.tanks[0]?.mounting.z_m.value ?? 0) - 0.5, 0.2),
                centre_m: assumed((system.tanks[0]?.mounting.z_m.value ?? 0) + 0.1, 0.2),
              })
            }
          >
            <Plus size={18} aria-hidden />
            How high its weight lies
          </Button>
        )}
      </Box>
    </Box>
  );
}

type Hull = NonNullable<StanceDocument['hull']>;
const STEADY_WORDS: Readonly<Record<Hull['steady']['kind'], string>> = {
  given: 'given',
  moved: 'by a weight moved across',
  rolled: 'by how long she rolls',
};
const NEW_STEADY: { readonly [K in Hull['steady']['kind']]: Extract<Hull['steady'], { kind: K }> } = {
  given: { kind: 'given', gm_m: assumed(0.7, 0.3) },
  moved: { kind: 'moved', moved_kg: assumed(80, 10), moved_m: assumed(1, 0.1), heeled_deg: assumed(3, 1) },
  rolled: { kind: 'rolled', period_s: assumed(2.5, 0.5) },
};

function HullFields({ hull }: { readonly hull: Hull }) {
  const sides = useSides();
  const at = (...keys: readonly (string | number)[]): Path => ['stance', 'hull', ...keys];
  return (
    <Box mt="3" borderTopWidth="1px" borderColor="rule" pt="2">
      <Box fontWeight="700" mb="1">
        Hull
      </Box>
      <FieldGrid min="150px">
        <KnownField label="Displacement when weighed" path={at('displacement_kg')} />
        <KnownField label="Height of the waterline" path={at('waterline_m')} />
        <Select
          label="Floats in"
          value={hull.water}
          options={WATERS.map((value) => ({ value, label: WATER_ROWS[value].name }))}
          onChange={(value) => setValue('what it floats in', at('water'), value)}
        />
        <Select
          label="Metacentric height"
          value={hull.steady.kind}
          options={(['given', 'moved', 'rolled'] as const).map((value) => ({ value, label: STEADY_WORDS[value] }))}
          onChange={(value) => setValue('how steady she is', at('steady'), NEW_STEADY[value])}
        />
        {hull.steady.kind === 'given' && <KnownField label="Metacentric height, GM" path={at('steady', 'gm_m')} />}
        {hull.steady.kind === 'moved' && (
          <>
            <KnownField label="Weight moved across" path={at('steady', 'moved_kg')} />
            <KnownField label="Moved across by" path={at('steady', 'moved_m')} />
            <KnownField label="She heeled by" path={at('steady', 'heeled_deg')} />
          </>
        )}
        {hull.steady.kind === 'rolled' && (
          <KnownField label="Rolls to one side and back in" path={at('steady', 'period_s')} />
        )}
      </FieldGrid>
      <Box fontWeight="600" mt="3" mb="1">
        Breadth along the waterline
      </Box>
      {hull.stations.map((_, s) => (
        <Box key={s} display="flex" gap="2" alignItems="end">
          <Box flex="1">
            <FieldGrid min="120px">
              <KnownField label={sides(`Station ${s + 1}, from aft`)} path={at('stations', s, 'x_m')} />
              <KnownField label={`Breadth, station ${s + 1}`} path={at('stations', s, 'beam_m')} />
            </FieldGrid>
          </Box>
          {hull.stations.length > 2 && (
            <SquareButton
              label={`Remove station ${s + 1}`}
              onClick={() =>
                applyEdit(`remove station ${s + 1}`, (current) => withoutEntry(current, at('stations'), s))
              }
            >
              <Trash2 size={18} aria-hidden />
            </SquareButton>
          )}
        </Box>
      ))}
      {hull.stations.length < 21 && (
        <Box mt="2">
          <Button
            onClick={() =>
              applyEdit('add a station', (current) =>
                withValue(current, at('stations'), [
                  ...hull.stations,
                  { x_m: assumed((hull.stations.at(-1)?.x_m.value ?? 0) + 0.5, 0.2), beam_m: assumed(1, 0.3) },
                ]),
              )
            }
          >
            <Plus size={18} aria-hidden />
            Station
          </Button>
        </Box>
      )}
    </Box>
  );
}
