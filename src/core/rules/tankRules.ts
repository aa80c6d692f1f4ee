import { capital } from '../formats';
import { ALLOYS } from '../reference/alloys';
import { compatibilityOf, CONTACT_FLUID_NAMES, CONTACT_OF_FLUID, MATERIAL_OF_ALLOY } from '../reference/compatibility';
import { VENT_USUAL } from '../reference/vents';
import { FLUIDS, type FluidKey } from '../reference/fluids';
import type { TankResult } from '../answers';
import { shellsIn } from '../plan/divider';
import type { Plan } from '../plan/schema';
import { fluidState } from '../fluids';
import { say, when, type Hit, type Rule } from './rule';

/** Sheet counts as thin for a tank from this volume on [m³]. */
const SMALL_TANK_M3 = 0.02;
const HEAVY_KG = 25;
/** Metals that want a wider radius than this, in thicknesses, are poor at bends. */
const POOR_BEND_T = 2;

/** Liquids that flash below this are highly flammable [K]: GHS category 2 and 1, 23 °C (from memory). */
const HIGHLY_FLAMMABLE_K = 296.15;
const isHighlyFlammable = (fluid: FluidKey): boolean => (FLUIDS[fluid].flashPoint_K ?? Infinity) < HIGHLY_FLAMMABLE_K;
const USUAL_LIMIT = 0.95;
/** Above the limit of the usual school by less than this is rounding. */
const SCHOOL_REL = 1e-6;

/** What is lifted and mounted as one: a tank, or the tanks of one shell. */
type Shell = {
  readonly ids: ReadonlySet<string>;
  readonly name: string;
  readonly dryMass_kg: number;
  readonly fullMass_kg: number;
};

/** The tanks, those of one shell together. */
const shellsOf = ({ tanks: planned }: Pick<Plan, 'tanks'>, tanks: readonly TankResult[]): Shell[] =>
  shellsIn(planned).map((shell) => {
    const ids = new Set(shell.map(({ id }) => id));
    const all = tanks.filter((tank) => ids.has(tank.id));
    const sum = (of: (tank: TankResult) => number): number => all.reduce((total, tank) => total + of(tank), 0);
    return {
      ids,
      name: shell.map(({ name }) => name).join(' with '),
      dryMass_kg: sum((tank) => tank.dryMass_kg),
      fullMass_kg: sum((tank) => tank.fullMass_kg),
    };
  });

/** Of the space: less is rounding. */
const REACHES_REL = 1e-6;

export const TANK_RULES: readonly Rule[] = [
  {
    id: 'tank.shared-wall-apart',
    title: 'A shared wall that is none',
    stage: 'tank',
    severity: 'stop',
    test: ({ evaluation }) =>
      evaluation.tanks.flatMap((tank, t): Hit[] => {
        const wall = tank.sharedWall;
        const other = evaluation.tanks.find(({ id }) => id === wall?.with);
        if (!wall || !other) return [];
        const path = ['tanks', t, 'shape'];
        if (wall.reachesIn_m3 === undefined)
          return [{ what: say(`How the walls of ${tank.name} and ${other.name} meet could not be worked out.`), path }];
        const reaches_m3 = wall.reachesIn_m3;
        if (wall.metal_m3 === 0)
          return [
            { what: say(`${tank.name} is said to share a wall with ${other.name}, and they do not meet.`), path },
          ];
        return when(reaches_m3 > REACHES_REL * Math.min(tank.gross_m3, other.gross_m3), () => ({
          what: say(`The walls of ${tank.name} and ${other.name} stand {volume} deep in each other’s space.`, {
            volume: { value: reaches_m3, role: 'smallVolume' },
          }),
          path,
        }));
      }),
    why: 'Where the parts of one shell do not meet in one wall, neither volume nor weight is right, and it cannot be built.',
    mend: 'Keep both mounted alike, and let the one end where the wall between them begins and the other where it ends.',
    source: 'bodies of both, cut with each other',
    status: 'derived',
  },
  {
    id: 'tank.shared-wall-liquids',
    title: 'Two liquids with one wall between them',
    stage: 'tank',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t): Hit[] => {
        const o = system.tanks.findIndex(({ id }) => id === tank.sharedWall?.with);
        const [here, there] = [t, o].map((k) => system.fluids.find(({ id }) => id === system.tanks[k]?.fluid)?.fluid);
        return when(here !== undefined && there !== undefined && here !== there, () => ({
          what: say(
            `${tank.name} with ${FLUIDS[here!].name} shares a wall with ${system.tanks[o]!.name}, which holds ${FLUIDS[there!].name}.`,
          ),
          path: ['tanks', t, 'fluid'],
        }));
      }),
    why: 'A crack or a pinhole in the divider lets the one into the other, and nothing shows from outside.',
    mend: 'Two walls with an open gap between them that drains to where it is seen; or the same liquid in both. Water that is drunk never shares a wall with fuel.',
    source: 'two walls with a gap between unlike liquids: common practice',
    status: 'common practice',
  },
  {
    id: 'port.on-shared-wall',
    title: 'A port in the wall between two tanks',
    stage: 'ports',
    severity: 'stop',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap(({ sharedWall }) =>
        (sharedWall?.ports ?? []).flatMap((id): Hit[] => {
          const t = system.tanks.findIndex(({ ports }) => ports.some((port) => port.id === id));
          const p = system.tanks[t]?.ports.findIndex((port) => port.id === id) ?? -1;
          const tank = system.tanks[t];
          return tank && p >= 0
            ? [
                {
                  what: say(`${tank.ports[p]!.name} of ${tank.name} leads through the wall into the other tank.`),
                  path: ['tanks', t, 'ports', p, 'face'],
                },
              ]
            : [];
        }),
      ),
    why: 'The divider is no longer sealed, and what stands on the port stands in the other tank.',
    mend: 'Put it on another face; or lead a tube right through the other tank, welded in at both ends.',
    source: 'place of the port in the wall that both share',
    status: 'derived',
  },
  {
    id: 'tank.filled-past-limit',
    title: 'Filled past the limit',
    stage: 'tank',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) => {
        const limit = system.tanks[t]!.fillLimit_ratio.value;
        return when(tank.fill.ratio > limit + 1e-9, () => ({
          what: say(`${tank.name} is filled to {fill}; its limit is {limit}.`, {
            fill: { value: tank.fill.ratio, role: 'share' },
            limit: { value: limit, role: 'share' },
          }),
          path: ['conditions', 'fills'],
        }));
      }),
    why: 'Above the limit nothing is left for the fuel to grow into as it warms, and it goes out by the vent.',
    mend: 'Set the fill lower, or raise the limit if the head room was measured.',
    source: 'common practice: 95 % is the usual limit',
    status: 'common practice',
  },
  {
    id: 'tank.limit-unlike-plan',
    title: 'Fill limit and way of filling differ',
    stage: 'tank',
    severity: 'note',
    test: ({ system, evaluation }) =>
      system.tanks.flatMap((tank, t) => {
        if (system.practice.fill === '95-percent') {
          return when(tank.fillLimit_ratio.value > USUAL_LIMIT * (1 + SCHOOL_REL), () => ({
            what: say(`${tank.name} is planned to be filled to 95 % and its limit stands at {limit}.`, {
              limit: { value: tank.fillLimit_ratio.value, role: 'share' },
            }),
            path: ['tanks', t, 'fillLimit_ratio'],
          }));
        }
        // A nozzle clicks off when the liquid covers the lower end of the neck.
        const level = evaluation.tanks[t]!.clickOff_m3;
        const limit = evaluation.tanks[t]!.holds_m3;
        return when(level !== undefined && level > limit * (1 + SCHOOL_REL), () => ({
          what: say(`Filled until the nozzle clicks off, ${tank.name} takes {level}; its limit is {limit}.`, {
            level: { value: level!, role: 'tankVolume' },
            limit: { value: limit, role: 'tankVolume' },
          }),
          path: ['tanks', t, 'ports', tank.ports.findIndex(({ role }) => role === 'filler')],
        }));
      }),
    why: 'Whoever fills it does what the plan says: what is over the limit goes out by the vent when it warms.',
    mend: 'Lead the filler’s neck further down, so that it clicks off at the limit; or set the limit to how it is filled.',
    source: 'the builder’s own choice; height of the filler’s lower end as the tank is mounted',
    status: 'common practice',
  },
  {
    id: 'tank.no-head-room',
    title: 'Too little head room for expansion',
    stage: 'tank',
    severity: 'warn',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) => {
        const batch = system.fluids.find((fluid) => fluid.id === tank.fluid)!;
        const density = (temperature_K: number): number | undefined => {
          const density15 = batch.density15_kgPerM3?.value;
          const state = fluidState(
            { key: batch.fluid, ...(density15 === undefined ? {} : { density15_kgPerM3: density15 }) },
            temperature_K,
          );
          return state.ok ? state.value.density_kgPerM3 : undefined;
        };
        const hot_K = system.limits.hot_K?.value ?? VENT_USUAL.hot_K;
        const [cold, hot] = [density(VENT_USUAL.ground_K), density(hot_K)];
        if (cold === undefined || hot === undefined) return [];
        const growth = cold / hot - 1;
        const room = 1 / tank.fillLimit_ratio.value - 1;
        return when(room < growth, () => ({
          what: say(
            `${tank.name} keeps {room} of its filling free; ${FLUIDS[batch.fluid].name} grows by {growth} from {cold} to {hot}.`,
            {
              room: { value: room, role: 'share' },
              growth: { value: growth, role: 'share' },
              cold: { value: VENT_USUAL.ground_K, role: 'temperature' },
              hot: { value: hot_K, role: 'temperature' },
            },
          ),
          path: ['tanks', t, 'fillLimit_ratio'],
        }));
      }),
    why: 'Fuel comes out of the ground cold and warms in the tank. A full tank pushes the difference out through the vent.',
    mend: 'Lower the fill limit, or end the filler neck below the lid so that the nozzle clicks off earlier.',
    source:
      'densities of the fluid, ASTM D1250 for petroleum; out of the ground at 15 °C, and 30 K of warming where no hottest is said: common practice',
    status: 'common practice',
  },
  {
    id: 'tank.smaller-than-wished',
    title: 'Holds less than asked for',
    stage: 'tank',
    severity: 'warn',
    test: ({ system, numbers }) => {
      const wish = system.wishes.holds_m3;
      const { holds } = numbers;
      if (!wish || !holds.ok) return [];
      return when(holds.value.value < wish.value * 0.995, () => ({
        what: say('It holds {holds}; you asked for {wish}.', {
          holds: { value: holds.value.value, role: 'tankVolume' },
          wish: { value: wish.value, role: 'tankVolume' },
        }),
        path: ['tanks', 0, 'shape'],
      }));
    },
    why: 'Gross volume is not what it takes at the pump: the head room is lost.',
    mend: 'Make the tank longer, wider or taller, or settle for less.',
    source: 'your own wish',
    status: 'common practice',
  },
  {
    id: 'tank.thin-sheet',
    title: 'Thin sheet',
    stage: 'tank',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      system.tanks.flatMap((tank, t) => {
        const alloy = ALLOYS[tank.material.alloy];
        const thickness = tank.material.thickness_m.value;
        const large = evaluation.tanks[t]!.gross_m3 > SMALL_TANK_M3;
        // Beads were chosen for it: they are to be drawn, and thin it stays.
        const beaded = system.practice.flats === 'beads';
        return when(large && thickness < alloy.thinnestUsual_m - 1e-5, () => ({
          what: say(
            `${tank.name} is of {thickness} ${alloy.name}; {usual} and up is usual at this size${beaded ? ', or beads across every flat, as you chose' : ''}.`,
            {
              thickness: { value: thickness, role: 'thickness' },
              usual: { value: alloy.thinnestUsual_m, role: 'thickness' },
            },
          ),
          path: ['tanks', t, 'material', 'thickness_m'],
          ...(beaded ? { severity: 'note' as const } : {}),
        }));
      }),
    why: 'Thin flats drum, bulge at the leak test and crack at the welds.',
    mend: 'Use thicker sheet, or stiffen the flats with beads and baffles.',
    source: 'common practice: 2 to 3.2 mm aluminium, 1.5 mm steel',
    status: 'common practice',
  },
  {
    id: 'tank.cracks-at-bends',
    title: 'Cracks at a sharp bend',
    stage: 'tank',
    severity: 'note',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) => {
        const alloy = ALLOYS[tank.material.alloy];
        return when(alloy.isMetal && Number.isFinite(alloy.bendRadius_t) && alloy.bendRadius_t > POOR_BEND_T, () => ({
          what: say(`${alloy.name} wants an inside radius of {radius} at a bend. ${alloy.note}`, {
            radius: { value: alloy.bendRadius_t * tank.material.thickness_m.value, role: 'tape' },
          }),
          path: ['tanks', t, 'material', 'alloy'],
        }));
      }),
    why: 'A bend sharper than the metal takes cracks at once or later, under fuel.',
    mend: 'Choose 5052 or 3003 where you fold, or plan welded corners.',
    source: 'Aluminum Association bend tables (from memory)',
    status: 'from memory',
  },
  {
    id: 'tank.material-caution',
    title: 'A material to think twice about',
    stage: 'tank',
    severity: 'warn',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t): Hit[] => {
        const { caution, name } = ALLOYS[tank.material.alloy];
        return caution
          ? [{ what: say(`${tank.name} is of ${name}. ${caution}`), path: ['tanks', t, 'material', 'alloy'] }]
          : [];
      }),
    why: 'A tank fails where its wall does, and fuel then goes wherever it can.',
    mend: 'A listed material for fuel; or prove this one long, with water, where a leak hurts nobody.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'tank.heavy-lift',
    title: 'Heavy to lift when full',
    stage: 'tank',
    severity: 'note',
    test: ({ system, evaluation }) =>
      shellsOf(system, evaluation.tanks).flatMap((tank) =>
        when(tank.fullMass_kg > HEAVY_KG, () => ({
          what: say(`Filled to its limit ${tank.name} weighs {full}, of which {dry} is the tank itself.`, {
            full: { value: tank.fullMass_kg, role: 'mass' },
            dry: { value: tank.dryMass_kg, role: 'mass' },
          }),
        })),
      ),
    why: 'A tank that breaks loose or slips while lifted crushes. Straps and the frame under it carry this weight times every shock.',
    mend: 'Lift it empty, with help. Size mounts for the full weight.',
    source: 'ISO 11228-1: 25 kg for one person in good posture (from memory)',
    status: 'from memory',
  },
  {
    id: 'tank.petrol-aboard',
    title: 'Petrol and the like in a boat are regulated',
    stage: 'tank',
    severity: 'warn',
    test: ({ system }) =>
      system.vehicle.kind !== 'boat'
        ? []
        : system.fluids.flatMap((batch, f) =>
            when(isHighlyFlammable(batch.fluid), () => ({
              what: say(
                `This boat carries ${FLUIDS[batch.fluid].name}, which gives off vapour that ignites below {flash}.`,
                { flash: { value: HIGHLY_FLAMMABLE_K, role: 'temperature' } },
              ),
              path: ['fluids', f, 'fluid'],
              ...(system.rulebook === 'petrol-boat'
                ? {
                    mend: 'Work to the rules in force where the boat is used, and have a licensed person check it. The petrol boat rulebook is chosen.',
                  }
                : {}),
            })),
          ),
    why: 'Its vapour is heavier than air, gathers in the bilge and explodes. Tank, vent, fill, hose and ventilation of such boats are laid down by law in most countries.',
    mend: 'Work to the rules in force where the boat is used, and have a licensed person check it. Choose the petrol boat rulebook.',
    source: 'flash point in the fluid table; local law and the current standard decide',
    status: 'common practice',
  },
  {
    id: 'tank.hole-below-liquid',
    title: 'A hole below the liquid',
    stage: 'ports',
    severity: 'stop',
    test: ({ system }) =>
      system.constraints.noHoleBelowLiquid
        ? system.tanks.flatMap((tank, t) =>
            tank.ports.flatMap((port, p) =>
              when(port.face !== 'lid', () => ({
                what: say(`${port.name} pierces the ${port.face} face, below the liquid.`),
                path: ['tanks', t, 'ports', p, 'face'],
              })),
            ),
          )
        : [],
    why: 'You set: no new hole below the liquid.',
    mend: 'Move the port to the lid, or lift the constraint.',
    source: 'your own constraint',
    status: 'common practice',
  },
  {
    id: 'tank.part-outside',
    title: 'A part misses the tank',
    stage: 'ports',
    severity: 'stop',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.misplaced.map((id) => ({
          what: say(`${nameOf(system.tanks[t]!, id)} lies outside ${tank.name}.`),
          path: pathOf(system.tanks[t]!, t, id),
        })),
      ),
    why: 'Its place is past the edge of its face, so there is no metal to fit it to.',
    mend: 'Bring its distances within the face.',
    source: 'geometry of the tank',
    status: 'derived',
  },
  {
    id: 'tank.material-and-fluid',
    title: 'The tank and what it holds',
    stage: 'tank',
    severity: 'note',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) => {
        const fluid = CONTACT_OF_FLUID[system.fluids.find(({ id }) => id === tank.fluid)!.fluid];
        const row = compatibilityOf(MATERIAL_OF_ALLOY[tank.material.alloy]);
        const rating = row.ratings[fluid];
        // A liner stands between the two, and is judged by itself.
        if ((tank.inside ?? []).some(({ material }) => compatibilityOf(material).group === 'liner')) return [];
        return when(rating === 'limited' || rating === 'bad', () => ({
          what: say(
            `${capital(row.name)} stands ${CONTACT_FLUID_NAMES[fluid]} ${rating === 'bad' ? 'badly' : 'with limits'}. ${row.note}`,
          ),
          path: ['tanks', t, 'material', 'alloy'],
          ...(rating === 'bad' ? { severity: 'stop' as const } : {}),
        }));
      }),
    why: 'What the fluid does to the wall ends up in the filter, or on the ground.',
    mend: 'Choose another material, or line or coat the inside with something that stands the fluid.',
    source: 'compatibility table of the app: general chemical resistance tables',
    status: 'from memory',
  },
];

type Tank = Parameters<Rule['test']>[0]['system']['tanks'][number];
const lists = ['ports', 'pickups', 'senders'] as const;
const nameOf = (tank: Tank, id: string): string =>
  lists.flatMap((list) =>
    tank[list].filter((part) => part.id === id).map((part) => ('name' in part ? part.name : id)),
  )[0] ?? id;

function pathOf(tank: Tank, t: number, id: string): (string | number)[] {
  for (const list of lists) {
    const index = tank[list].findIndex((part) => part.id === id);
    if (index >= 0) return ['tanks', t, list, index];
  }
  return ['tanks', t];
}
