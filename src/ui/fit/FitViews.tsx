'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useId, useState } from 'react';
import type { SystemDocument } from '@/core/document';
import type { FitDrawing, FitGap } from '@/core/evaluate';
import { convexHull, type Vec3 } from '@/core/geometry';
import { formatQuantity } from '@/core/units';
import { useNarrow } from '../parts/useNarrow';
import { useRested } from '../parts/useRested';
import { useReader } from '../state/reader';
import { useSystem } from '../state/editor';
import { useTank } from '../state/tankChoice';
import { fitWorker } from './fitWorker';

type ViewKey = keyof FitDrawing['views'];
type Shape = FitDrawing['views'][ViewKey][number];
/** A part on its way, or a tool at work: solids in vehicle axes, each drawn by its hull. */
export type Moving = {
  readonly id: string;
  readonly outlines: Readonly<Record<ViewKey, readonly (readonly (readonly [number, number])[])[]>>;
};

/** Solids as they are seen from three sides. */
export function movingOf(id: string, solids: readonly (readonly Vec3[])[]): Moving {
  const seen = ([u, v]: readonly [0 | 1 | 2, 0 | 1 | 2]) =>
    solids.map((points) => convexHull(points.map((point) => [point[u], point[v]] as const)));
  return { id, outlines: { side: seen(AXES.side), end: seen(AXES.end), plan: seen(AXES.plan) } };
}

type Look = { readonly fill: string; readonly stroke: string; readonly width: number; readonly dash?: string };
const color = (name: string): string =>
  `var(--chakra-colors-${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)})`;
/** Line kinds are told apart by dash and weight as well as by colour. */
const LOOKS: Readonly<Record<Shape['kind'], Look>> = {
  wall: { fill: 'none', stroke: color('metal'), width: 3 },
  open: { fill: 'none', stroke: color('edge'), width: 1, dash: '2 5' },
  removable: { fill: 'none', stroke: color('metal'), width: 2.5, dash: '14 4' },
  tank: { fill: color('cobalt-muted'), stroke: color('accent'), width: 2.5 },
  standing: { fill: color('cobalt-muted'), stroke: color('accent'), width: 1.2 },
  obstacle: { fill: color('sunk'), stroke: color('ink'), width: 1.6 },
  fixing: { fill: color('sunk'), stroke: color('metal'), width: 1.6, dash: '10 3 2 3' },
  heat: { fill: color('stopBg'), stroke: color('stop'), width: 1.6 },
  spray: { fill: 'none', stroke: color('note'), width: 1.6, dash: '6 3' },
  occupied: { fill: 'none', stroke: color('warn'), width: 1.6, dash: '8 3' },
  reach: { fill: color('noteBg'), stroke: color('note'), width: 1.6 },
  swept: { fill: 'none', stroke: color('ink'), width: 1, dash: '4 3' },
};
const NAMES: Readonly<Record<ViewKey, string>> = {
  side: 'Side, from starboard',
  end: 'End, looking forward',
  plan: 'Plan, from above',
};
const AXES: Readonly<Record<ViewKey, readonly [0 | 1 | 2, 0 | 1 | 2]>> = { side: [0, 2], end: [1, 2], plan: [0, 1] };
/** Looking forward, port is to the left. */
const MIRROR: Readonly<Record<ViewKey, 1 | -1>> = { side: 1, end: -1, plan: 1 };

/** The space with everything in it, from three sides to one scale, the gap that is looked at dimensioned. */
export function FitViews({
  gap,
  moving,
  tool,
}: {
  readonly gap?: FitGap | undefined;
  readonly moving?: Moving | undefined;
  /** Stands beside everything else, and has its room in the drawing. */ readonly tool?: Moving | undefined;
}) {
  const system = useSystem();
  const rested = useRested(system);
  const t = useTank();
  const [shown, setShown] = useState<{ system: SystemDocument; drawing: FitDrawing | undefined }>();
  useEffect(() => {
    let current = true;
    fitWorker()
      .drawing(rested, t)
      .then(
        (drawing) => current && setShown({ system: rested, drawing: drawing.ok ? drawing.value : undefined }),
        () => undefined,
      );
    return () => {
      current = false;
    };
  }, [rested, t]);
  if (!shown)
    return (
      <Box minH="240px" display="grid" placeItems="center" color="soft">
        Drawing…
      </Box>
    );
  if (!shown.drawing)
    return (
      <Box color="stop" fontWeight="600">
        The space cannot be drawn: see the findings below.
      </Box>
    );
  return (
    <Box opacity={shown.system === system ? 1 : 0.6}>
      <Drawn drawing={tool ? withRoomFor(shown.drawing, tool) : shown.drawing} gap={gap} moving={moving ?? tool} />
    </Box>
  );
}

/** The drawing with its edges moved out as far as a tool reaches. */
function withRoomFor(drawing: FitDrawing, { outlines }: Moving): FitDrawing {
  const [side, plan] = [outlines.side.flat(), outlines.plan.flat()];
  const along = [side.map(([x]) => x), plan.map(([, y]) => y), side.map(([, z]) => z)];
  const reach = (pick: (...values: number[]) => number, now: Vec3): Vec3 =>
    [0, 1, 2].map((k) => pick(now[k]!, ...along[k]!)) as unknown as Vec3;
  return { ...drawing, bounds: { min: reach(Math.min, drawing.bounds.min), max: reach(Math.max, drawing.bounds.max) } };
}

const PAD = 0.06;
const LABEL_PX = 26;
const WIDE_PX = 820;
const NARROW_PX = 350;
/** Views one under the other are no taller than this together, so that they are seen at one glance [px]. */
const TALL_PX = 520;

function Drawn({
  drawing,
  gap,
  moving,
}: {
  readonly drawing: FitDrawing;
  readonly gap: FitGap | undefined;
  readonly moving: Moving | undefined;
}) {
  const narrow = useNarrow();
  const titleId = useId();
  const { min, max } = drawing.bounds;
  const size = ([0, 1, 2] as const).map((k) => Math.max(0.05, max[k] - min[k])) as unknown as Vec3;
  const page = narrow ? NARROW_PX : WIDE_PX;
  const pad = page * PAD;
  const layout = narrow
    ? stacked(size, page, pad)
    : [abreast(size, page, pad), tiered(size, page, pad)].reduce((a, b) => (a.scale >= b.scale ? a : b));
  const { scale, places, height, legend } = layout;
  const numbered = drawing.views.side.filter(
    ({ kind }) => !['wall', 'open', 'removable', 'standing', 'swept'].includes(kind),
  );
  return (
    <Box position="relative">
      <svg
        viewBox={`0 0 ${page} ${height}`}
        role="img"
        aria-labelledby={titleId}
        data-testid="fit-views"
        style={{ width: '100%', display: 'block' }}
      >
        <title
          id={titleId}
        >{`Side, end and plan of the space to one scale${gap ? `; ${gap.pieceName} to ${gap.name} dimensioned` : ''}`}</title>
        {(Object.keys(places) as ViewKey[]).map((key) => (
          <View
            key={key}
            view={key}
            drawing={drawing}
            scale={scale}
            at={places[key]}
            gap={gap}
            moving={moving}
            numbered={numbered.map(({ id }) => id)}
          />
        ))}
      </svg>
      <Box
        position={legend ? 'absolute' : 'static'}
        left={legend && `${(legend[0] / page) * 100}%`}
        top={legend && `${(legend[1] / height) * 100}%`}
        right="0"
        fontSize="sm"
        display="grid"
        gridTemplateColumns="repeat(auto-fill, minmax(170px, 1fr))"
        columnGap="3"
        alignContent="start"
      >
        {numbered.map(({ id, name }, i) => (
          <Box key={id} opacity={moving?.id === id ? 0.5 : 1}>
            <b>{i + 1}</b> {name}
          </Box>
        ))}
        <Box color="soft" gridColumn="1 / -1" mt="1">
          Dashed thin: over its travel. Long dashes: can be taken off.
        </Box>
      </Box>
    </Box>
  );
}

type Places = Readonly<Record<ViewKey, readonly [number, number]>>;
type Layout = {
  readonly scale: number;
  readonly height: number;
  readonly places: Places;
  /** Where the names stand beside the views; below them where it is left out. */ readonly legend?: readonly [
    number,
    number,
  ];
};

/** All three in one row. */
function abreast([x, y, z]: Vec3, page: number, pad: number): Layout {
  const scale = Math.min((page - 4 * pad) / (2 * x + y), TALL_PX / Math.max(y, z));
  return {
    scale,
    height: LABEL_PX + Math.max(y, z) * scale + pad / 2,
    places: {
      side: [pad, LABEL_PX],
      end: [2 * pad + x * scale, LABEL_PX],
      plan: [3 * pad + (x + y) * scale, LABEL_PX],
    },
  };
}

/** The plan under the side view, the names under the end view. */
function tiered([x, y, z]: Vec3, page: number, pad: number): Layout {
  const scale = Math.min((page - 3 * pad) / (x + y), TALL_PX / (y + z));
  const row = z * scale + LABEL_PX + pad / 2;
  return {
    scale,
    height: row + LABEL_PX + y * scale + pad / 2,
    legend: [2 * pad + x * scale, row + LABEL_PX],
    places: { side: [pad, LABEL_PX], end: [2 * pad + x * scale, LABEL_PX], plan: [pad, row + LABEL_PX] },
  };
}

/** One under the other. */
function stacked([x, y, z]: Vec3, page: number, pad: number): Layout {
  const scale = (page - 2 * pad) / Math.max(x, y);
  const row = z * scale + LABEL_PX + pad / 2;
  return {
    scale,
    height: 2 * row + LABEL_PX + y * scale + pad / 2,
    places: { side: [pad, LABEL_PX], end: [pad, row + LABEL_PX], plan: [pad, 2 * row + LABEL_PX] },
  };
}

type ViewProps = {
  readonly view: ViewKey;
  readonly drawing: FitDrawing;
  readonly scale: number;
  readonly at: readonly [number, number];
  readonly gap: FitGap | undefined;
  readonly moving: Moving | undefined;
  readonly numbered: readonly string[];
};

function View({ view, drawing, scale, at, gap, moving, numbered }: ViewProps) {
  const reader = useReader();
  const [u, v] = AXES[view];
  const { min, max } = drawing.bounds;
  const mirror = MIRROR[view];
  const place = ([a, b]: readonly [number, number]): readonly [number, number] => [
    at[0] + (mirror > 0 ? a - min[u] : max[u] - a) * scale,
    at[1] + (max[v] - b) * scale,
  ];
  const loop = (outline: readonly (readonly [number, number])[]): string =>
    `${outline
      .map(
        (point, i) =>
          `${i ? 'L' : 'M'}${place(point)
            .map((value) => value.toFixed(1))
            .join(' ')}`,
      )
      .join('')}Z`;
  const path = (outlines: readonly (readonly (readonly [number, number])[])[]): string => outlines.map(loop).join('');
  return (
    <g>
      <text x={at[0]} y={at[1] - 9} fontSize="14" fontWeight="600" fill={color('soft')}>
        {NAMES[view]}
      </text>
      {drawing.views[view].map((shape) => {
        const look = LOOKS[shape.kind];
        const gone = moving !== undefined && (shape.id === moving.id || shape.id.startsWith(`${moving.id}:`));
        return (
          <path
            key={shape.id}
            d={path(shape.outline)}
            fillRule="evenodd"
            fill={look.fill}
            fillOpacity="0.55"
            stroke={look.stroke}
            strokeWidth={look.width}
            strokeDasharray={look.dash}
            strokeLinejoin="round"
            opacity={gone ? 0.25 : 1}
          >
            <title>{shape.name}</title>
          </path>
        );
      })}
      {moving && (
        <path
          d={path(moving.outlines[view])}
          fill={color('accent')}
          fillOpacity="0.25"
          stroke={color('accent')}
          strokeWidth="2.5"
          data-testid="moving-part"
        />
      )}
      {drawing.views[view].map((shape) => {
        const index = numbered.indexOf(shape.id);
        if (index < 0 || shape.outline.length === 0) return null;
        const [x, y] = place(middleOf(shape.outline.flat()));
        return (
          <text
            key={shape.id}
            x={x}
            y={y + 5}
            fontSize="14"
            fontWeight="750"
            textAnchor="middle"
            fill={color('ink')}
            stroke={color('panel')}
            strokeWidth="3"
            paintOrder="stroke"
          >
            {index + 1}
          </text>
        );
      })}
      {gap && (
        <Dimension
          from={place([gap.onBody[u], gap.onBody[v]])}
          to={place([gap.onThing[u], gap.onThing[v]])}
          text={formatQuantity(gap.distance_m, 'tape', { reader }).text}
          bad={gap.distance_m < gap.keep_m}
        />
      )}
    </g>
  );
}

const middleOf = (outline: readonly (readonly [number, number])[]): readonly [number, number] => {
  const [us, vs] = [outline.map(([a]) => a), outline.map(([, b]) => b)];
  return [(Math.min(...us) + Math.max(...us)) / 2, (Math.min(...vs) + Math.max(...vs)) / 2];
};

/** The gap between two points, ringed so that it is found even where it is small. */
function Dimension({
  from,
  to,
  text,
  bad,
}: {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly text: string;
  readonly bad: boolean;
}) {
  const ink = color(bad ? 'stop' : 'good');
  const [x, y] = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
  const radius = Math.max(11, Math.hypot(from[0] - to[0], from[1] - to[1]) / 2 + 5);
  return (
    <g>
      <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} stroke={ink} strokeWidth="2.5" />
      <circle cx={x} cy={y} r={radius} fill="none" stroke={ink} strokeWidth="2" />
      <text
        x={x + radius + 5}
        y={y - radius + 2}
        fontSize="16"
        fontWeight="750"
        fill={ink}
        stroke={color('panel')}
        strokeWidth="4"
        paintOrder="stroke"
      >
        {text}
      </text>
    </g>
  );
}
