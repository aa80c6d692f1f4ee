import { allKnown, type FitGap, type LineGap, type TankFit } from '../answers';
import { shapeSpan } from '../model/compileShape';
import type { ShapeDocument, Plan } from '../plan/schema';
import { isSolid } from '../fit';
import { say, when, type FitRuleContext, type Hit, type Rule as AnyRule } from './rule';

type Rule = AnyRule<FitRuleContext>;

/** Less than this of an overlap is rounding and rubber [m]. */
const TOUCH_M = 5e-4;
/** A place known no better than this is not settled [m]. */
const UNSETTLED_M = 2e-3;

/**
 * An obstacle so many times larger or smaller than the largest tank was likely drawn in another unit; a bay less than
 * this share of it holds no tank.
 */
const OUT_OF_UNIT = 12;
const BAY_LEAST = 0.6;

const fits = ({ evaluation }: FitRuleContext): readonly TankFit[] =>
  evaluation.fit?.ok ? evaluation.fit.value.tanks : [];

/** Where a builder goes to mend it: the obstacle, or the tank's own place where it is a wall. */
function pathTo(system: Plan, tank: TankFit, gap: FitGap): (string | number)[] {
  const obstacle = system.fit.obstacles.findIndex(({ id }) => id === gap.to);
  return obstacle < 0
    ? ['tanks', system.tanks.findIndex(({ id }) => id === tank.tank), 'mounting']
    : ['fit', 'obstacles', obstacle];
}

/** A hit for each gap of each tank that answers to a test. */
const gapsThat =
  (test: (gap: FitGap) => boolean, what: (gap: FitGap) => string) =>
  (context: FitRuleContext): Hit[] =>
    fits(context).flatMap((tank) =>
      tank.gaps
        .filter(test)
        .map((gap) => ({
          what: say(what(gap), {
            gap: { value: Math.abs(gap.distance_m), role: 'tape' },
            keep: { value: gap.keep_m, role: 'tape' },
            worst: { value: Math.abs(Math.min(0, gap.worst_m)), role: 'tape' },
          }),
          path: pathTo(context.system, tank, gap),
        })),
    );

const solid = ({ kind }: FitGap): boolean => kind === 'wall' || isSolid(kind);
const overlaps = (gap: FitGap): boolean => solid(gap) && gap.distance_m < -TOUCH_M;
const tooNear = (gap: FitGap): boolean => !overlaps(gap) && gap.distance_m < gap.keep_m - TOUCH_M;

/** Less of a wall than this lies bare at a guard’s edge in any case. */
const BARE_REL = 0.02;
const bareOf = ({ evaluation }: FitRuleContext, tank: string, zone: string) =>
  evaluation.fit?.ok ? evaluation.fit.value.bare.find((one) => one.tank === tank && one.zone === zone) : undefined;

const zone = (
  id: string,
  kind: FitGap['kind'],
  title: string,
  severity: Rule['severity'],
  what: string,
  why: string,
  mend: string,
): Rule => ({
  id,
  title,
  stage: 'fit',
  severity,
  needs: ['fit'],
  test: gapsThat(
    (gap) => gap.kind === kind && tooNear(gap),
    (gap) => `${gap.pieceName} comes within {gap} of ${gap.name}; {keep} are to be kept. ${what}`.trim(),
  ),
  why,
  mend,
  source: 'common practice',
  status: 'common practice',
});

export const FIT_RULES: readonly Rule[] = [
  {
    id: 'fit.fouls',
    title: 'Does not fit',
    stage: 'fit',
    severity: 'stop',
    needs: ['fit'],
    test: gapsThat(overlaps, (gap) => `${gap.pieceName} and ${gap.name} overlap: it takes {gap} to part them.`),
    why: 'Found after the metal is cut, this costs a band cut out of the tank and its volume, or a new tank.',
    mend: 'Move the tank, lower a face or cut a corner off it on the Fit stage, which says what each costs in volume.',
    source: 'geometry',
    status: 'derived',
  },
  {
    id: 'fit.too-near',
    title: 'Less clearance than asked for',
    stage: 'fit',
    severity: 'warn',
    needs: ['fit'],
    test: gapsThat(
      (gap) => (gap.kind === 'wall' || gap.kind === 'obstacle' || gap.kind === 'fixing') && tooNear(gap),
      (gap) => `${gap.pieceName} comes within {gap} of ${gap.name}; {keep} are to be kept.`,
    ),
    why: 'Tanks bulge as they fill, frames twist and rubber settles: what nearly touches will rub through.',
    mend: 'Move the tank or give the face more room, or lower the clearance asked for if nothing there moves.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'fit.may-foul',
    title: 'May not fit, as uncertainly as it is measured',
    stage: 'fit',
    severity: 'warn',
    needs: ['fit'],
    test: gapsThat(
      (gap) => solid(gap) && gap.kind !== 'fixing' && gap.distance_m >= -TOUCH_M && gap.worst_m < -TOUCH_M,
      (gap) =>
        `${gap.pieceName} clears ${gap.name} by {gap} as measured, but overlaps it by {worst} if every measurement is wrong the bad way.`,
    ),
    why: 'What is only assumed or roughly measured may lie anywhere within its spread.',
    mend: 'Measure what the Fit stage lists first, with a tape or a template.',
    source: 'common practice',
    status: 'common practice',
  },
  zone(
    'fit.near-heat',
    'heat',
    'Too near to something hot',
    'warn',
    'Heat drives vapour off and softens hoses.',
    'Fuel near an exhaust boils in its lines and burns if anything leaks.',
    'Move the tank or its port, or put a shield with air behind it between them. The rules in force may ask for more distance.',
  ),
  {
    id: 'fit.in-spray',
    title: 'In the way of what the wheels throw',
    stage: 'fit',
    severity: 'warn',
    needs: ['fit'],
    test: (context) =>
      fits(context).flatMap((tank) =>
        tank.gaps.flatMap((gap): Hit[] => {
          if (gap.kind !== 'spray' || !tooNear(gap)) return [];
          const wall = bareOf(context, tank.tank, gap.to);
          // What stands out of its walls may be all that it comes near to: no guard is known to cover that.
          if (wall && wall.bare_ratio <= BARE_REL && gap.piece === tank.tank) return [];
          return [
            {
              what: say(
                `${gap.pieceName} comes within {gap} of ${gap.name}; {keep} are to be kept.${wall ? ' {bare} of its wall there is behind no guard.' : ''}`,
                {
                  gap: { value: Math.abs(gap.distance_m), role: 'tape' },
                  keep: { value: gap.keep_m, role: 'tape' },
                  bare: { value: wall?.bare_ratio ?? 1, role: 'share' },
                },
              ),
              path: pathTo(context.system, tank, gap),
            },
          ];
        }),
      ),
    why: 'Stones wear through sheet and fittings; spray fills vents.',
    mend: 'Put a guard before it at Mounts & weight, with air behind so that it dries, or move what stands there.',
    source: 'common practice',
    status: 'common practice',
  },
  zone(
    'fit.occupied',
    'occupied',
    'In an occupied space',
    'warn',
    'Vapour and people must not share a space.',
    'Fuel vapour is heavier than air, gathers low and ignites from a switch.',
    'Put the tank outside, or behind a sealed bulkhead with a vented box, as the current rules for this vehicle demand; ask a licensed person.',
  ),
  zone(
    'fit.covers-reach',
    'reach',
    'Covers what must stay reachable',
    'warn',
    '',
    'What cannot be reached with the tank in is not serviced, or the tank comes out each time.',
    'Move the tank, or say on the Fit stage that it comes out first.',
  ),
  {
    id: 'fit.contradiction',
    title: 'Measurements contradict each other',
    stage: 'fit',
    severity: 'warn',
    needs: ['fit'],
    test: ({ evaluation, system }) => {
      const result = evaluation.fit?.ok ? evaluation.fit.value.bay : undefined;
      const { bay } = system.fit;
      if (!result || bay.kind !== 'measured') return [];
      return result.contradictions.map(({ suspects }) => {
        const [first] = suspects;
        const index = bay.measures.findIndex(({ id }) => id === first!.id);
        return {
          what: say(
            suspects.length > 1
              ? `One of ${suspects.length} measurements must be wrong. If it is the likeliest of them, it would agree at {agree}.`
              : 'One measurement cannot be right: it would agree with the others at {agree}.',
            { agree: { value: first!.wouldAgree_m, role: 'tape' as const } },
          ),
          path: index < 0 ? ['fit', 'bay'] : ['fit', 'bay', 'measures', index, 'length_m'],
        };
      });
    },
    why: 'Lengths that cannot all be true put a corner in the wrong place; averaging them hides it.',
    mend: 'Take the named measurement again. Until then its doubt is carried into every clearance.',
    source: 'W. Baarda, A testing procedure for use in geodetic networks (1968)',
    status: 'published',
  },
  {
    id: 'fit.cannot-compute',
    title: 'The space cannot be built from what is entered',
    stage: 'fit',
    severity: 'stop',
    needs: ['fit-tried'],
    test: ({ evaluation }) =>
      evaluation.fit && !evaluation.fit.ok
        ? [{ what: say(`${evaluation.fit.error.at}: ${evaluation.fit.error.detail}`, {}), path: ['fit', 'bay'] }]
        : [],
    why: 'Without a closed space nothing can be said of what fits into it.',
    mend: 'Correct the named station or body.',
    source: 'geometry',
    status: 'derived',
  },
  {
    id: 'fit.unit-doubt',
    title: 'A body from a file may be in another unit',
    stage: 'fit',
    severity: 'warn',
    test: ({ system }) => {
      const longest = (shape: ShapeDocument): number => Math.max(...shapeSpan(shape));
      const { bay, obstacles } = system.fit;
      const doubted = (name: string, shape: ShapeDocument, least: number, path: (string | number)[]): Hit[] => {
        if (shape.kind !== 'mesh') return [];
        const size = longest(shape);
        const tank = Math.max(...system.tanks.map((each) => longest(each.shape)));
        return when(size < least * tank || size > OUT_OF_UNIT * tank, () => ({
          what: say(`${name} is {size} long in the unit it was taken in by; the largest tank is {tank}.`, {
            size: { value: size, role: 'tape' },
            tank: { value: tank, role: 'tape' },
          }),
          path,
        }));
      };
      return [
        ...(bay.kind === 'drawn' ? doubted('The bay', bay.shape, BAY_LEAST, ['fit', 'bay']) : []),
        ...obstacles.flatMap((obstacle, i) =>
          doubted(obstacle.name, obstacle.bodies[0]!.shape, 1 / OUT_OF_UNIT, ['fit', 'obstacles', i]),
        ),
      ];
    },
    why: 'An STL file does not say its unit: inches taken for millimetres are 25 times too small.',
    mend: 'Take the file in again in the right unit, if this is not its size.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'fit.no-way-kept',
    title: 'No way in and out is kept',
    stage: 'fit',
    severity: 'note',
    test: ({ system }) =>
      when(
        system.fit.bay.kind !== 'none' &&
          !system.tanks.some(({ id }) => system.fit.removals.some((way) => way.part === id)),
        () => ({
          what: say('The space is described, but no way out of a tank has been checked and kept.', {}),
          path: ['fit', 'removals'],
        }),
      ),
    why: 'A tank that fits where it stands may have no way to get there.',
    mend: 'Let the Fit stage look for a way, or type one and check it; then keep it.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'fit.nothing-cut',
    title: 'Nothing may be cut, and it does not fit',
    stage: 'fit',
    severity: 'stop',
    needs: ['fit'],
    test: (context) =>
      context.system.constraints.nothingCut
        ? fits(context).flatMap((tank) =>
            when(tank.gaps.some(overlaps), () => ({
              what: say(`${tank.name} overlaps what is there, and nothing of the vehicle may be cut.`, {}),
              path: ['constraints'],
            })),
          )
        : [],
    why: 'The job is to stay reversible: what is in the way stays.',
    mend: 'Change the tank, not the vehicle.',
    source: 'the builder’s own constraint',
    status: 'common practice',
  },
  {
    id: 'fit.hot-work',
    title: 'Places to weld are not settled, and nothing can be welded on site',
    stage: 'fit',
    severity: 'warn',
    test: ({ system }) =>
      system.constraints.noHotWork
        ? system.tanks.flatMap((tank, t) =>
            tank.ports.flatMap((port, p) => {
              const loose = ([port.x_m, port.y_m, port.z_m] as const).some(
                (place) => place && (place.origin === 'assumed' || (place.spread ?? 0) > UNSETTLED_M),
              );
              return when(loose, () => ({
                what: say(`Where ${port.name} goes on ${tank.name} is not settled yet.`, {}),
                path: ['tanks', t, 'ports', p],
              }));
            }),
          )
        : [],
    why: 'A bung that turns out to be in the wrong place cannot be moved once the tank is on site. Vapour in a tank that has held fuel explodes when it is welded.',
    mend: 'Measure the places of its ports before the tank leaves the shop.',
    source: 'the builder’s own constraint',
    status: 'common practice',
  },
  {
    id: 'fit.parts-on-hand',
    title: 'A part that is on hand has not been measured',
    stage: 'fit',
    severity: 'note',
    test: ({ system }) => {
      if (!system.constraints.partsOnHand) return [];
      const owned = [
        ...system.components.map((part, i) => ({ part, path: ['components', i] })),
        ...system.tanks.flatMap((tank, t) =>
          tank.senders.map((part, s) => ({ part, path: ['tanks', t, 'senders', s] })),
        ),
      ];
      return owned.flatMap(({ part, path }) => {
        const guessed = allKnown(part).find(({ known }) => known.origin === 'assumed');
        return guessed
          ? [
              {
                what: say(`${part.name} is on hand, yet a value of it is only assumed.`, {}),
                path: [...path, ...guessed.path],
              },
            ]
          : [];
      });
    },
    why: 'What lies on the bench can be measured; what is assumed of it may be wrong.',
    mend: 'Measure it and type what you find.',
    source: 'the builder’s own constraint',
    status: 'common practice',
  },
  {
    id: 'line.near-heat',
    title: 'Line near something hot',
    stage: 'lines',
    severity: 'warn',
    needs: ['fit'],
    test: (context) =>
      lineGapsOf(context, 'heat').map(({ gap, path }) => ({
        what:
          gap.distance_m <= 0
            ? say(`${gap.name} runs through ${gap.obstacle}.`)
            : say(`${gap.name} passes {gap} from ${gap.obstacle}; {keep} is asked for.`, {
                gap: { value: gap.distance_m, role: 'tape' },
                keep: { value: gap.keep_m, role: 'tape' },
              }),
        path,
        severity: gap.distance_m <= 0 ? ('stop' as const) : ('warn' as const),
      })),
    why: 'Heat ages hose, boils the fuel in it, and lights what leaks.',
    mend: 'Lead it another way, or sleeve it and set a shield with air behind it; petrol further off than diesel.',
    source: 'distance from the line through its points to the obstacle; the distance asked for is the builder’s',
    status: 'derived',
  },
  {
    id: 'line.near-moving',
    title: 'Line in the way of what moves',
    stage: 'lines',
    severity: 'warn',
    needs: ['fit'],
    test: (context) =>
      lineGapsOf(context, 'moving').map(({ gap, path }) => ({
        what:
          gap.distance_m <= 0
            ? say(`${gap.obstacle} strikes ${gap.name} on its travel.`)
            : say(`${gap.obstacle} comes to {gap} of ${gap.name}; {keep} is asked for.`, {
                gap: { value: gap.distance_m, role: 'tape' },
                keep: { value: gap.keep_m, role: 'tape' },
              }),
        path,
        severity: gap.distance_m <= 0 ? ('stop' as const) : ('warn' as const),
      })),
    why: 'What moves saws a line through, or tears it off.',
    mend: 'Lead it another way and hold it closer; look again at full travel.',
    source: 'least distance over the whole travel; the distance asked for is the builder’s',
    status: 'derived',
  },
];

/** Lines that come nearer to what is hot or moves than is asked. */
function lineGapsOf(
  { system, evaluation }: FitRuleContext,
  kind: LineGap['kind'],
): { readonly gap: LineGap; readonly path: (string | number)[] }[] {
  const gaps = evaluation.fit?.ok ? evaluation.fit.value.lines : [];
  return gaps
    .filter((gap) => gap.kind === kind && gap.distance_m < gap.keep_m)
    .map((gap) => ({ gap, path: ['lines', system.lines.findIndex(({ id }) => id === gap.line), 'rise_m'] }));
}
