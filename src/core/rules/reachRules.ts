import type { ReachAnswer } from '../answers';
import type { MountDocument, Plan } from '../plan/schema';
import { say, type Hit, type ReachRuleContext, type Rule as AnyRule } from './rule';

type Rule = AnyRule<ReachRuleContext>;

/** The port, the mount or the named place that an answer is about. */
function pathTo(system: Plan, { id, tank }: ReachAnswer): (string | number)[] {
  const mount = system.mounts.findIndex((one) => one.id === id);
  if (mount >= 0) return ['mounts', mount];
  const t = system.tanks.findIndex((one) => one.id === tank);
  const port = t < 0 ? -1 : system.tanks[t]!.ports.findIndex((one) => one.id === id);
  return port < 0 ? ['fit', 'spots', system.fit.spots.findIndex((one) => one.id === id)] : ['tanks', t, 'ports', port];
}

const inTheWay = ({ names }: ReachAnswer): string => (names.length === 0 ? '' : ` In the way: ${names.join(', ')}.`);

/** A hit for each place that answers to a test. */
const placesThat =
  (test: (answer: ReachAnswer, system: Plan) => boolean, what: (answer: ReachAnswer) => string) =>
  ({ system, evaluation }: ReachRuleContext): Hit[] =>
    (evaluation.reach?.ok ? evaluation.reach.value : [])
      .filter((answer) => test(answer, system))
      .map((answer) => ({
        what: say(what(answer), { flats: { value: answer.acrossFlats_m ?? 0, role: 'tape' } }),
        path: pathTo(system, answer),
      }));

/** A hit for each tank with mounts whose bolts answer to a test: what it says of the first, and which more. */
const boltsThat =
  (test: (answer: ReachAnswer, mount: MountDocument) => boolean, what: (answer: ReachAnswer, name: string) => string) =>
  ({ system, evaluation }: ReachRuleContext): Hit[] =>
    system.tanks.flatMap((tank): Hit[] => {
      const [first, ...more] = (evaluation.reach?.ok ? evaluation.reach.value : []).filter((answer) => {
        const mount = system.mounts.find(({ id }) => id === answer.id);
        return mount?.tank === tank.id && test(answer, mount);
      });
      if (!first) return [];
      const others = more.length === 0 ? '' : ` So it is with ${more.map(({ name }) => name).join(', ')}.`;
      return [
        {
          what: say(what(first, system.tanks.length > 1 ? `${first.name} of ${tank.name}` : first.name) + others, {
            flats: { value: first.acrossFlats_m ?? 0, role: 'tape' },
          }),
          path: pathTo(system, first),
        },
      ];
    });

const isDrain = ({ id, tank }: ReachAnswer, system: Plan): boolean =>
  system.tanks.some((one) => one.id === tank && one.ports.some((port) => port.id === id && port.role === 'drain'));
const turns = ({ job, isMount }: ReachAnswer): boolean => (job === 'tighten' || job === 'screws') && !isMount;
const toolOf = ({ job, acrossFlats_m }: ReachAnswer): string =>
  job === 'screws'
    ? 'No screwdriver gets to every screw'
    : acrossFlats_m === undefined
      ? 'No spanner is as large as the hexagon'
      : 'No spanner of {flats}, and no hand for it, gets room to turn';

const COMMON = { needs: ['reach'], source: 'common practice', status: 'common practice' } as const;

export const REACH_RULES: readonly Rule[] = [
  {
    id: 'reach.no-tool',
    title: 'No tool can tighten it',
    stage: 'fit',
    severity: 'warn',
    ...COMMON,
    test: placesThat(
      (answer) => turns(answer) && answer.when === 'never',
      (answer) =>
        `${toolOf(answer)} at ${answer.name}${answer.tank ? ', even before the tank goes in' : ''}.${inTheWay(answer)}`,
    ),
    why: 'A joint that no tool gets to is left loose, and fuel seeps from it.',
    mend: 'Move it away from what is beside it, or use a fitting with a smaller hexagon.',
  },
  {
    id: 'reach.before-fitting',
    title: 'Can only be tightened before the tank goes in',
    stage: 'fit',
    severity: 'note',
    ...COMMON,
    test: placesThat(
      (answer, system) => turns(answer) && answer.when === 'bench' && !isDrain(answer, system),
      (answer) => `${answer.name} can be tightened on the bench, but not with the tank in place.${inTheWay(answer)}`,
    ),
    why: 'A seep there means that the tank comes out again.',
    mend: 'Make the joint on the bench with a tail of hose long enough to be joined where there is room, or move it.',
  },
  {
    id: 'reach.drain',
    title: 'The drain cannot be opened with the tank in place',
    stage: 'fit',
    severity: 'warn',
    ...COMMON,
    test: placesThat(
      (answer, system) => turns(answer) && answer.when === 'bench' && isDrain(answer, system),
      (answer) => `${answer.name} cannot be opened with the tank in place.${inTheWay(answer)}`,
    ),
    why: 'Water and dirt are let out there, and a full tank is emptied there before it is lifted.',
    mend: 'Move the drain to where a spanner turns, or lead it out with a short pipe and a valve.',
  },
  {
    id: 'reach.no-nozzle',
    title: 'It cannot be filled where it is',
    stage: 'fit',
    severity: 'warn',
    ...COMMON,
    test: placesThat(
      (answer) => answer.job === 'fill' && (answer.when === 'bench' || answer.when === 'never'),
      (answer) => `A nozzle with a hand on it does not get to ${answer.name}.${inTheWay(answer)}`,
    ),
    why: 'Held askew a nozzle clicks off early, spits back or spills.',
    mend: 'Move the filler, or lead its hose to a mouth outside and name that place on the Fit stage.',
  },
  {
    id: 'reach.no-torch',
    title: 'A torch does not reach the seam',
    stage: 'fit',
    severity: 'warn',
    ...COMMON,
    test: placesThat(
      (answer) => answer.job === 'weld' && answer.when === 'never',
      (answer) =>
        `No torch with its rod, and no wire-feed gun, gets to the whole seam of ${answer.name}.${inTheWay(answer)}`,
    ),
    why: 'A seam that the torch cannot see is bridged with pinholes, and leaks.',
    mend: 'Move it further from the corner, weld it before the next side closes, or fold that side instead.',
  },
  {
    id: 'reach.no-sight',
    title: 'It cannot be read',
    stage: 'fit',
    severity: 'warn',
    ...COMMON,
    test: placesThat(
      (answer) => answer.job === 'read' && answer.when !== 'fitted',
      (answer) => `${answer.name} cannot be seen from where an eye could be.${inTheWay(answer)}`,
    ),
    why: 'A gauge that is not seen is not read.',
    mend: 'Turn it, move it, or take what covers it away for good.',
  },
  {
    id: 'reach.no-hand',
    title: 'A hand does not get to it',
    stage: 'fit',
    severity: 'warn',
    ...COMMON,
    test: placesThat(
      (answer) => answer.job === 'hand' && (answer.when === 'bench' || answer.when === 'never'),
      (answer) => `A straight arm does not get to ${answer.name}.${inTheWay(answer)}`,
    ),
    why: 'What has to be shut, drained or checked in a hurry must be reached without taking anything out.',
    mend: 'Move it to where a hand goes, or make an opening.',
  },
  {
    id: 'mount.no-tool',
    title: 'A bolt that no socket reaches',
    stage: 'mounts',
    severity: 'warn',
    ...COMMON,
    needs: ['reach', 'mounts-there', 'mounts-said'],
    test: boltsThat(
      ({ when }) => when === 'never',
      (answer, name) =>
        answer.acrossFlats_m === undefined
          ? `No spanner is as large as the bolts of ${name}.`
          : `No spanner or socket of {flats}, with a hand on it, gets to every bolt of ${name}.${inTheWay(answer)}`,
    ),
    why: 'A bolt that cannot be turned is left finger tight, and is never tightened again.',
    mend: 'Move the mount or its bolts off what is beside them, take a smaller bolt, or a longer foot.',
  },
  {
    id: 'mount.covered',
    title: 'Bolts that the tank covers',
    stage: 'mounts',
    severity: 'note',
    ...COMMON,
    needs: ['reach', 'mounts-there', 'mounts-said'],
    test: boltsThat(
      // Under a bearer they always are.
      ({ when }, { kind }) => when === 'bench' && kind !== 'cradle',
      (answer, name) => `The bolts of ${name} can only be turned before the tank goes in.${inTheWay(answer)}`,
    ),
    why: 'To tighten them again, or to take it off, the tank comes out first.',
    mend: 'Turn its foot away from the tank, or move it to where a spanner swings.',
  },
];
