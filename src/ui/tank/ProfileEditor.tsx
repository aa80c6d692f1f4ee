'use client';

import { Box } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { limitsAt, valueAt, withValue, type Known, type Origin, type Path, type SystemDocument } from '@/core/plan';
import { cornerId, profileDrawing } from '@/core/reports';
import type { ProfilePoint } from '@/core/shapes';
import type { ExtrudeAxis } from '@/core/geometry';
import { entryText, roleUnit, ROLES, unitById } from '@/core/units';
import { HowKnown, OriginPicker, SpreadField } from '../fields/KnownField';
import { measuredSpread, readEntry } from '../fields/readEntry';
import { TextEntry } from '../fields/TextEntry';
import { tapeMove } from '../drawing/arrows';
import { DrawingView, type GripProps } from '../drawing/DrawingView';
import { dragging } from '../drawing/grips';
import { onTape, stepsNow } from '../drawing/tapeSteps';
import { useRoom } from '../drawing/useRoom';
import { Button } from '../parts/Button';
import { SquareButton } from '../parts/SquareButton';
import { applyEdit, openDocument, setValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';

type Props = {
  readonly title: string;
  readonly path: Path;
  readonly points: readonly ProfilePoint[];
  readonly axis: ExtrudeAxis;
  /** How corners are known that do not say it themselves; nothing where no number counts it. */
  readonly known?: { readonly origin: Origin; readonly spread_m?: number | undefined } | undefined;
};

/** What the two axes of a profile are, across the way it runs. */
const AXES: Readonly<Record<ExtrudeAxis, readonly [string, string]>> = {
  x: ['to port', 'up'],
  y: ['forward', 'up'],
  z: ['forward', 'to port'],
};

const snapped = (value: number): number => onTape(value, stepsNow());

/** A profile as a scaled drawing with a handle at each corner, and as a table of points. */
export function ProfileEditor({ title, path, points, axis, known }: Props) {
  const sides = useSides();
  const setPoints = (edit: string, next: readonly ProfilePoint[]): void => setValue(edit, path, next);
  const insertAfter = (i: number): void => {
    const [a, b] = [points[i]!, points[(i + 1) % points.length]!];
    const middle = { u_m: snapped((a.u_m + b.u_m) / 2), v_m: snapped((a.v_m + b.v_m) / 2) };
    setPoints('add a point', [...points.slice(0, i + 1), middle, ...points.slice(i + 1)]);
  };
  return (
    <Box mt="3">
      <Box fontWeight="650" mb="1">
        {title}: across the page is {sides(AXES[axis][0])}, up the page is {sides(AXES[axis][1])}
      </Box>
      <ProfileDrawing title={title} path={path} points={points} />
      <Box display="grid" gap="1" maxW="520px" mt="2">
        <Box display="flex" gap="2" fontSize="sm" color="soft" aria-hidden>
          <Box minW="26px" />
          <Box flex="1">{sides(AXES[axis][0])}</Box>
          <Box flex="1">{sides(AXES[axis][1])}</Box>
          <Box minW={{ base: '0', sm: known ? '216px' : '96px' }} />
        </Box>
        {points.map((point, i) => (
          <Box
            key={i}
            display="flex"
            flexWrap={{ base: 'wrap', sm: 'nowrap' }}
            gap="2"
            alignItems="start"
            data-path={[...path, i].join('.')}
          >
            <Box minW="26px" pt="10px" color="soft">
              {i + 1}
            </Box>
            <Coordinate
              title={title}
              path={path}
              i={i}
              axis="u_m"
              value={point.u_m}
              word={sides(AXES[axis][0])}
              known={known}
            />
            <Coordinate
              title={title}
              path={path}
              i={i}
              axis="v_m"
              value={point.v_m}
              word={sides(AXES[axis][1])}
              known={known}
            />
            {known && (
              <CornerKnown label={`${title}, point ${i + 1}`} path={[...path, i]} point={point} known={known} />
            )}
            <SquareButton label={`Add a point after ${i + 1}, ${title.toLowerCase()}`} onClick={() => insertAfter(i)}>
              <Plus size={18} aria-hidden />
            </SquareButton>
            <SquareButton
              label={`Remove point ${i + 1}, ${title.toLowerCase()}`}
              onClick={() =>
                setPoints(
                  'remove a point',
                  points.filter((_, at) => at !== i),
                )
              }
            >
              <Trash2 size={18} aria-hidden />
            </SquareButton>
          </Box>
        ))}
      </Box>
      {points.length === 0 && (
        <Box mt="2">
          <Button
            onClick={() =>
              setPoints('begin a profile', [
                { u_m: 0, v_m: 0 },
                { u_m: 0.3, v_m: 0 },
                { u_m: 0.3, v_m: 0.3 },
              ])
            }
          >
            Begin with a triangle
          </Button>
        </Box>
      )}
    </Box>
  );
}

type CoordinateProps = {
  readonly title: string;
  readonly path: Path;
  readonly i: number;
  readonly axis: 'u_m' | 'v_m';
  readonly value: number;
  readonly word: string;
  readonly known: Props['known'];
};

function Coordinate({ title, path, i, axis, value, word, known }: CoordinateProps) {
  const reader = useReader();
  const at = [...path, i, axis];
  const enter = (text: string) => {
    const read = readEntry(text, 'tape', reader, limitsAt(openDocument(), at));
    if (!read.ok) return read;
    applyEdit(`${title}, point ${i + 1}`, (system) => {
      const point = valueAt(system, [...path, i]) as ProfilePoint;
      // Typing over an assumption makes it a measurement, as everywhere.
      const isGuess = known && (point.origin ?? known.origin) === 'assumed';
      const measured = { origin: 'measured', spread_m: measuredSpread('tape', read.value, known?.spread_m) };
      return withValue(system, [...path, i], { ...point, ...(isGuess ? measured : {}), [axis]: read.value });
    });
    return { ok: true as const, ...(read.note ? { note: read.note } : {}) };
  };
  return (
    <Box flex={{ base: '1 1 110px', sm: '1' }} minW="0">
      <TextEntry
        label={`${title}, point ${i + 1}, ${word}`}
        hideLabel
        value={entryText(value, 'tape', reader)}
        unit={unitById(ROLES.tape.kind, roleUnit('tape', reader)).symbol}
        onEnter={enter}
      />
    </Box>
  );
}

type CornerKnownProps = {
  readonly label: string;
  readonly path: Path;
  readonly point: ProfilePoint;
  readonly known: NonNullable<Props['known']>;
};

/** How one corner is known: as all of them, or by itself. */
function CornerKnown({ label, path, point, known }: CornerKnownProps) {
  const [isOpen, setOpen] = useState(false);
  const spread = point.spread_m ?? known.spread_m;
  const now: Known = { value: 0, origin: point.origin ?? known.origin, ...(spread === undefined ? {} : { spread }) };
  const setOrigin = (origin: Origin): void =>
    setValue(`${label}: how it is known`, path, {
      ...point,
      origin,
      spread_m: origin === 'chosen' ? 0 : (spread ?? measuredSpread('tape', 0, undefined)),
    });
  return (
    <Box pt="10px" minW="112px" ml={{ base: '34px', sm: '0' }}>
      <HowKnown label={label} known={now} role="tape" isOpen={isOpen} onToggle={() => setOpen(!isOpen)} />
      {isOpen && (
        <Box display="grid" gap="1" mt="1">
          <OriginPicker label={label} origin={now.origin} onChange={setOrigin} />
          {now.origin !== 'chosen' && (
            <SpreadField label={label} path={[...path, 'spread_m']} role="tape" known={now} />
          )}
        </Box>
      )}
    </Box>
  );
}

const [MOST_PX, HEIGHT_MM] = [560, 42];

function ProfileDrawing({
  title,
  path,
  points,
}: {
  readonly title: string;
  readonly path: Path;
  readonly points: readonly ProfilePoint[];
}) {
  const [ref, width_mm] = useRoom(MOST_PX);
  const drawn =
    points.length > 0 ? profileDrawing(`${title}, to scale`, points, { width_mm, height_mm: HEIGHT_MM }) : undefined;
  return (
    <Box ref={ref} maxW={`${MOST_PX}px`}>
      {drawn && (
        <DrawingView
          drawing={drawn.drawing}
          testId="profile"
          grips={new Map(points.map((_, i) => [cornerId(i), cornerGrip(title, path, i, drawn.mmPerM)]))}
        />
      )}
    </Box>
  );
}

/** What takes hold of a corner: dragged over the drawing, or moved by arrow keys. */
function cornerGrip(title: string, path: Path, i: number, mmPerM: number): GripProps {
  const edit = `${title}, point ${i + 1}`;
  const moved = (system: SystemDocument, right_m: number, up_m: number): SystemDocument => {
    const point = valueAt(system, [...path, i]) as ProfilePoint;
    const [u_m, v_m] = [snapped(point.u_m + right_m), snapped(point.v_m + up_m)];
    return withValue(system, [...path, i], { ...point, u_m, v_m });
  };
  return {
    'aria-label': `${edit}: move with the arrow keys`,
    style: { cursor: 'grab', touchAction: 'none' },
    onPointerDown: dragging(edit, (before, [right_mm, down_mm]) => moved(before, right_mm / mmPerM, -down_mm / mmPerM)),
    onKeyDown: (event) => {
      const by = tapeMove(event);
      if (by) applyEdit(edit, (system) => moved(system, by[0], by[1]));
    },
  };
}
