'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import {
  MEASURE_DIRECTIONS,
  withAdded,
  withoutEntry,
  freshId,
  assumed,
  type BayDocument,
  type MeasuredBayDocument,
} from '@/core/plan';
import { shapeSpan } from '@/core/model';
import type { SurveyResult } from '@/core/answers';
import { MEASURING } from '@/core/reference/standing';
import { formatQuantity } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { readName } from '../fields/readName';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { FieldGrid, Panel } from '../parts/Panel';
import { SquareButton } from '../parts/SquareButton';
import { useAnswer } from '../state/answers';
import { applyEdit, setValue, useValue } from '../state/editor';
import { StlImport } from '../tank/StlImport';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import {
  withCorner,
  withDrawnBay,
  withMeasuredBay,
  withoutCurvePoint,
  withoutStation,
  withStation,
  withUsualMeasures,
} from './fitEdits';
import { cornerName, measureName } from './bayWords';
import { HOW_WORDS, WALL_WORDS } from './fitWords';

type WallKind = keyof typeof WALL_WORDS;
const WALLS = (Object.keys(WALL_WORDS) as WallKind[]).map((value) => ({ value, label: WALL_WORDS[value] }));

/** The bay as it was measured: outlines, lengths between their corners, curved sides; and what does not agree. */
export function BayPanel() {
  const sides = useSides();
  const bay = useValue((system) => system.fit.bay);
  const { value: fit } = useAnswer('clearances');
  const survey = fit?.ok ? fit.value.bay : undefined;
  if (bay.kind !== 'measured') {
    return (
      <Panel title="The bay" testId="bay" aside={<StlImport into="bay" onTake={withDrawnBay} />}>
        {bay.kind === 'none' ? (
          <Box color="soft" mb="3">
            The space as you measure it: an outline at each end, lengths between corners, both diagonals. Two sides are
            rarely parallel; measure at the tightest place too.
          </Box>
        ) : (
          <DrawnBay bay={bay} />
        )}
        <Button kind="main" onClick={() => applyEdit('begin the bay', withMeasuredBay)}>
          <Plus size={18} aria-hidden />
          Measure up a bay
        </Button>
      </Panel>
    );
  }
  return (
    <Panel
      title="The bay"
      testId="bay"
      aside={
        <Button kind="danger" onClick={() => setValue('delete the bay', ['fit', 'bay'], { kind: 'none' })}>
          <Trash2 size={18} aria-hidden />
          Delete bay
        </Button>
      }
    >
      <Disagreements survey={survey} bay={bay} />
      <FieldGrid>
        <KnownField label="Bay origin, forward of datum" path={['fit', 'bay', 'x_m']} />
        <KnownField label={sides('Bay origin, to port of datum')} path={['fit', 'bay', 'y_m']} />
        <KnownField label="Bay origin, above datum" path={['fit', 'bay', 'z_m']} />
      </FieldGrid>
      <Measures bay={bay} survey={survey} />
      <Sides bay={bay} />
      <Stations bay={bay} survey={survey} />
    </Panel>
  );
}

const SIDE_WORDS = {
  fore: 'Fore side',
  aft: 'Aft side',
  port: 'Port side',
  starboard: 'Starboard side',
  top: 'Top',
  floor: 'Floor',
} as const;

/** A bay from a file: where it lies, and which of its sides are walls. */
function DrawnBay({ bay }: { readonly bay: Extract<BayDocument, { kind: 'drawn' }> }) {
  const { file } = bay.shape.kind === 'mesh' ? bay.shape : { file: 'a drawn body' };
  const size = shapeSpan(bay.shape);
  const sides = useSides();
  const reader = useReader();
  return (
    <Box mb="3">
      <Box mb="2">
        The space is the inside of <b>{file}</b>:{' '}
        {size.map((value) => formatQuantity(value, 'tape', { reader }).text).join(' × ')}, length × width × height.
      </Box>
      <FieldGrid>
        <KnownField label={sides('Its aft end, from the datum forward')} path={['fit', 'bay', 'x_m']} />
        <KnownField label={sides('Its starboard side, from the datum to port')} path={['fit', 'bay', 'y_m']} />
        <KnownField label="Its floor, above the datum" path={['fit', 'bay', 'z_m']} />
        {(Object.keys(SIDE_WORDS) as (keyof typeof SIDE_WORDS)[]).map((side) => (
          <Select
            key={side}
            label={sides(`${SIDE_WORDS[side]} is`)}
            value={bay.walls[side]}
            options={WALLS}
            onChange={(kind) => setValue(`what the ${side} side is`, ['fit', 'bay', 'walls', side], kind)}
          />
        ))}
      </FieldGrid>
      <Box mt="3">
        <Button kind="danger" onClick={() => setValue('delete the bay', ['fit', 'bay'], { kind: 'none' })}>
          <Trash2 size={18} aria-hidden />
          Delete bay
        </Button>
      </Box>
    </Box>
  );
}

function Disagreements({
  survey,
  bay,
}: {
  readonly survey: SurveyResult | undefined;
  readonly bay: MeasuredBayDocument;
}) {
  const sides = useSides();
  const reader = useReader();
  if (!survey || survey.contradictions.length === 0) return null;
  return (
    <Box role="status" bg="warnBg" color="warn" borderRadius="md" p="3" mb="3" data-testid="contradictions">
      <Box fontWeight="700">These measurements cannot all be right</Box>
      {survey.contradictions.map(({ suspects }, c) => (
        <Box key={c} mt="1">
          {suspects.length > 1 ? 'One of these is wrong, likeliest first:' : 'Most likely wrong:'}
          {suspects.map(({ id, wouldAgree_m }) => {
            const index = bay.measures.findIndex((measure) => measure.id === id);
            return (
              <Box key={id}>
                ·{' '}
                {index < 0
                  ? 'the place of a corner'
                  : `${measureName(bay, index, sides)}, ${formatQuantity(bay.measures[index]!.length_m.value, 'tape', { reader }).text}`}
                : would agree at <b>{formatQuantity(wouldAgree_m, 'tape', { reader }).text}</b>
              </Box>
            );
          })}
        </Box>
      ))}
    </Box>
  );
}

function Measures({ bay, survey }: { readonly bay: MeasuredBayDocument; readonly survey: SurveyResult | undefined }) {
  const sides = useSides();
  const reader = useReader();
  const doubted = new Set(survey?.contradictions.flatMap(({ suspects }) => suspects.map(({ id }) => id)));
  return (
    <Box mt="4">
      <Box fontWeight="700" mb="1">
        Lengths taken
      </Box>
      <Box color="soft" fontSize="sm" mb="2">
        {MEASURING.map(
          ({ name, spread_m }) => `A ${name} is good for ±${formatQuantity(spread_m, 'tape', { reader }).text}`,
        ).join('. ')}
        . Until a length is measured it only fills in what no measurement says.
      </Box>
      <FieldGrid>
        {bay.measures.map((measure, m) => {
          const fitted = survey?.fitted_m[measure.id];
          const off = fitted === undefined ? 0 : fitted - measure.length_m.value;
          return (
            <Box
              key={measure.id}
              borderLeftWidth="4px"
              borderColor={doubted.has(measure.id) ? 'warn' : 'transparent'}
              pl="2"
            >
              <KnownField
                label={measureName(bay, m, sides)}
                path={['fit', 'bay', 'measures', m, 'length_m']}
                hint={
                  Math.abs(off) >= 5e-4
                    ? `The corners say ${formatQuantity(fitted!, 'tape', { reader }).text}.`
                    : undefined
                }
              />
              <Box display="flex" gap="2" mt="1">
                <Select
                  hideLabel
                  label={`How ${measureName(bay, m, sides)} is taken`}
                  value={measure.how}
                  options={MEASURE_DIRECTIONS.map((value) => ({ value, label: HOW_WORDS[value] }))}
                  onChange={(how) => setValue('how a length is taken', ['fit', 'bay', 'measures', m, 'how'], how)}
                />
                <SquareButton
                  label={`Remove ${measureName(bay, m, sides)}`}
                  onClick={() =>
                    applyEdit('remove a length', (system) => withoutEntry(system, ['fit', 'bay', 'measures'], m))
                  }
                >
                  <Trash2 size={18} aria-hidden />
                </SquareButton>
              </Box>
            </Box>
          );
        })}
      </FieldGrid>
      <Box mt="2" display="flex" gap="2" flexWrap="wrap" alignItems="end">
        <Button onClick={() => applyEdit('the usual lengths', withUsualMeasures)}>
          <Plus size={18} aria-hidden />
          The usual lengths
        </Button>
        <AnyLength bay={bay} />
      </Box>
    </Box>
  );
}

/** A length between any two corners, such as a long diagonal. */
function AnyLength({ bay }: { readonly bay: MeasuredBayDocument }) {
  const sides = useSides();
  const places = bay.stations.flatMap((station) => bay.sides.map((_, corner) => ({ station: station.id, corner })));
  const key = ({ station, corner }: { station: string; corner: number }): string => `${station} ${corner}`;
  const options = places.map((place) => ({ value: key(place), label: cornerName(bay, place, sides) }));
  const [first, last] = [places[0]!, places[places.length - 2]!];
  const add = (fromKey: string, toKey: string): void => {
    const [from, to] = [places.find((place) => key(place) === fromKey)!, places.find((place) => key(place) === toKey)!];
    applyEdit('one more length', (system) =>
      withAdded(system, ['fit', 'bay', 'measures'], {
        id: freshId(system, 'length'),
        from,
        to,
        how: 'straight',
        length_m: assumed(0.5, 0.01),
      }),
    );
  };
  return (
    <chakra.form
      display="flex"
      gap="2"
      flexWrap="wrap"
      alignItems="end"
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        const [from, to] = [String(data.get('from')), String(data.get('to'))];
        if (from !== to) add(from, to);
      }}
    >
      <chakra.select
        name="from"
        aria-label="Length from"
        defaultValue={key(first)}
        minH="42px"
        bg="panel"
        borderWidth="1.5px"
        borderColor="edge"
        borderRadius="md"
        px="2"
        maxW="250px"
      >
        {options.map(({ value, label }) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </chakra.select>
      <chakra.select
        name="to"
        aria-label="Length to"
        defaultValue={key(last)}
        minH="42px"
        bg="panel"
        borderWidth="1.5px"
        borderColor="edge"
        borderRadius="md"
        px="2"
        maxW="250px"
      >
        {options.map(({ value, label }) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </chakra.select>
      <Button type="submit">
        <Plus size={18} aria-hidden />
        Length
      </Button>
    </chakra.form>
  );
}

function Sides({ bay }: { readonly bay: MeasuredBayDocument }) {
  const rename = (edit: string, path: readonly (string | number)[]) => (text: string) =>
    readName(text, (name) => setValue(edit, path, name));
  return (
    <Box mt="4">
      <Box fontWeight="700" mb="1">
        Its sides
      </Box>
      <FieldGrid>
        {bay.sides.map((side, k) => (
          <Box key={side.id} display="flex" gap="2" alignItems="end">
            <Box flex="1">
              <TextEntry
                label={`Side ${k + 1}`}
                value={side.name}
                onEnter={rename('rename a side', ['fit', 'bay', 'sides', k, 'name'])}
              />
            </Box>
            <Select
              hideLabel
              label={`${side.name} is`}
              value={side.kind}
              options={WALLS}
              onChange={(kind) => setValue(`what ${side.name} is`, ['fit', 'bay', 'sides', k, 'kind'], kind)}
            />
            <SquareButton
              label={`One more corner in ${side.name}`}
              onClick={() => applyEdit('one more corner', (system) => withCorner(system, k))}
            >
              <Plus size={18} aria-hidden />
            </SquareButton>
          </Box>
        ))}
        {(['nearEnd', 'farEnd'] as const).map((end) => (
          <Box key={end} display="flex" gap="2" alignItems="end">
            <Box flex="1">
              <TextEntry
                label={end === 'nearEnd' ? 'First end' : 'Last end'}
                value={bay[end].name}
                onEnter={rename('rename an end', ['fit', 'bay', end, 'name'])}
              />
            </Box>
            <Select
              hideLabel
              label={`${bay[end].name} is`}
              value={bay[end].kind}
              options={WALLS}
              onChange={(kind) => setValue(`what ${bay[end].name} is`, ['fit', 'bay', end, 'kind'], kind)}
            />
          </Box>
        ))}
      </FieldGrid>
    </Box>
  );
}

function Stations({ bay, survey }: { readonly bay: MeasuredBayDocument; readonly survey: SurveyResult | undefined }) {
  const sides = useSides();
  const reader = useReader();
  const text = (value: number): string => formatQuantity(value, 'tape', { reader }).text;
  return (
    <Box mt="4">
      <Box fontWeight="700" mb="1">
        Its outlines, and where their corners come to lie
      </Box>
      {bay.stations.map((station, s) => (
        <chakra.details key={station.id} borderTopWidth="1px" borderColor="rule" py="2">
          <chakra.summary minH="42px" cursor="pointer" fontWeight="650">
            {station.name}
            {survey?.corners_m[s] ? (
              <chakra.span color="soft" fontWeight="400">
                {' '}
                ·{' '}
                {survey.corners_m[s]
                  .map((corner) => `${text(corner[bay.axis === 'x' ? 1 : 0])} / ${text(corner[2])}`)
                  .join(' · ')}
              </chakra.span>
            ) : null}
          </chakra.summary>
          <FieldGrid>
            <TextEntry
              label="Name"
              value={station.name}
              onEnter={(entered) =>
                readName(entered, (name) => setValue('rename an outline', ['fit', 'bay', 'stations', s, 'name'], name))
              }
            />
            <KnownField label={`Along the bay, ${station.name}`} path={['fit', 'bay', 'stations', s, 'at_m']} />
            {station.corners.map((_, c) => [
              <KnownField
                key={`${c}a`}
                label={`Across, ${cornerName(bay, { station: station.id, corner: c }, sides)}`}
                path={['fit', 'bay', 'stations', s, 'corners', c, 'across_m']}
              />,
              <KnownField
                key={`${c}u`}
                label={`Height, ${cornerName(bay, { station: station.id, corner: c }, sides)}`}
                path={['fit', 'bay', 'stations', s, 'corners', c, 'up_m']}
              />,
            ])}
          </FieldGrid>
          <Curves bay={bay} station={station.id} />
          {bay.stations.length > 2 && (
            <Box mt="2">
              <Button
                kind="danger"
                onClick={() => applyEdit(`remove ${station.name}`, (system) => withoutStation(system, station.id))}
              >
                Remove this outline
              </Button>
            </Box>
          )}
        </chakra.details>
      ))}
      <Box mt="2">
        <Button onClick={() => applyEdit('one more outline', withStation)}>
          <Plus size={18} aria-hidden />
          Outline
        </Button>
      </Box>
    </Box>
  );
}

/** A curved side by how far it lies behind a straight edge held from corner to corner. */
function Curves({ bay, station }: { readonly bay: MeasuredBayDocument; readonly station: string }) {
  const add = (side: string): void =>
    applyEdit('a place on a curved side', (system) => {
      const now = system.fit.bay as MeasuredBayDocument;
      const at = now.curves.findIndex((curve) => curve.station === station && curve.side === side);
      const point = { along_m: assumed(0.1, 0.01), behind_m: assumed(0.005, 0.005) };
      return at < 0
        ? withAdded(system, ['fit', 'bay', 'curves'], { station, side, points: [point] })
        : withAdded(system, ['fit', 'bay', 'curves', at, 'points'], point);
    });
  return (
    <Box mt="3">
      {bay.curves.map((curve, c) =>
        curve.station !== station
          ? null
          : curve.points.map((_, p) => {
              const name = `${bay.sides.find(({ id }) => id === curve.side)!.name}, place ${p + 1}`;
              return (
                <Box key={`${c}.${p}`} mb="2">
                  <FieldGrid>
                    <KnownField
                      label={`Along the straight edge, ${name}`}
                      path={['fit', 'bay', 'curves', c, 'points', p, 'along_m']}
                    />
                    <KnownField
                      label={`Behind it, ${name}`}
                      path={['fit', 'bay', 'curves', c, 'points', p, 'behind_m']}
                      hint="Minus where the side bulges into the bay."
                    />
                  </FieldGrid>
                  <SquareButton
                    label={`Remove ${name}`}
                    onClick={() => applyEdit('a place off a curved side', (system) => withoutCurvePoint(system, c, p))}
                  >
                    <Trash2 size={18} aria-hidden />
                  </SquareButton>
                </Box>
              );
            }),
      )}
      <Box display="flex" gap="2" flexWrap="wrap">
        {bay.sides.map((side) => (
          <Button key={side.id} onClick={() => add(side.id)}>
            <Plus size={16} aria-hidden />
            {side.name} is curved
          </Button>
        ))}
      </Box>
    </Box>
  );
}
