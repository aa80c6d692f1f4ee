import {
  compatibilityOf,
  CONTACT_FLUID_NAMES,
  CONTACT_OF_FLUID,
  type CompatibilityRow,
  type ContactFluid,
} from '../reference/compatibility';
import { fluidAt } from '../plan/circuits';
import type { Path } from '../plan/edit';
import type { Plan } from '../plan/schema';
import { say, type Hit, type Rule } from './rule';

/** A material that somebody named at a place where fluid touches it. */
type Contact = {
  readonly where: string;
  readonly row: CompatibilityRow;
  readonly fluid: ContactFluid;
  readonly path: Path;
};

/** All that is named of a plan: seals of ports and joints, and what stands in the fuel. */
export function contactsOf(system: Plan): Contact[] {
  const fluidOf = (id: string): ContactFluid => CONTACT_OF_FLUID[system.fluids.find((fluid) => fluid.id === id)!.fluid];
  const inTanks = system.tanks.flatMap((tank, t): Contact[] => [
    ...tank.ports.flatMap((port, p): Contact[] =>
      port.seal
        ? [
            {
              where: `${port.name} of ${tank.name}`,
              row: compatibilityOf(port.seal),
              fluid: fluidOf(tank.fluid),
              path: ['tanks', t, 'ports', p, 'seal'],
            },
          ]
        : [],
    ),
    ...(tank.inside ?? []).map(({ name, material }, i): Contact => ({
      where: `${name} in ${tank.name}`,
      row: compatibilityOf(material),
      fluid: fluidOf(tank.fluid),
      path: ['tanks', t, 'inside', i, 'material'],
    })),
  ]);
  const inLines = system.lines.flatMap((line, l) =>
    (['from', 'to'] as const).flatMap((at): Contact[] => {
      const { seal, item } = line[at];
      const fluid = fluidAt(system, item);
      return seal && fluid
        ? [
            {
              where: `the ${at === 'from' ? 'near' : 'far'} end of ${line.name}`,
              row: compatibilityOf(seal),
              fluid: CONTACT_OF_FLUID[fluid],
              path: ['lines', l, at, 'seal'],
            },
          ]
        : [];
    }),
  );
  return [...inTanks, ...inLines];
}

const SAYS = { bad: 'stands it badly', limited: 'stands it with limits', unknown: 'is not known to stand it' } as const;
const SEVERITIES = { bad: 'stop', limited: 'note', unknown: 'warn' } as const;

/** Sealants, gaskets, liners, hoses, clamps and ties, as they were named. */
export const CONTACT_RULES: readonly Rule[] = [
  {
    id: 'contact.does-not-stand-it',
    title: 'A material in the fuel that does not stand it',
    stage: 'tank',
    severity: 'stop',
    needs: ['seals'],
    test: ({ system }) =>
      contactsOf(system).flatMap(({ where, row, fluid, path }): Hit[] => {
        const rating = row.ratings[fluid];
        return rating === 'good'
          ? []
          : [
              {
                what: say(`At ${where}, in ${CONTACT_FLUID_NAMES[fluid]}: ${row.name} ${SAYS[rating]}. ${row.note}`),
                path,
                severity: SEVERITIES[rating],
              },
            ];
      }),
    why: 'What the fluid eats lets go: a seal weeps, a hose swells shut, a tie drops into the pump.',
    mend: 'One that the table of contacts calls good for this fluid, and its maker too.',
    source: 'compatibility table of the app: general chemical resistance tables',
    status: 'from memory',
  },
];
