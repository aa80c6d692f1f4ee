import { compileTank, gravityOf, standingUp } from '../document/compileTank';
import type { SystemDocument } from '../document/schema';
import { toTankFrame } from '../geometry';
import { failure, type Outcome } from '../outcome';
import { tableByStep, type StrappingRow } from '../tank';

/** As it is mounted with the vehicle level, or at the set conditions. */
export type TableAt = 'mounted' | 'conditions';

/** The strapping table of a tank at a chosen step, or of one of its bays by number from 0. */
export function tankTable(
  system: SystemDocument,
  tankIndex: number,
  step_m: number,
  at: TableAt,
  bay?: number,
): Outcome<StrappingRow[], 'no-tank' | 'no-bay' | 'bad-shape' | 'bad-step' | 'weightless'> {
  const document = system.tanks[tankIndex];
  if (!document) return failure('no-tank', 'tanks', 'There is no such tank.');
  const tank = compileTank(system, document);
  if (!tank.ok) return tank;
  const { bays } = tank.value.bays;
  if (bay !== undefined && !bays[bay])
    return failure('no-bay', document.name, `There is no bay ${bay + 1}; the tank has ${bays.length}.`);
  const mesh = bay === undefined ? tank.value.mesh : bays[bay]!.mesh;
  if (at === 'mounted') return tableByStep(mesh, standingUp(tank.value, 0, 0), step_m);
  const gravity = gravityOf(system);
  return gravity.ok ? tableByStep(mesh, toTankFrame(gravity.value.up, tank.value.mounting), step_m) : gravity;
}
