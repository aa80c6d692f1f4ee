import type { Vec3 } from '@/core/geometry';
import { onTape, stepsNow } from '../drawing/tapeSteps';

export type View = 'side' | 'end' | 'plan';

/** How far a pointer on a view moves what it draws, to marks of the tape [m, vehicle axes]. */
export function draggedBy(view: View, right_mm: number, down_mm: number, mmPerM: number): Vec3 {
  const tape = (mm: number): number => onTape(mm / mmPerM, stepsNow());
  if (view === 'side') return [tape(right_mm), 0, tape(-down_mm)];
  if (view === 'end') return [0, tape(-right_mm), tape(-down_mm)];
  return [tape(right_mm), tape(-down_mm), 0];
}

/** What an arrow key moves: along and across; with Alt along and up. Nothing for other keys. */
export function keyedBy({
  key,
  shiftKey,
  altKey,
}: {
  readonly key: string;
  readonly shiftKey: boolean;
  readonly altKey: boolean;
}): Vec3 | undefined {
  const step = (shiftKey ? 10 : 1) * stepsNow().large_m;
  const aside = (by: number): Vec3 => (altKey ? [0, 0, by] : [0, by, 0]);
  const directions: Readonly<Record<string, Vec3>> = {
    ArrowLeft: [-step, 0, 0],
    ArrowRight: [step, 0, 0],
    ArrowUp: aside(step),
    ArrowDown: aside(-step),
  };
  return directions[key];
}
