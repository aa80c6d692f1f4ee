import { tankModel, type ModelCode } from '../../model';
import { standingUp } from '../../model/compileTank';
import type { StateCode } from '../../state';
import { tankLevel, type Stood } from './standing';
import { failure, type Outcome } from '../../outcome';
import { tableByStep, type StrappingRow } from '../../tank';

/** As it is mounted with the vehicle level, or at the set conditions. */
export type TableAt = 'mounted' | 'conditions';

/** The strapping table of a tank at a chosen step, or of one of its compartments by number from 0. */
export function tankTable(
  system: Stood,
  tankIndex: number,
  step_m: number,
  at: TableAt,
  compartment?: number,
): Outcome<StrappingRow[], ModelCode | StateCode | 'no-compartment' | 'bad-step'> {
  const tank = tankModel(system, tankIndex);
  if (!tank.ok) return tank;
  const { compartments } = tank.value.division;
  if (compartment !== undefined && !compartments[compartment])
    return failure(
      'no-compartment',
      tank.value.document.name,
      `There is no compartment ${compartment + 1}; the tank has ${compartments.length}.`,
    );
  const mesh = compartment === undefined ? tank.value.mesh : compartments[compartment]!.mesh;
  if (at === 'mounted') return tableByStep(mesh, standingUp(tank.value, 0, 0), step_m);
  const level = tankLevel(system, tankIndex);
  return level.ok ? tableByStep(mesh, level.value.up, step_m) : level;
}
