'use client';

import { Box } from '@chakra-ui/react';
import { endWord, limitsAt, ORIGINS, type Path, type ShapeDocument } from '@/core/plan';
import { shapeSpan } from '@/core/model';
import { asNamed, nameOfShape, NAMED_SHAPES, shapeKind, type ShapeSize } from '@/core/shapes';
import { END_SHAPES, type EndShape, type ExtrudeAxis } from '@/core/geometry';
import { entryText, roleUnit, ROLES, unitById } from '@/core/units';
import { KnownField, ORIGIN_WORDS } from '../fields/KnownField';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { FieldGrid } from '../parts/Panel';
import { openDocument, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { ProfileEditor } from './ProfileEditor';

export const AXIS_WORDS: Readonly<Record<ExtrudeAxis, string>> = { x: 'fore and aft', y: 'side to side', z: 'upright' };
const END_WORDS: Readonly<Record<EndShape, string>> = {
  flat: 'flat',
  hemispherical: 'half ball',
  elliptical: '2:1 elliptical',
  torispherical: 'dished, knuckle of 6 %',
  'dished-10': 'dished, knuckle of 10 %',
  'dished-deep': 'dished deep, crown of 0.8 D',
};

type Props = {
  readonly shape: ShapeDocument;
  readonly path: Path;
  /** Said before the names of sizes, such as "Inside". */
  readonly side: string;
  /** Said after them, to tell bodies apart. */
  readonly owner?: string | undefined;
  /** Whether its profiles stand under them. */ readonly hasProfiles?: boolean;
  /** Fields that stand in the same grid. */
  readonly children?: React.ReactNode;
};

/** Name, sizes and sides of one body. */
export function ShapeFields({ shape, path, side, owner, hasProfiles = true, children }: Props) {
  const sides = useSides();
  const at = (key: string): Path => [...path, key];
  const of = (text: string): string => (owner ? `${text}, ${owner}` : text);
  const { axes } = shapeKind(shape);
  return (
    <Box data-path={path.join('.')}>
      <FieldGrid>
        <NameSelect shape={shape} path={path} label={of('Shape')} />
        {'axis' in shape && (
          <Select
            label={of(axes?.word ?? 'Runs')}
            value={shape.axis}
            options={Object.entries(axes?.options ?? AXIS_WORDS).map(([value, label]) => ({
              value: value as ExtrudeAxis,
              label: sides(label),
            }))}
            onChange={(axis) => setValue('which way it runs', at('axis'), axis)}
          />
        )}
        <Sizes shape={shape} at={at} side={side} of={of} />
        <Choices shape={shape} at={at} of={of} />
        {'profileOrigin' in shape && path[0] === 'tanks' && <CornersKnown shape={shape} at={at} of={of} />}
        {children}
      </FieldGrid>
      {shape.kind === 'mesh' && (
        <Box color="soft" mt="2">
          {shape.file}: its size is that of the file. To change it, import the file again.
        </Box>
      )}
      {hasProfiles && <Profiles shape={shape} path={path} owner={owner} />}
    </Box>
  );
}

/** What builders call it. */
function NameSelect({ shape, path, label }: Pick<Props, 'shape' | 'path'> & { readonly label: string }) {
  const now = nameOfShape(shape);
  const names = NAMED_SHAPES.some(({ id }) => id === now.id) ? NAMED_SHAPES : [...NAMED_SHAPES, now];
  return (
    <Select
      label={label}
      value={now.id}
      options={names.map(({ id, word }) => ({ value: id, label: word }))}
      onChange={(id) =>
        setValue(
          'shape',
          path,
          asNamed(
            shape,
            names.find((name) => name.id === id)!,
            shapeSpan(shape),
          ),
        )
      }
    />
  );
}

/** The profiles of a body, each drawn and by its points; nothing where it has none. */
export function Profiles({ shape, path, owner }: Pick<Props, 'shape' | 'path' | 'owner'>) {
  const { profiles = [] } = shapeKind(shape);
  if (!('axis' in shape) || profiles.length === 0) return null;
  return (
    <Box display="grid" columnGap="6" rowGap="4" gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 330px), 1fr))">
      {profiles.map(({ key, title }) => (
        <ProfileEditor
          key={key}
          title={owner ? `${title}, ${owner}` : title}
          path={[...path, key]}
          points={shape[key] as unknown as Parameters<typeof ProfileEditor>[0]['points']}
          axis={shape.axis}
          known={
            path[0] === 'tanks' && 'profileOrigin' in shape
              ? { origin: shape.profileOrigin, spread_m: shape.profileSpread_m }
              : undefined
          }
        />
      ))}
    </Box>
  );
}

type SizesProps = {
  readonly shape: ShapeDocument;
  readonly at: (key: string) => Path;
  readonly side: string;
  readonly of: (text: string) => string;
};

/** A size as it is called in this body: with the names that the ends of its axis have in this vehicle. */
export function useSizeWord(shape: ShapeDocument, side: string): (size: ShapeSize<ShapeDocument>) => string {
  const vehicle = useValue((system) => system.vehicle.kind);
  return ({ word, byAxis, along, isSided }) => {
    const axis = 'axis' in shape ? shape.axis : 'x';
    const ends = along?.(shape) ?? axis;
    const called = ((byAxis as Partial<Record<ExtrudeAxis, string>> | undefined)?.[axis] ?? word)
      .replace('{lower}', endWord(vehicle, ends, 'lower'))
      .replace('{higher}', endWord(vehicle, ends, 'higher'));
    return isSided && side ? `${side} ${called}` : called[0]!.toUpperCase() + called.slice(1);
  };
}

function Sizes({ shape, at, side, of }: SizesProps) {
  const called = useSizeWord(shape, side);
  const { sizes, ends = [] } = shapeKind(shape);
  return (
    <>
      {sizes.map((size) => (
        <KnownField key={size.key} label={of(called(size))} path={at(size.key)} />
      ))}
      {ends.map((end) => (
        <EndSelect
          key={end.key}
          label={of(called(end))}
          path={at(end.key)}
          value={shape[end.key as keyof ShapeDocument] as unknown as EndShape}
        />
      ))}
    </>
  );
}

/** Which sides are which: thin end, keel, cut-out. */
function Choices({ shape, at, of }: Omit<SizesProps, 'side'>) {
  const vehicle = useValue((system) => system.vehicle.kind);
  return (shapeKind(shape).choices ?? []).map(({ key, word, along, hasMiddle }) => (
    <Select
      key={key}
      label={of(word)}
      value={shape[key as keyof ShapeDocument] as unknown as string}
      options={(hasMiddle ? ['lower', 'middle', 'higher'] : ['lower', 'higher']).map((value) => ({
        value,
        label: value === 'middle' ? 'middle' : endWord(vehicle, along(shape), value as 'lower' | 'higher'),
      }))}
      onChange={(value) => setValue(word.toLowerCase(), at(key), value)}
    />
  ));
}

const EndSelect = ({
  label,
  path,
  value,
}: {
  readonly label: string;
  readonly path: Path;
  readonly value: EndShape;
}) => (
  <Select
    label={label}
    value={value}
    options={END_SHAPES.map((end) => ({ value: end, label: END_WORDS[end] }))}
    onChange={(end) => setValue(label, path, end)}
  />
);

type CornersProps = {
  readonly shape: Extract<ShapeDocument, { profileOrigin: unknown }>;
  readonly at: (key: string) => Path;
  readonly of: (text: string) => string;
};

/**
 * How the corners of a tank's profiles are known, and how closely: all alike. Clearances do not count it, so that
 * compartments and things have no such field.
 */
function CornersKnown({ shape, at, of }: CornersProps) {
  const reader = useReader();
  const path = at('profileSpread_m');
  const enter = (text: string): EntryVerdict => {
    const read = readEntry(text, 'tape', reader, limitsAt(openDocument(), path));
    if (!read.ok) return read;
    setValue('how closely corners are known', path, read.value);
    return { ok: true, ...(read.note ? { note: read.note } : {}) };
  };
  return (
    <>
      <Select
        label={of('All corners are')}
        value={shape.profileOrigin}
        options={ORIGINS.map((value) => ({ value, label: ORIGIN_WORDS[value] }))}
        onChange={(origin) => setValue('corners of the profile', at('profileOrigin'), origin)}
      />
      <Box data-path={path.join('.')}>
        <TextEntry
          label={of('All corners, within ±')}
          value={shape.profileSpread_m === undefined ? '' : entryText(shape.profileSpread_m, 'tape', reader)}
          unit={unitById(ROLES.tape.kind, roleUnit('tape', reader)).symbol}
          onEnter={enter}
          {...(shape.profileSpread_m === undefined ? { hint: 'not said: the numbers count it as exact' } : {})}
        />
      </Box>
    </>
  );
}
