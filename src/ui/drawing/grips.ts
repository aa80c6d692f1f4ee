'use client';

import type { KeyboardEvent, PointerEvent } from 'react';
import { valueAt, withValue, type Known, type SystemDocument } from '@/core/plan';
import { gripId, TANK_VIEWS, type TankSheet, type TankViewKey, type ViewFrame } from '@/core/reports';
import { applyEdit, beginGesture, endGesture, useEditor } from '../state/editor';
import { tapeMove } from './arrows';
import type { GripProps } from './DrawingView';
import type { Handle } from './handles';
import { onTape, stepsNow } from './tapeSteps';

type Direction = 'x' | 'y' | 'z';
const DIRECTIONS = ['x', 'y', 'z'] as const satisfies readonly Direction[];

/** Writes one direction of a handle's move into the document. */
function moved(system: SystemDocument, handle: Handle, direction: Direction, by_m: number): SystemDocument {
  const move = handle.moves[direction];
  if (!move) return system;
  const known = valueAt(system, move.path) as Known;
  const value = Math.min(move.max, Math.max(move.min, onTape(known.value + move.sign * by_m, stepsNow())));
  return value === known.value
    ? system
    : withValue(system, move.path, {
        ...known,
        value,
        ...(known.origin === 'assumed' ? { origin: 'chosen', spread: undefined } : {}),
      });
}

/** A way on the sheet as the view lies that has not leant: across and upward in the tank [m]. */
function inTank([dx, dy]: readonly [number, number], { turn_deg, mirror }: ViewFrame, mmPerM: number) {
  const [sin, cos] = [Math.sin((turn_deg * Math.PI) / 180), Math.cos((turn_deg * Math.PI) / 180)];
  return { across_m: (mirror * (dx * cos - dy * sin)) / mmPerM, upward_m: -(dx * sin + dy * cos) / mmPerM };
}

/** The pointer on a sheet [mm]. */
function onSheet(svg: SVGSVGElement, event: { readonly clientX: number; readonly clientY: number }) {
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM()!.inverse());
  return [x, y] as const;
}

/**
 * What is done as a pointer takes hold: the document as it was, changed by how far it was drawn over the sheet [mm], as
 * one step of undo. The drawing may be made anew on the way, at another scale: it goes by how it was taken hold of.
 */
export const dragging =
  (edit: string, change: (before: SystemDocument, way_mm: readonly [number, number]) => SystemDocument) =>
  (event: PointerEvent<SVGGElement>): void => {
    const before = useEditor.getState().system;
    const target = event.currentTarget;
    const svg = target.ownerSVGElement;
    if (!before || !svg) return;
    target.setPointerCapture(event.pointerId);
    const start = onSheet(svg, event);
    beginGesture();
    const move = (next: globalThis.PointerEvent): void => {
      const here = onSheet(svg, next);
      applyEdit(edit, () => change(before, [here[0] - start[0], here[1] - start[1]]));
    };
    const end = (): void => {
      target.removeEventListener('pointermove', move);
      target.removeEventListener('pointerup', end);
      target.removeEventListener('pointercancel', end);
      endGesture(before, edit);
    };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', end);
    target.addEventListener('pointercancel', end);
  };

/** What takes hold of a tank's handles in each of its views: dragged over the sheet, or moved by arrow keys. */
export function tankGrips(sheet: TankSheet, handles: readonly Handle[]): ReadonlyMap<string, GripProps> {
  return new Map(
    TANK_VIEWS.flatMap((view) =>
      handles.map((handle) => [gripId(handle.id, view), gripOf(handle, view, sheet)] as const),
    ),
  );
}

function gripOf(handle: Handle, view: TankViewKey, { frames, mmPerM }: TankSheet): GripProps {
  const frame = frames[view];
  const [across, upward] = [DIRECTIONS[frame.across]!, DIRECTIONS[frame.upward]!];
  const edit = `move ${handle.label}`;
  const onPointerDown = dragging(edit, (before, way) => {
    const by = inTank(way, frame, mmPerM);
    return moved(moved(before, handle, across, by.across_m), handle, upward, by.upward_m);
  });
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = tapeMove(event);
    if (!by) return;
    const [right_m, up_m] = by;
    applyEdit(edit, (system) =>
      right_m === 0 ? moved(system, handle, upward, up_m) : moved(system, handle, across, right_m * frame.mirror),
    );
  };
  return {
    'aria-label': `${handle.label}: move with the arrow keys`,
    'data-testid': `handle-${handle.id}-${upward === 'y' ? 'plan' : across}`,
    style: { cursor: 'grab', touchAction: 'none' },
    onPointerDown,
    onKeyDown,
  };
}
