'use client';

import { useId, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { FaceSheet, SheetPort } from '@/core/evaluate';
import { cornerLetter } from '@/core/formats';
import type { Point2 } from '@/core/geometry';
import { formatQuantity } from '@/core/units';
import { useReader } from '../state/reader';
import { snapped } from './sheetPlace';

type Props = {
  readonly sheet: FaceSheet;
  readonly title: string;
  readonly chosen: string | undefined;
  readonly onChoose: (id: string) => void;
  readonly onMove: (port: SheetPort, at: Point2) => void;
  /** By so much from where the document has it now, which the sheet may not show yet. */
  readonly onNudge: (port: SheetPort, by: Point2) => void;
};

const WIDE = 520;
const PAD = 40;
const MOST_TALL = 420;
const TALLER = 680;
const NARROW = 1.4;
const STEP_M = 0.001;
const LARGE_STEP_M = 0.01;
const MOST_LETTERED = 16;

/** A face to scale, seen from outside: edges, baffles behind, what stands over it, and ports that can be dragged. */
export function SheetDrawing({ sheet, title, chosen, onChoose, onMove, onNudge }: Props) {
  const reader = useReader();
  const titleId = useId();
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ readonly id: string; readonly by: Point2 }>();
  const most = sheet.height_m > NARROW * sheet.width_m ? TALLER : MOST_TALL;
  const scale = Math.min((WIDE - 2 * PAD) / sheet.width_m, (most - 2 * PAD) / sheet.height_m);
  const tall = sheet.height_m * scale + 2 * PAD;
  const left = (WIDE - sheet.width_m * scale) / 2;
  const place = ([u, v]: Point2): [number, number] => [left + u * scale, tall - PAD - v * scale];
  const path = (loop: readonly Point2[]): string => `M${loop.map((point) => place(point).join(' ')).join('L')}Z`;
  const outline = sheet.loops[0]!;
  const moving = drag && sheet.ports.find(({ id }) => id === drag.id);
  const rest = moving && snapped(sheet, moving.id, [moving.at_m[0] + drag.by[0], moving.at_m[1] + drag.by[1]]);
  const atOf = (port: SheetPort): Point2 => (rest && port.id === moving!.id ? rest.at : port.at_m);
  const text = (value: number): string => formatQuantity(value, 'tape', { reader }).text;

  /** A pointer's place on the sheet. */
  const onSheet = (event: PointerEvent): Point2 => {
    const box = svg.current!.getBoundingClientRect();
    const unit = WIDE / box.width / scale;
    return [(event.clientX - box.left) * unit, -(event.clientY - box.top) * unit];
  };
  const grip =
    (port: SheetPort) =>
    (event: PointerEvent<SVGGElement>): void => {
      event.currentTarget.setPointerCapture(event.pointerId);
      event.currentTarget.focus();
      onChoose(port.id);
      const start = onSheet(event);
      const target = event.currentTarget;
      const move = (next: globalThis.PointerEvent): void => {
        const at = onSheet(next as unknown as PointerEvent);
        setDrag({ id: port.id, by: [at[0] - start[0], at[1] - start[1]] });
      };
      const end = (next: globalThis.PointerEvent): void => {
        target.removeEventListener('pointermove', move);
        target.removeEventListener('pointerup', end);
        target.removeEventListener('pointercancel', end);
        const at = onSheet(next as unknown as PointerEvent);
        const by: Point2 = [at[0] - start[0], at[1] - start[1]];
        setDrag(undefined);
        if (next.type === 'pointerup' && Math.hypot(...by) > STEP_M / 2)
          onMove(port, snapped(sheet, port.id, [port.at_m[0] + by[0], port.at_m[1] + by[1]]).at);
      };
      target.addEventListener('pointermove', move);
      target.addEventListener('pointerup', end);
      target.addEventListener('pointercancel', end);
    };
  const onKeyDown =
    (port: SheetPort) =>
    (event: KeyboardEvent): void => {
      const step = event.shiftKey ? LARGE_STEP_M : STEP_M;
      const by: Readonly<Record<string, Point2>> = {
        ArrowLeft: [-step, 0],
        ArrowRight: [step, 0],
        ArrowUp: [0, step],
        ArrowDown: [0, -step],
      };
      const move = by[event.key];
      if (!move) return;
      event.preventDefault();
      onNudge(port, move);
    };
  const selected = sheet.ports.find(({ id }) => id === chosen);
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDE} ${tall}`}
      width="100%"
      role="group"
      aria-labelledby={titleId}
      data-testid="face-sheet"
      style={{ maxHeight: `${tall}px`, touchAction: 'pan-y' }}
    >
      <title id={titleId}>{title}</title>
      <defs>
        <pattern
          id={`${titleId}-over`}
          width="9"
          height="9"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="9" stroke="var(--chakra-colors-edge)" strokeWidth="1.5" />
        </pattern>
      </defs>
      <path
        d={sheet.loops.map(path).join('')}
        fill="var(--chakra-colors-page)"
        fillRule="evenodd"
        stroke="var(--chakra-colors-metal)"
        strokeWidth="3"
        strokeLinejoin="round"
      />
      {sheet.over.map(({ name, outline: over, least_m }) => {
        const [x, y] = place(
          over.reduce<Point2>(([a, b], [u, v]) => [a + u / over.length, b + v / over.length], [0, 0]),
        );
        return (
          <g key={name}>
            <path
              d={path(over)}
              fill={`url(#${titleId}-over)`}
              fillOpacity="0.55"
              stroke="var(--chakra-colors-edge)"
              strokeDasharray="2 4"
            />
            <Label
              x={Math.min(WIDE - 60, Math.max(60, x))}
              y={Math.min(tall - 12, Math.max(14, y))}
            >{`${name}, ${text(least_m)} over it`}</Label>
          </g>
        );
      })}
      {sheet.baffles.map(({ name, from, to, thickness_m }) => {
        const [[x1, y1], [x2, y2]] = [place(from), place(to)];
        const upper = y1 < y2 ? ([x1, y1] as const) : ([x2, y2] as const);
        return (
          <g key={name} data-testid="sheet-baffle">
            <line
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke="var(--chakra-colors-metal)"
              strokeWidth={Math.max(2, thickness_m * scale)}
              strokeDasharray="10 6"
            />
            <Label x={upper[0]} y={upper[1] - 6}>
              {name}
            </Label>
          </g>
        );
      })}
      {outline.length <= MOST_LETTERED &&
        sheet.kind === 'flat' &&
        outline.map((point, i) => {
          const [x, y] = place(point);
          const away = Math.hypot(x - WIDE / 2, y - tall / 2) || 1;
          return (
            <text
              key={i}
              x={x + (18 * (x - WIDE / 2)) / away}
              y={y + (18 * (y - tall / 2)) / away + 5}
              fontSize="15"
              fontWeight="750"
              textAnchor="middle"
              fill="var(--chakra-colors-accent)"
            >
              {cornerLetter(i)}
            </text>
          );
        })}
      {rest?.lines.map(({ along, at_m }) => {
        const [x, y] = place(along === 'v' ? [at_m, 0] : [0, at_m]);
        return (
          <line
            key={along}
            {...(along === 'v'
              ? { x1: x, x2: x, y1: PAD / 2, y2: tall - PAD / 2 }
              : { x1: PAD / 2, x2: WIDE - PAD / 2, y1: y, y2: y })}
            stroke="var(--chakra-colors-accent)"
            strokeWidth="1.5"
            strokeDasharray="3 4"
          />
        );
      })}
      {sheet.ports.map((port, i) => {
        const [x, y] = place(atOf(port));
        const bad = port.checks.length > 0;
        const stroke = bad
          ? 'var(--chakra-colors-stop)'
          : port.id === chosen
            ? 'var(--chakra-colors-accent)'
            : 'var(--chakra-colors-ink)';
        const shift = [atOf(port)[0] - port.at_m[0], atOf(port)[1] - port.at_m[1]] as const;
        return (
          <g
            key={port.id}
            role="button"
            tabIndex={0}
            aria-label={`${port.name}${bad ? ', will not do here' : ''}`}
            aria-pressed={port.id === chosen}
            data-testid={`sheet-port-${port.id}`}
            onPointerDown={grip(port)}
            onFocus={() => onChoose(port.id)}
            onKeyDown={onKeyDown(port)}
            style={{ cursor: 'grab', touchAction: 'none' }}
          >
            <circle cx={x} cy={y} r={Math.max(18, (port.cover_m / 2) * scale)} fill="transparent" />
            {port.hoseEnd && (
              <line
                x1={x}
                y1={y}
                x2={place([port.hoseEnd.to[0] + shift[0], port.hoseEnd.to[1] + shift[1]])[0]}
                y2={place([port.hoseEnd.to[0] + shift[0], port.hoseEnd.to[1] + shift[1]])[1]}
                stroke={stroke}
                strokeOpacity="0.35"
                strokeWidth={Math.max(4, port.hoseEnd.width_m * scale)}
                strokeLinecap="round"
              />
            )}
            <circle
              cx={x}
              cy={y}
              r={(port.cover_m / 2) * scale}
              fill="var(--chakra-colors-panel)"
              fillOpacity="0.85"
              stroke={stroke}
              strokeWidth={port.id === chosen ? 3 : 1.8}
              strokeDasharray={bad ? '6 3' : undefined}
            />
            <circle
              cx={x}
              cy={y}
              r={Math.max(1.5, (port.hole_m / 2) * scale)}
              fill={port.existing ? 'var(--chakra-colors-rule)' : 'var(--chakra-colors-page)'}
              stroke={stroke}
              strokeWidth="1.5"
            />
            {port.screws.map(([u, v], k) => {
              const [sx, sy] = place([u + shift[0], v + shift[1]]);
              return (
                <circle
                  key={k}
                  cx={sx}
                  cy={sy}
                  r={Math.max(1.2, (port.screw_m / 2) * scale)}
                  fill={k === 0 ? stroke : 'none'}
                  stroke={stroke}
                  strokeWidth="1.2"
                />
              );
            })}
            <path d={`M${x - 5} ${y}H${x + 5}M${x} ${y - 5}V${y + 5}`} stroke={stroke} strokeWidth="1.2" />
            <Label
              x={x}
              y={y - Math.max(8, (port.cover_m / 2) * scale) - 5}
              strong
              tone={bad ? 'stop' : undefined}
            >{`${i + 1}${bad ? ' !' : ''}`}</Label>
          </g>
        );
      })}
      {selected &&
        !drag &&
        selected.fromEdges.map(({ foot, distance_m, from }) => {
          const [[x1, y1], [x2, y2]] = [place(selected.at_m), place(foot)];
          const rim = (selected.cover_m / 2) * scale;
          const long = Math.hypot(x2 - x1, y2 - y1) || 1;
          const [rimX, rimY] = [x1 + (rim * (x2 - x1)) / long, y1 + (rim * (y2 - y1)) / long];
          return (
            <g key={from} pointerEvents="none">
              <line x1={rimX} y1={rimY} x2={x2} y2={y2} stroke="var(--chakra-colors-accent)" strokeWidth="2" />
              <circle cx={x2} cy={y2} r="3.5" fill="var(--chakra-colors-accent)" />
              <Label
                x={Math.abs(x2 - x1) > Math.abs(y2 - y1) ? (rimX + x2) / 2 : x2 + 34}
                y={Math.abs(x2 - x1) > Math.abs(y2 - y1) ? y2 - 7 : (rimY + y2) / 2 + 5}
                strong
              >
                {text(distance_m)}
              </Label>
            </g>
          );
        })}
    </svg>
  );
}

function Label({
  x,
  y,
  children,
  strong,
  tone,
}: {
  readonly x: number;
  readonly y: number;
  readonly children: string;
  readonly strong?: boolean;
  readonly tone?: 'stop' | undefined;
}) {
  return (
    <text
      x={x}
      y={y}
      fontSize={strong ? 15 : 13}
      fontWeight={strong ? 750 : 600}
      textAnchor="middle"
      fill={`var(--chakra-colors-${tone ?? (strong ? 'ink' : 'soft')})`}
      stroke="var(--chakra-colors-panel)"
      strokeWidth="4"
      paintOrder="stroke"
      pointerEvents="none"
    >
      {children}
    </text>
  );
}
