import { tankTable } from '@/core/answers';
import { numberFrom, UsageError } from './args';
import type { Verb } from './verb';

const STEP_MM = 10;
const MM_PER_M = 1000;

export const table: Verb = {
  name: 'table',
  summary: 'volume against depth of a tank: the strapping table',
  prints: 'tank, compartment, at, step_m and rows[]: depth_m along effective gravity from the lowest point, volume_m3',
  options: {
    tank: 'id of the tank; the first where it is left out',
    compartment: 'number of a compartment between baffles, from 1; the whole tank where it is left out',
    'step-mm': `step of depth [mm]; ${STEP_MM} where it is left out`,
    at: 'mounted (vehicle level, the default) or conditions',
  },
  needs: 'nothing',
  run: (system, options) => {
    const index = options.tank === undefined ? 0 : system.tanks.findIndex((tank) => tank.id === options.tank);
    if (index < 0)
      throw new UsageError(
        `There is no tank "${options.tank}"; there is ${system.tanks.map((tank) => tank.id).join(', ')}.`,
      );
    const at = options.at ?? 'mounted';
    if (at !== 'mounted' && at !== 'conditions')
      throw new UsageError(`--at wants mounted or conditions; it is "${at}".`);
    const step_m =
      (options['step-mm'] === undefined ? STEP_MM : numberFrom('--step-mm', options['step-mm'])) / MM_PER_M;
    const compartment =
      options.compartment === undefined ? undefined : numberFrom('--compartment', options.compartment);
    const rows = tankTable(system, index, step_m, at, compartment === undefined ? undefined : compartment - 1);
    if (!rows.ok) throw new UsageError(`${rows.error.at}: ${rows.error.detail}`);
    return {
      system: system.name,
      tank: system.tanks[index]!.id,
      ...(compartment === undefined ? {} : { compartment }),
      at,
      step_m,
      rows: rows.value,
    };
  },
};
