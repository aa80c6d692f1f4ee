import { reachedTanks, type Circuits } from '../../plan/circuits';
import type { PortDocument } from '../../plan/schema';
import { FLUIDS } from '../../reference/fluids';
import { POURED_NAMES, POURED_OF, SPOUTS, WRONG, type Poured } from '../../reference/wrongFuel';

/** A wrong liquid in a filler: whether its nozzle goes in, what it does, and whom it comes to. */
export type WrongFuel = {
  readonly tank: string;
  readonly port: string;
  readonly name: string;
  readonly right: Poured;
  readonly wrong: Poured;
  /** What belongs in it, and what may come, as the plan's own liquids are called where it has them. */
  readonly rightName: string;
  readonly wrongName: string;
  /** Why somebody would: it stands in another tank of the plan, or at the same pump of a station. */
  readonly from: 'plan' | 'station';
  /**
   * Whether the spout of a station's nozzle goes into the filler; some do where it lies between the narrowest and the
   * widest. Of what is poured from a can nothing keeps it out, and nothing is said.
   */
  readonly enters: 'yes' | 'some' | 'no' | undefined;
  readonly effect: string;
  readonly reaches: readonly string[];
};

/** At a station these two stand side by side. */
const STATION: readonly Poured[] = ['petrol', 'diesel'];

/** Every liquid of the plan, and the other fuel of a station, in each filler where it does not belong. */
export function wrongFuelsOf(system: Circuits): WrongFuel[] {
  const fluidIn = ({ fluid }: Circuits['tanks'][number]) => system.fluids.find(({ id }) => id === fluid)!.fluid;
  const pouredIn = (tank: Circuits['tanks'][number]): Poured => POURED_OF[fluidIn(tank)];
  const named = (poured: Poured): string =>
    [...new Set(withFiller.filter((tank) => pouredIn(tank) === poured).map((tank) => FLUIDS[fluidIn(tank)].name))].join(
      ' or ',
    ) || POURED_NAMES[poured];
  const withFiller = system.tanks.filter(({ ports }) => ports.some(({ role }) => role === 'filler'));
  const inPlan = new Set(withFiller.map(pouredIn));
  const reached = system.consumers.map(({ id, name }) => ({ name, tanks: reachedTanks(system, id) }));
  return system.tanks.flatMap((tank, t) => {
    const right = pouredIn(tank);
    const station = STATION.includes(right) ? STATION : [];
    return tank.ports
      .filter(({ role }) => role === 'filler')
      .flatMap((port) =>
        [...new Set([...inPlan, ...station])].flatMap((wrong): WrongFuel[] => {
          const row = WRONG.find((each) => each.wrong === wrong && each.right === right);
          if (!row) return [];
          return [
            {
              tank: tank.name,
              port: port.id,
              name: port.name,
              right,
              wrong,
              rightName: FLUIDS[fluidIn(tank)].name,
              wrongName: named(wrong),
              from: inPlan.has(wrong) ? 'plan' : 'station',
              enters: enters(port, wrong),
              effect: row.effect,
              reaches: reached.flatMap(({ name, tanks }) => (tanks.some((each) => each.tank === t) ? [name] : [])),
            },
          ];
        }),
      );
  });
}

function enters({ bore_m }: PortDocument, poured: Poured): WrongFuel['enters'] {
  const spout = SPOUTS.find((each) => each.poured === poured);
  if (!spout) return undefined;
  if (spout.most_m < bore_m.value) return 'yes';
  return spout.least_m < bore_m.value ? 'some' : 'no';
}
