'use client';

import { Box } from '@chakra-ui/react';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { FaceSheet, SheetPort } from '@/core/answers';
import type { Point2 } from '@/core/geometry';
import { faceDrawing, portId } from '@/core/reports';
import { formatQuantity } from '@/core/units';
import { tapeMove } from '../drawing/arrows';
import { DrawingView, type GripProps } from '../drawing/DrawingView';
import { stepsNow } from '../drawing/tapeSteps';
import { MM_A_PX, useRoom } from '../drawing/useRoom';
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

const USUAL_PX = 520;
const MOST_TALL_PX = 420;
const TALLER_PX = 680;
const NARROW = 1.4;

/** A port somewhere else on its sheet, with all that goes with it. */
function movedPort(port: SheetPort, to: Point2): SheetPort {
  const by: Point2 = [to[0] - port.at_m[0], to[1] - port.at_m[1]];
  const off = ([u, v]: Point2): Point2 => [u + by[0], v + by[1]];
  return {
    ...port,
    at_m: to,
    screws: port.screws.map(off),
    ...(port.hoseEnd ? { hoseEnd: { ...port.hoseEnd, to: off(port.hoseEnd.to) } } : {}),
    fromEdges: [],
  };
}

/** A face to scale, seen from outside: edges, baffles behind, what stands over it, and ports that can be dragged. */
export function SheetDrawing({ sheet, title, chosen, onChoose, onMove, onNudge }: Props) {
  const reader = useReader();
  const svg = useRef<SVGSVGElement>(null);
  const [ref, width_mm] = useRoom(USUAL_PX);
  const [drag, setDrag] = useState<{ readonly id: string; readonly by: Point2 }>();
  const moving = drag && sheet.ports.find(({ id }) => id === drag.id);
  const rest = moving && snapped(sheet, moving.id, [moving.at_m[0] + drag.by[0], moving.at_m[1] + drag.by[1]]);
  const shown: FaceSheet = rest
    ? { ...sheet, ports: sheet.ports.map((port) => (port.id === moving!.id ? movedPort(port, rest.at) : port)) }
    : sheet;
  const most_px = sheet.height_m > NARROW * sheet.width_m ? TALLER_PX : MOST_TALL_PX;
  const { drawing, mmPerM } = faceDrawing(shown, {
    title,
    room: { width_mm, height_mm: most_px * MM_A_PX },
    length: (value) => formatQuantity(value, 'tape', { reader }).text,
    chosen,
    guides: rest?.lines ?? [],
  });

  /** A pointer's place on the sheet. */
  const onSheet = (event: PointerEvent): Point2 => {
    const box = svg.current!.getBoundingClientRect();
    const unit = drawing.width_mm / box.width / mmPerM;
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
        if (next.type === 'pointerup' && Math.hypot(...by) > stepsNow().step_m / 2)
          onMove(port, snapped(sheet, port.id, [port.at_m[0] + by[0], port.at_m[1] + by[1]]).at);
      };
      target.addEventListener('pointermove', move);
      target.addEventListener('pointerup', end);
      target.addEventListener('pointercancel', end);
    };
  const onKeyDown =
    (port: SheetPort) =>
    (event: KeyboardEvent): void => {
      const by = tapeMove(event);
      if (by) onNudge(port, by);
    };
  const grips = new Map(
    sheet.ports.map((port): [string, GripProps] => [
      portId(port.id),
      {
        'aria-label': `${port.name}${port.checks.length > 0 ? ', will not do here' : ''}`,
        'aria-pressed': port.id === chosen,
        'data-testid': `sheet-port-${port.id}`,
        onPointerDown: grip(port),
        onFocus: () => onChoose(port.id),
        onKeyDown: onKeyDown(port),
        style: { cursor: 'grab', touchAction: 'none' },
      },
    ]),
  );
  return (
    <Box ref={ref}>
      <DrawingView drawing={drawing} grips={grips} testId="face-sheet" svgRef={svg} />
    </Box>
  );
}
