'use client';

import { Box } from '@chakra-ui/react';
import { limitsAt, ORIGINS, type Path, type ShapeDocument } from '@/core/plan';
import { shapeSpan } from '@/core/model';
import { asKind, SHAPE_KINDS, SHAPES, shapeKind, type ShapeSize } from '@/core/shapes';
import { END_SHAPES, type EndShape, type ExtrudeAxis } from '@/core/geometry';
import { entryText, roleUnit, ROLES, unitById } from '@/core/units';
import { KnownField, ORIGIN_WORDS } from '../fields/KnownField';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { FieldGrid } from '../parts/Panel';
import { openDocument, setValue } from '../state/editor';
import { useReader } from '../state/reader';
import { ProfileEditor } from './ProfileEditor';

export const AXIS_WORDS: Readonly<Record<ExtrudeAxis, string>> = { x: 'fore and aft', y: 'side to side', z: 'upright' };
const END_WORDS: Readonly<Record<EndShape, string>> = {
  flat: 'flat',
  hemispherical: 'half ball',
  elliptical: '2:1 elliptical',
  torispherical: 'dished (torispherical)',
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

/** Kind and sizes of one body. */
export function ShapeFields({ shape, path, side, owner, hasProfiles = true, children }: Props) {
  const at = (key: string): Path => [...path, key];
  const of = (text: string): string => (owner ? `${text}, ${owner}` : text);
  const kinds = SHAPE_KINDS.filter((kind) => shapeKind({ kind }).start || shape.kind === kind);
  return (
    <Box data-path={path.join('.')}>
      <FieldGrid>
        <Select
          label={of('Shape')}
          value={shape.kind}
          options={kinds.map((value) => ({ value, label: SHAPES[value].word }))}
          onChange={(kind) => setValue('shape', path, asKind(shape, kind, shapeSpan(shape)))}
        />
        {'axis' in shape && (
          <Select
            label={of('Runs')}
            value={shape.axis}
            options={(['x', 'y', 'z'] as const).map((value) => ({ value, label: AXIS_WORDS[value] }))}
            onChange={(axis) => setValue('which way it runs', at('axis'), axis)}
          />
        )}
        <Sizes shape={shape} at={at} side={side} of={of} />
        {'profileOrigin' in shape && path[0] === 'tanks' && <CornersKnown shape={shape} at={at} of={of} />}
        {children}
      </FieldGrid>
      {shape.kind === 'mesh' && (
        <Box color="soft" mt="2">
          {shape.file}: its size is that of the file. To change it, take the file in again.
        </Box>
      )}
      {hasProfiles && <Profiles shape={shape} path={path} owner={owner} />}
    </Box>
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

function Sizes({ shape, at, side, of }: SizesProps) {
  const { sizes, ends = [] } = shapeKind(shape);
  const isUpright = 'axis' in shape && shape.axis === 'z';
  const called = ({ word, upright, isSided }: ShapeSize): string => {
    if (isUpright && upright) return of(upright);
    return of(isSided && side ? `${side} ${word}` : word[0]!.toUpperCase() + word.slice(1));
  };
  return (
    <>
      {sizes.map((size) => (
        <KnownField key={size.key} label={called(size)} path={at(size.key)} />
      ))}
      {ends.map((end) => (
        <EndSelect
          key={end.key}
          label={called(end)}
          path={at(end.key)}
          value={shape[end.key as keyof ShapeDocument] as unknown as EndShape}
        />
      ))}
    </>
  );
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
        label={of('Corners are')}
        value={shape.profileOrigin}
        options={ORIGINS.map((value) => ({ value, label: ORIGIN_WORDS[value] }))}
        onChange={(origin) => setValue('corners of the profile', at('profileOrigin'), origin)}
      />
      <Box data-path={path.join('.')}>
        <TextEntry
          label={of('Each corner, within ±')}
          value={shape.profileSpread_m === undefined ? '' : entryText(shape.profileSpread_m, 'tape', reader)}
          unit={unitById(ROLES.tape.kind, roleUnit('tape', reader)).symbol}
          onEnter={enter}
          {...(shape.profileSpread_m === undefined ? { hint: 'not said: the numbers count it as exact' } : {})}
        />
      </Box>
    </>
  );
}
