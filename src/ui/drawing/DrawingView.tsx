'use client';

import { useId, type Ref, type SVGProps } from 'react';
import {
  arcPath,
  FILLS,
  headsOf,
  LINES,
  pathOf,
  turnOf,
  widthOf,
  type Drawing,
  type FillRole,
  type LineRole,
  type Mark,
  type Tone,
} from '@/core/drawings';
import { MM_A_PX } from './useRoom';

const color = (name: string): string => `var(--chakra-colors-${name})`;

const STROKES: Readonly<Record<LineRole, string>> = {
  none: 'none',
  outline: color('ink'),
  hidden: color('soft'),
  centre: color('soft'),
  dimension: color('ink'),
  mark: color('ink'),
  between: color('ink'),
  leader: color('soft'),
  metal: color('metal'),
  plate: color('metal'),
  behind: color('metal'),
  surface: color('fuel-edge'),
  thing: color('ink'),
  fine: color('ink'),
  wrong: color('stop'),
  chosen: color('accent'),
  guide: color('accent'),
  travel: color('accent'),
  over: color('edge'),
  kept: color('good'),
  tight: color('stop'),
  open: color('edge'),
  removable: color('metal'),
  tank: color('accent'),
  standing: color('accent'),
  obstacle: color('ink'),
  fixing: color('metal'),
  heat: color('stop'),
  spray: color('note'),
  occupied: color('warn'),
  reach: color('note'),
  swept: color('ink'),
  feed: color('accent'),
  return: color('accent'),
  transfer: color('accent'),
  fill: color('accent'),
  vent: color('soft'),
  overflow: color('soft'),
};

const FILLINGS: Readonly<Record<Exclude<FillRole, 'hatch'>, readonly [fill: string, opacity: number]>> = {
  none: ['none', 1],
  sheet: [color('page'), 1],
  paper: [color('panel'), 0.9],
  liquid: [color('fuel'), 0.55],
  metal: [color('metal'), 1],
  solid: [color('accent'), 1],
  tank: [color('cobalt-muted'), 0.55],
  obstacle: [color('sunk'), 0.55],
  heat: [color('stop-bg'), 0.55],
  reach: [color('note-bg'), 0.55],
  moving: [color('accent'), 0.25],
};

const TONES: Readonly<Record<Tone, string>> = {
  plain: color('ink'),
  soft: color('soft'),
  accent: color('accent'),
  bad: color('stop'),
  good: color('good'),
};

/** What takes hold of a thing in a drawing: its name, and what presses, drags and keys do. */
export type GripProps = SVGProps<SVGGElement> & { readonly 'data-testid'?: string };

type Props = {
  readonly drawing: Drawing;
  /** By what of the system they are of. */ readonly grips?: ReadonlyMap<string, GripProps>;
  readonly testId?: string;
  readonly testIdOf?: (of: string) => string | undefined;
  readonly svgRef?: Ref<SVGSVGElement>;
  /** Black on white, at true size where there is room. */ readonly isPaper?: boolean;
  /** It is as large as it is, and no smaller than this share of that: then it is scrolled. */ readonly least?: number;
};

/** A drawing on screen: every mark of its list, in the colours of the page. */
export function DrawingView({ drawing, grips, testId, testIdOf, svgRef, least, isPaper = false }: Props) {
  const id = useId();
  const { width_mm, height_mm, marks, title } = drawing;
  // What takes hold of a thing stands where its last mark does, over all that was drawn before its name.
  const last = new Map(marks.map(({ of }, i) => [of, i]));
  const one = (mark: Mark, i: number) => (
    <MarkView
      key={i}
      mark={mark}
      look={isPaper ? PAPER : SCREEN}
      hatch={`${id}-hatch`}
      testId={mark.of && testIdOf?.(mark.of)}
    />
  );
  return (
    <svg
      ref={svgRef}
      viewBox={`0 0 ${width_mm} ${height_mm}`}
      role={grips ? 'group' : 'img'}
      aria-labelledby={`${id}-title`}
      data-testid={testId}
      style={{
        display: 'block',
        touchAction: 'pan-y',
        ...(isPaper ? { background: 'white' } : {}),
        ...(least === undefined
          ? { width: '100%' }
          : {
              width: `${width_mm / MM_A_PX}px`,
              maxWidth: '100%',
              minWidth: `${Math.round((least * width_mm) / MM_A_PX)}px`,
            }),
      }}
    >
      <title id={`${id}-title`}>{title}</title>
      {marks.some((mark) => 'fill' in mark && mark.fill === 'hatch') && (
        <defs>
          <pattern
            id={`${id}-hatch`}
            width="2.4"
            height="2.4"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <line
              x1="0"
              y1="0"
              x2="0"
              y2="2.4"
              stroke={isPaper ? 'black' : color('edge')}
              strokeWidth={isPaper ? 0.2 : 0.4}
            />
          </pattern>
        </defs>
      )}
      {marks.map((mark, i) => {
        const grip = mark.of === undefined ? undefined : grips?.get(mark.of);
        if (!grip) return one(mark, i);
        if (last.get(mark.of) !== i) return null;
        return (
          <g key={`grip ${mark.of}`} tabIndex={0} role="button" {...grip}>
            {marks.map((other, k) => (other.of === mark.of ? one(other, k) : null))}
          </g>
        );
      })}
    </svg>
  );
}

/** The colours that a drawing is in. */
type Look = {
  readonly stroke: (line: LineRole) => string;
  readonly fill: (fill: Exclude<FillRole, 'hatch'>) => readonly [fill: string, opacity: number];
  readonly text: (tone: Tone) => string;
  readonly halo: string;
};
const SCREEN: Look = {
  stroke: (line) => STROKES[line],
  fill: (fill) => FILLINGS[fill],
  text: (tone) => TONES[tone],
  halo: color('panel'),
};
const PAPER: Look = {
  stroke: (line) => (line === 'none' ? 'none' : 'black'),
  fill: (fill) => [FILLS[fill], 1],
  text: (tone) => (tone === 'soft' ? '#333' : 'black'),
  halo: 'white',
};

function MarkView({
  mark,
  look: { stroke, fill: filling, text, halo },
  hatch,
  testId,
}: {
  readonly mark: Mark;
  readonly look: Look;
  readonly hatch: string;
  readonly testId: string | undefined;
}) {
  if (mark.kind === 'text')
    return (
      <text
        x={mark.at[0]}
        y={mark.at[1]}
        transform={turnOf(mark)}
        style={{ fontSize: `${mark.size_mm}px`, fontWeight: mark.isBold ? 700 : 550 }}
        textAnchor={mark.anchor}
        fill={text(mark.tone ?? 'plain')}
        stroke={halo}
        strokeWidth={mark.size_mm / 4}
        strokeLinejoin="round"
        paintOrder="stroke"
        pointerEvents="none"
      >
        {mark.text}
      </text>
    );
  const fill = mark.kind === 'line' ? undefined : mark.fill;
  const [inside, opacity] = fill === 'hatch' ? [`url(#${hatch})`, 0.55] : filling(fill ?? 'none');
  const dashes = LINES[mark.line].dashes_mm;
  const look = {
    stroke: stroke(mark.line),
    strokeWidth: widthOf(mark),
    strokeDasharray: dashes.length > 0 ? dashes.join(' ') : undefined,
    strokeLinejoin: 'round' as const,
    // What takes presses and is not seen still takes them.
    fill: mark.line === 'none' && fill === undefined ? 'transparent' : inside,
    fillOpacity: opacity,
    'data-testid': testId,
  };
  if (mark.kind === 'arc')
    return mark.to_deg - mark.from_deg >= 360 ? (
      <circle cx={mark.at[0]} cy={mark.at[1]} r={mark.radius_mm} {...look} />
    ) : (
      <path d={arcPath(mark)} {...look} />
    );
  if (mark.kind === 'area')
    return (
      <path d={pathOf(mark.loops, true)} fillRule="evenodd" {...look}>
        {mark.title !== undefined && <title>{mark.title}</title>}
      </path>
    );
  return (
    <>
      <path d={pathOf([mark.points], false)} {...look} fill="none" />
      {mark.arrow && <path d={pathOf(headsOf(mark), true)} fill={stroke(mark.line)} />}
    </>
  );
}
