'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { valueAt, withValue, type Known, type SystemDocument } from '@/core/document';
import type { TankDrawing } from '@/core/evaluate';
import { applyEdit, beginGesture, endGesture, useEditor } from '../state/editor';
import type { Handle } from './handles';

/** A way of looking at the tank: along an axis, mirrored or not, turned as the vehicle stands. */
export type View = {
  readonly axis: 0 | 1 | 2;
  readonly mirror: 1 | -1;
  readonly turn_deg: number;
  readonly name: string;
};

type Props = {
  readonly drawing: TankDrawing;
  readonly view: View;
  readonly centre: readonly [number, number];
  /** Drawing units for one unit of line weight and text. */
  readonly scale: number;
  readonly handles: readonly Handle[];
  /** Two lines under the view. */
  readonly label: readonly [string, string];
};

const MM = 1000;

export function TankSection({ drawing, view, centre, scale, handles, label }: Props) {
  const group = useRef<SVGGElement>(null);
  const { bounds } = drawing;
  const across = view.axis === 0 ? 1 : 0;
  const upward = view.axis === 2 ? 1 : 2;
  const middle = [
    (bounds.min[across] + bounds.max[across]) / 2,
    (bounds.min[upward] + bounds.max[upward]) / 2,
  ] as const;
  const flat = (p: readonly number[]): [number, number] => [
    view.mirror * (p[across]! - middle[0]) * MM,
    -(p[upward]! - middle[1]) * MM,
  ];
  const onPage = ([u, v]: readonly [number, number]): [number, number] => [
    view.mirror * (u - middle[0]) * MM,
    -(v - middle[1]) * MM,
  ];
  const outline = (loops: readonly (readonly (readonly [number, number])[])[]): string =>
    loops.map((loop) => `M${loop.map((point) => onPage(point).join(',')).join('L')}Z`).join('');
  const section = view.axis === 1 ? drawing.side : view.axis === 0 ? drawing.end : drawing.plan;
  const room = ((bounds.max[across] - bounds.min[across]) / 2) * MM + LABEL_OVERHANG_PX * scale;
  const halfHeight = ((bounds.max[upward] - bounds.min[upward]) / 2) * MM;
  return (
    <g transform={`translate(${centre[0]} ${centre[1]})`}>
      <g ref={group} transform={`rotate(${-view.turn_deg})`}>
        <path d={outline(section.outline)} fillRule="evenodd" fill="var(--chakra-colors-page)" />
        <path
          d={outline(section.liquid)}
          fillRule="evenodd"
          fill="var(--chakra-colors-fuel)"
          fillOpacity="0.55"
          stroke="var(--chakra-colors-fuel-edge)"
          strokeWidth={1.5 * scale}
          data-testid="liquid"
        />
        <path
          d={outline(section.outline)}
          fill="none"
          stroke="var(--chakra-colors-metal)"
          strokeWidth={3.5 * scale}
          strokeLinejoin="round"
        />
        {section.plates.map(([from, to], i) => (
          <line
            key={i}
            {...ends(onPage(from), onPage(to))}
            stroke="var(--chakra-colors-metal)"
            strokeWidth={2.5 * scale}
            data-testid="plate"
          />
        ))}
        {drawing.pickups.map((pickup) => (
          <Tube key={pickup.id} from={flat(pickup.port)} to={flat(pickup.inlet)} scale={scale} />
        ))}
        {drawing.senders.map((sender) => (
          <g key={sender.id} stroke="var(--chakra-colors-accent)" fill="none">
            <polyline
              points={sender.sweep.map((p) => flat(p).join(',')).join(' ')}
              strokeDasharray={`${6 * scale} ${5 * scale}`}
              strokeWidth={1.3 * scale}
            />
            <line
              {...ends(flat([sender.from[0], sender.from[1], bounds.max[2]]), flat(sender.from))}
              strokeWidth={2 * scale}
            />
            <polyline points={sender.wire.map((point) => flat(point).join(',')).join(' ')} strokeWidth={2.5 * scale} />
            <circle
              cx={flat(sender.float)[0]}
              cy={flat(sender.float)[1]}
              r={sender.radius_m * MM}
              strokeWidth={2 * scale}
              fill="var(--chakra-colors-panel)"
            />
          </g>
        ))}
        {drawing.ports.map((port) => (
          <PortMark key={port.id} at={flat(port.at)} face={view.axis === 2 ? 'plan' : port.face} scale={scale} />
        ))}
        {labelled(
          handles.map((handle) => ({ handle, at: flat(handle.at) })),
          { halfHeight, room },
          scale,
        ).map(({ handle, at, labelAt }) => (
          <HandleMark
            key={handle.id}
            handle={handle}
            at={at}
            labelAt={labelAt}
            across={across === 0 ? 'x' : 'y'}
            upward={upward === 1 ? 'y' : 'z'}
            mirror={view.mirror}
            group={group}
            scale={scale}
          />
        ))}
      </g>
      <text
        x={0}
        y={
          halfHeight +
          Math.abs(Math.sin((view.turn_deg * Math.PI) / 180)) * 0.5 * MM * (bounds.max[across] - bounds.min[across]) +
          34 * scale
        }
        textAnchor="middle"
        style={{ fontSize: 14 * scale }}
        fill="var(--chakra-colors-soft)"
      >
        <tspan x={0}>{label[0]}</tspan>
        <tspan x={0} dy={17 * scale} fontWeight="650">
          {label[1]}
        </tspan>
      </text>
    </g>
  );
}

const ends = (a: readonly [number, number], b: readonly [number, number]) => ({
  x1: a[0],
  y1: a[1],
  x2: b[0],
  y2: b[1],
});

function Tube({
  from,
  to,
  scale,
}: {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly scale: number;
}) {
  return (
    <g stroke="var(--chakra-colors-ink)" strokeWidth={2.2 * scale}>
      <line x1={from[0] - 4 * scale} y1={from[1] - 10 * scale} x2={to[0] - 4 * scale} y2={to[1]} />
      <line x1={from[0] + 4 * scale} y1={from[1] - 10 * scale} x2={to[0] + 4 * scale} y2={to[1]} />
    </g>
  );
}

function PortMark({
  at,
  face,
  scale,
}: {
  readonly at: readonly [number, number];
  readonly face: string;
  readonly scale: number;
}) {
  if (face === 'plan')
    return (
      <rect
        x={at[0] - 5 * scale}
        y={at[1] - 5 * scale}
        width={10 * scale}
        height={10 * scale}
        fill="var(--chakra-colors-metal)"
      />
    );
  const flat = face === 'lid' || face === 'floor';
  const [w, h] = flat ? [12 * scale, 9 * scale] : [9 * scale, 12 * scale];
  return (
    <rect
      x={at[0] - w / 2}
      y={face === 'lid' ? at[1] - h : face === 'floor' ? at[1] : at[1] - h / 2}
      width={w}
      height={h}
      fill="var(--chakra-colors-metal)"
    />
  );
}

type HandleProps = {
  readonly handle: Handle;
  readonly at: readonly [number, number];
  readonly across: 'x' | 'y';
  readonly upward: 'y' | 'z';
  readonly mirror: 1 | -1;
  readonly group: React.RefObject<SVGGElement | null>;
  readonly scale: number;
  readonly labelAt: readonly [number, number];
};

type Placed = { readonly handle: Handle; readonly at: readonly [number, number] };

/** How far past the walls a label may reach. */
const LABEL_OVERHANG_PX = 18;
/** Width of one letter of a label, in label sizes. */
const LETTER = 0.56;

/** Puts each label over its handle, in rows one above the other where they would overlap. */
function labelled(
  placed: readonly Placed[],
  { halfHeight, room }: { halfHeight: number; room: number },
  scale: number,
): (Placed & { labelAt: [number, number] })[] {
  const size = 14 * scale;
  const taken: { left: number; right: number; y: number }[] = [];
  return [...placed]
    .sort((a, b) => a.at[0] - b.at[0])
    .map(({ handle, at }) => {
      const half = (shortName(handle).length * size * LETTER) / 2;
      const x = Math.min(Math.max(at[0], half - room), Math.max(room - half, half - room));
      const onLid = at[1] < -halfHeight + 2;
      let y = at[1] - (onLid ? 18 : 14) * scale;
      const clashes = (): boolean =>
        taken.some((other) => Math.abs(other.y - y) < size && x - half < other.right && x + half > other.left);
      while (clashes()) y -= size * 1.15;
      taken.push({ left: x - half, right: x + half, y });
      return { handle, at, labelAt: [x, y] };
    });
}

const shortName = (handle: Handle): string => handle.label.replace(/, (pivot|probe)$/, '');

const SNAP_M = 0.001;
const snap = (value_m: number): number => Math.round(value_m / SNAP_M) / Math.round(1 / SNAP_M);

/** Writes one direction of a handle's move into the document. */
function moved(system: SystemDocument, handle: Handle, direction: 'x' | 'y' | 'z', by_m: number): SystemDocument {
  const move = handle.moves[direction];
  if (!move) return system;
  const known = valueAt(system, move.path) as Known;
  const value = Math.min(move.max, Math.max(move.min, snap(known.value + move.sign * by_m)));
  return value === known.value
    ? system
    : withValue(system, move.path, {
        ...known,
        value,
        ...(known.origin === 'assumed' ? { origin: 'chosen', spread: undefined } : {}),
      });
}

function HandleMark({ handle, at, labelAt, across, upward, mirror, group, scale }: HandleProps) {
  const drag = useRef<{ before: SystemDocument; start: DOMPoint }>(undefined);
  const edit = `move ${handle.label}`;

  /** The pointer in the drawing's own millimetres, however it is turned. */
  const local = (event: PointerEvent): DOMPoint =>
    new DOMPoint(event.clientX, event.clientY).matrixTransform(group.current!.getScreenCTM()!.inverse());

  const onPointerDown = (event: PointerEvent<SVGGElement>): void => {
    const before = useEditor.getState().system;
    if (!before) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { before, start: local(event) };
    beginGesture();
  };
  const onPointerMove = (event: PointerEvent): void => {
    if (!drag.current) return;
    const { before, start } = drag.current;
    const here = local(event);
    const sideways = ((here.x - start.x) / MM) * mirror;
    const risen = -(here.y - start.y) / MM;
    applyEdit(edit, () => moved(moved(before, handle, across, sideways), handle, upward, risen));
  };
  const onPointerEnd = (): void => {
    if (!drag.current) return;
    endGesture(drag.current.before, edit);
    drag.current = undefined;
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = event.shiftKey ? 0.01 : 0.001;
    const by: Readonly<Record<string, readonly ['side' | 'up', number]>> = {
      ArrowLeft: ['side', -step],
      ArrowRight: ['side', step],
      ArrowUp: ['up', step],
      ArrowDown: ['up', -step],
    };
    const move = by[event.key];
    if (!move) return;
    event.preventDefault();
    applyEdit(edit, (system) =>
      move[0] === 'side' ? moved(system, handle, across, move[1] * mirror) : moved(system, handle, upward, move[1]),
    );
  };

  return (
    <g
      tabIndex={0}
      role="button"
      aria-label={`${handle.label}: move with the arrow keys`}
      data-testid={`handle-${handle.id}-${upward === 'y' ? 'plan' : across}`}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerEnd}
      onPointerCancel={onPointerEnd}
      onKeyDown={onKeyDown}
      style={{ cursor: 'grab', touchAction: 'none' }}
    >
      <circle cx={at[0]} cy={at[1]} r={22 * scale} fill="transparent" />
      <circle
        cx={at[0]}
        cy={at[1]}
        r={8 * scale}
        fill="var(--chakra-colors-panel)"
        stroke="var(--chakra-colors-accent)"
        strokeWidth={3 * scale}
      />
      <title>{handle.label}</title>
      {across === 'x' && upward === 'z' && (
        <text
          x={labelAt[0]}
          y={labelAt[1]}
          textAnchor="middle"
          style={{ fontSize: 14 * scale }}
          fill="var(--chakra-colors-ink)"
          stroke="var(--chakra-colors-panel)"
          strokeWidth={3 * scale}
          paintOrder="stroke"
          pointerEvents="none"
        >
          {shortName(handle)}
        </text>
      )}
    </g>
  );
}
