'use client';

import { Box } from '@chakra-ui/react';
import { chosen, MOUNT_SIDES, POCKET_RUNS, STRAP_RUNS, type MountDocument, type Path } from '@/core/plan';
import { tightening_Nm } from '@/core/mounts';
import { BOLT_CLASSES, BOLT_HELD, BOLT_SIZES, BOLTS } from '@/core/reference/bolts';
import { MOUNT_STOCK, MOUNT_STOCKS, PAD_ROWS, PADS } from '@/core/reference/mountStock';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { EntryHead } from '../parts/EntryHead';
import { FieldGrid } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { setValue } from '../state/editor';
import { useSides } from '../state/sides';
import { FromEdges } from './FromEdges';
import { NEW_MADE, NEW_POCKETS, NEW_RUBBER, type Span } from './mountEdits';
import { classWord, HELD_WORDS, RUN_WORDS, SIDE_WORDS } from './mountWords';

/** The fields of one mount: where it is, how it is made, its bolts, and what it bears on. */
export function MountFields({
  mount,
  m,
  span,
}: {
  readonly mount: MountDocument;
  readonly m: number;
  /** Of its tank, once it is drawn. */ readonly span: Span | undefined;
}) {
  const at = (...keys: readonly (string | number)[]): Path => ['mounts', m, ...keys];
  const of = (text: string): string => `${text}, ${mount.name}`;
  const sides = useSides();
  return (
    <>
      <EntryHead name={mount.name} list={['mounts']} index={m} />
      <FieldGrid min="150px">
        <KnownField label={of(sides('From aft'))} path={at('x_m')} />
        <KnownField label={of(sides('From starboard'))} path={at('y_m')} />
        <KnownField label={of('Height')} path={at('z_m')} />
      </FieldGrid>
      {span && <FromEdges mount={mount} m={m} span={span} />}
      {mount.made ? (
        <Made mount={mount} m={m} />
      ) : (
        <Box mt="2">
          <Button onClick={() => setValue(`how ${mount.name} is made`, at('made'), NEW_MADE[mount.kind])}>
            Say how it is made
          </Button>
        </Box>
      )}
    </>
  );
}

function Made({ mount, m }: { readonly mount: MountDocument; readonly m: number }) {
  const sides = useSides();
  const at = (...keys: readonly (string | number)[]): Path => ['mounts', m, 'made', ...keys];
  const of = (text: string): string => `${text}, ${mount.name}`;
  const { made } = mount;
  if (!made) return null;
  const sideOptions = MOUNT_SIDES.map((value) => ({ value, label: sides(SIDE_WORDS[value]) }));
  return (
    <>
      <Box mt="3">
        <FieldGrid min="150px">
          {'runs' in made && (
            <Select
              label={of('Runs')}
              value={made.runs}
              options={STRAP_RUNS.map((value) => ({ value, label: RUN_WORDS[value] }))}
              onChange={(value) => setValue(of('which way it runs'), at('runs'), value)}
            />
          )}
          {'wall' in made && (
            <Select
              label={of('On which wall')}
              value={made.wall}
              options={sideOptions}
              onChange={(value) => setValue(of('the wall it is on'), at('wall'), value)}
            />
          )}
          <Select
            label={of(SIDE_LABELS[mount.kind])}
            value={made.side}
            options={sideOptions}
            onChange={(value) => setValue(of('its side'), at('side'), value)}
          />
          <Select
            label={of('Of')}
            value={made.stock}
            options={MOUNT_STOCK.map((value) => ({ value, label: MOUNT_STOCKS[value].name }))}
            onChange={(value) => setValue(of('what it is made of'), at('stock'), value)}
          />
          {sizesOf(made).map((key) => (
            <KnownField key={key} label={of(sizeLabel(key, mount.kind))} path={at(key)} />
          ))}
        </FieldGrid>
      </Box>
      {mount.kind === 'tab' && <Weld mount={mount} m={m} />}
      {'bolts' in made && made.bolts ? (
        <Bolts mount={mount} bolts={made.bolts} at={(...keys) => at('bolts', ...keys)} />
      ) : (
        <Box mt="2">
          <Button onClick={() => setValue(of('bolts'), at('bolts'), NEW_MADE.cradle.bolts)}>Bolt it down</Button>
        </Box>
      )}
      <Box mt="3">
        <FieldGrid min="150px">
          {'bears' in made && (
            <>
              <Select
                label={of('Bears on')}
                value={made.bears.stock}
                options={MOUNT_STOCK.filter((value) => value !== 'polyester-web').map((value) => ({
                  value,
                  label: MOUNT_STOCKS[value].name,
                }))}
                onChange={(value) => setValue(of('what it bears on'), at('bears', 'stock'), value)}
              />
              <KnownField label={of('Its thickness')} path={at('bears', 'thickness_m')} />
            </>
          )}
          {'pad' in made && (
            <Select
              label={of('Between it and the tank')}
              value={made.pad.of}
              options={PADS.map((value) => ({ value, label: PAD_ROWS[value].name }))}
              onChange={(value) => setValue(of('the pad'), at('pad', 'of'), value)}
            />
          )}
          {'pad' in made && made.pad.of !== 'none' && (
            <KnownField label={of('Pad thickness')} path={at('pad', 'thickness_m')} />
          )}
        </FieldGrid>
      </Box>
      {'pad' in made && !('runs' in made) && (
        <Rubber mount={mount} pad={made.pad} at={(...keys) => at('pad', ...keys)} />
      )}
      {'lip_m' in made && <Pockets mount={mount} pockets={made.pockets} at={(...keys) => at('pockets', ...keys)} />}
    </>
  );
}

type At = (...keys: readonly string[]) => Path;

/** Rubber mounts that are bought, by what their maker says of them. */
function Rubber({
  mount,
  pad,
  at,
}: {
  readonly mount: MountDocument;
  readonly pad: MadeOf<'tab'>['pad'];
  readonly at: At;
}) {
  const of = (text: string): string => `${text}, ${mount.name}`;
  return (
    <Box mt="3">
      {pad.own ? (
        <FieldGrid min="150px">
          <KnownField label={of('Rubber mounts together, pressed')} path={at('own', 'pressed_NPerM')} />
          <KnownField label={of('Sideways')} path={at('own', 'sheared_NPerM')} />
          <KnownField label={of('They carry at most')} path={at('own', 'most_N')} />
          <Box alignSelf="end">
            <Button onClick={() => setValue(of('rubber mounts'), at('own'), undefined)}>No rubber mounts</Button>
          </Box>
        </FieldGrid>
      ) : (
        <Button onClick={() => setValue(of('rubber mounts'), at('own'), NEW_RUBBER)}>On rubber mounts</Button>
      )}
    </Box>
  );
}

/** Where a fork goes in under a skid. */
function Pockets({
  mount,
  pockets,
  at,
}: {
  readonly mount: MountDocument;
  readonly pockets: MadeOf<'cradle'>['pockets'];
  readonly at: At;
}) {
  const of = (text: string): string => `${text}, ${mount.name}`;
  return (
    <Box mt="3">
      {pockets ? (
        <FieldGrid min="150px">
          <Select
            label={of('Forks go in')}
            value={pockets.runs}
            options={POCKET_RUNS.map((value) => ({ value, label: POCKET_WORDS[value] }))}
            onChange={(value) => setValue(of('which way forks go in'), at('runs'), value)}
          />
          <KnownField label={of('Pockets, middle to middle')} path={at('apart_m')} />
          <KnownField label={of('Width of a pocket')} path={at('width_m')} />
          <KnownField label={of('Height of a pocket')} path={at('height_m')} />
          <Box alignSelf="end">
            <Button onClick={() => setValue(of('fork pockets'), at(), undefined)}>No fork pockets</Button>
          </Box>
        </FieldGrid>
      ) : (
        <Button onClick={() => setValue(of('fork pockets'), at(), NEW_POCKETS)}>Fork pockets under it</Button>
      )}
    </Box>
  );
}
const POCKET_WORDS = { along: 'from an end', across: 'from a side' } as const;

const SIDE_LABELS: Readonly<Record<MountDocument['kind'], string>> = {
  strap: 'Ends are held',
  tab: 'Bolted to what is',
  cradle: 'It lies',
  stop: 'It stands on the',
  flange: 'Bolted to what is',
  guard: 'It covers the',
};
const SIZES = {
  length_m: 'Length',
  width_m: 'Width',
  circle_m: 'Circle of its bolts',
  thickness_m: 'Thickness',
  tension_N: 'Pulled tight to',
  splay_m: 'Ends off the tank by',
  arm_m: 'Wall to bolt',
  leg_m: 'Leg on the wall',
  lip_m: 'Lip beside the tank',
  off_m: 'Air behind it',
} as const;
const sizesOf = (made: object) => (Object.keys(SIZES) as (keyof typeof SIZES)[]).filter((key) => key in made);
const sizeLabel = (key: keyof typeof SIZES, kind: MountDocument['kind']): string =>
  key === 'arm_m' && kind === 'stop' ? 'Foot to where it meets the tank' : SIZES[key];

function Weld({ mount, m }: { readonly mount: Extract<MountDocument, { kind: 'tab' }>; readonly m: number }) {
  const at = (...keys: readonly string[]): Path => ['mounts', m, 'made', 'weld', ...keys];
  const of = (text: string): string => `${text}, ${mount.name}`;
  const weld = mount.made?.weld;
  return (
    <Box mt="3">
      {weld ? (
        <FieldGrid min="150px">
          <KnownField label={of('Throat of the weld')} path={at('throat_m')} />
          <KnownField label={of('Length of the weld')} path={at('length_m')} />
          <Box alignSelf="end">
            <Button onClick={() => setValue(of('weld'), at(), undefined)}>Not welded</Button>
          </Box>
        </FieldGrid>
      ) : (
        <Button onClick={() => setValue(of('weld'), at(), NEW_MADE.tab.weld)}>Weld it to the tank</Button>
      )}
    </Box>
  );
}

type MadeOf<K extends MountDocument['kind']> = NonNullable<Extract<MountDocument, { kind: K }>['made']>;
type BoltsDocument = NonNullable<MadeOf<'cradle'>['bolts']>;
const MOST_BOLTS = 12;

function Bolts({
  mount,
  bolts,
  at,
}: {
  readonly mount: MountDocument;
  readonly bolts: BoltsDocument;
  readonly at: (...keys: readonly string[]) => Path;
}) {
  const of = (text: string): string => `${text}, ${mount.name}`;
  const setCount = (text: string) => {
    const count = Number(text);
    if (!Number.isInteger(count) || count < 1 || count > MOST_BOLTS)
      return { ok: false as const, message: `Enter a whole number from 1 to ${MOST_BOLTS}.` };
    setValue(of('how many bolts'), at('count'), count);
    return { ok: true as const };
  };
  return (
    <Box mt="3">
      <FieldGrid min="150px">
        <TextEntry
          label={of(mount.kind === 'strap' ? 'Bolts, each end' : 'Bolts')}
          value={String(bolts.count)}
          onEnter={setCount}
        />
        <Select
          label={of('Bolt size')}
          value={bolts.size}
          options={BOLT_SIZES.map((value) => ({ value, label: value }))}
          onChange={(value) =>
            setValue(of('bolt size'), at(), {
              ...bolts,
              size: value,
              edge_m: chosen(Math.max(bolts.edge_m.value, Math.ceil(1.5e3 * BOLTS[value].hole_m) / 1e3)),
            })
          }
        />
        <Select
          label={of('Bolt class')}
          value={bolts.class}
          options={BOLT_CLASSES.map((value) => ({ value, label: classWord(value) }))}
          onChange={(value) => setValue(of('bolt class'), at('class'), value)}
        />
        <Select
          label={of('Its thread is in')}
          value={bolts.held}
          options={BOLT_HELD.map((value) => ({ value, label: HELD_WORDS[value] }))}
          onChange={(value) => setValue(of('what its thread is in'), at('held'), value)}
        />
        <KnownField label={of('Bolt to the nearest edge')} path={at('edge_m')} />
      </FieldGrid>
      <Box color="soft" fontSize="sm" mt="1">
        Tighten each dry to <Quantity value={tightening_Nm(bolts.size, bolts.class)} role="torque" />, three quarters of
        what it comes back from{bolts.held === 'nut' ? '' : '; less where its thread would pull out'}.
      </Box>
    </Box>
  );
}
