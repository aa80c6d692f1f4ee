import { compileTank, gravityOf, standingUp } from '../document/compileTank';
import type { SystemDocument } from '../document/schema';
import { toTankFrame } from '../geometry';
import { failure, type Outcome } from '../outcome';
import { tableByStep, type StrappingRow } from '../tank';

/** As it is mounted with the vehicle level, or at the set conditions. */
export type TableAt = 'mounted' | 'conditions';

/** The strapping table of a tank at a chosen step. */
export function tankTable(system: SystemDocument, tankIndex: number, step_m: number, at: TableAt): Outcome<StrappingRow[], 'no-tank' | 'bad-shape' | 'bad-step' | 'weightless'> {
  const document = system.tanks[tankIndex];
  if (!document) return failure('no-tank', 'tanks', 'There is no such tank.');
  const tank = compileTank(system, document);
  if (!tank.ok) return tank;
  if (at === 'mounted') return tableByStep(tank.value.mesh, standingUp(tank.value, 0, 0), step_m);
  const gravity = gravityOf(system);
  return gravity.ok ? tableByStep(tank.value.mesh, toTankFrame(gravity.value.up, tank.value.mounting), step_m) : gravity;
}
