import { feedPath, stockOf } from '../../plan/circuits';
import { DRIVING } from '../../plan/jobs/needs';
import type { Path } from '../../plan/edit';
import type { Plan, PortDocument, RULEBOOKS, TankDocument } from '../../plan/schema';
import { US_GALLON_M3 } from '../../units';
import { say, type Hit, type RuleContext, type Severity, type Stage } from '../rule';

export type Rulebook = Exclude<(typeof RULEBOOKS)[number], 'none'>;

/**
 * One clause of a rulebook, in words of ours: what of a plan goes against it, or why a plan cannot tell. Books change:
 * the current text and local law decide, here a clause is only pointed at.
 */
export type BookRule = {
  readonly id: string;
  readonly book: Rulebook;
  /** As it is cited. */ readonly clause: string;
  readonly title: string;
  readonly stage: Stage;
  readonly severity: Severity;
  readonly why: string;
  readonly mend: string;
  /** What goes against it. */ readonly test?: (context: RuleContext) => readonly Hit[];
  /** What a plan would have to say for it to be judged, where it does not; undefined where it does. */
  readonly lacks?: (context: RuleContext) => string | undefined;
};

/** Said of all: none of it was read here. */
export const BOOK_SOURCE = 'from memory; the current text and local law decide';

export const TEST = 'a test decides it, and no calculation stands for that test';
/** What no plan says, in words: the clause is then never judged. */
export const never = (what: string) => (): string => what;
/** Whether a tank is for petrol, or what is as volatile. */
export const isPetrol = ({ fluids }: Plan, tank: TankDocument): boolean => {
  const key = fluids.find(({ id }) => id === tank.fluid)?.fluid;
  return key === 'petrol' || key === 'e10' || key === 'e85' || key === 'two-stroke' || key === 'methanol';
};
/** Whether any tank is. */
export const hasPetrol = ({ system }: RuleContext): boolean => system.tanks.some((tank) => isPetrol(system, tank));
/** Hits of each tank, with its path. */
export const eachTank =
  (of: (tank: TankDocument, path: Path, context: RuleContext, t: number) => readonly Hit[]) =>
  (context: RuleContext): Hit[] =>
    context.system.tanks.flatMap((tank, t) => of(tank, ['tanks', t], context, t));
/** Hits of each port, with its path. */
export const eachPort = (of: (port: PortDocument, tank: TankDocument, context: RuleContext) => Hit | undefined) =>
  eachTank((tank, path, context) =>
    tank.ports.flatMap((port, p): Hit[] => {
      const hit = of(port, tank, context);
      return hit ? [{ path: [...path, 'ports', p, 'role'], ...hit }] : [];
    }),
  );
/** Whether a pump stands on the way to a consumer. */
export const hasPump = (system: Plan, consumer: string): boolean =>
  feedPath(system, consumer).some((id) => system.components.some((part) => part.id === id && part.kind === 'pump'));
/** Consumers that drive the vehicle. */
export const drivenBy = (system: Plan) => system.consumers.filter(({ kind }) => DRIVING.has(kind));

/** What holds a tank may be planned elsewhere: without mounts it is not known, and not that there are none. */
export const holdsNotSaid = ({ system: { tanks, mounts } }: RuleContext): string | undefined => {
  const loose = tanks.find(({ id }) => !mounts.some(({ tank }) => tank === id));
  return loose && `how ${loose.name} is held is not in the plan`;
};

export const TWENTY_FIVE_GALLONS_M3 = 25 * US_GALLON_M3;
export const TWENTY_GALLONS_A_MINUTE = (20 * US_GALLON_M3) / 60;
/** A filling that builds less than this is taken not to spill [Pa]. Common practice. */
export const FILLS_FREELY_PA = 1000;
export const LOWEST_DRAIN_M = 0.01905; // 3/4 in
export const MOST_FILL_RATIO = 0.95;

/** Whether a tank holds more than 25 US gallons to the brim. */
export const isLarge = ({ evaluation }: RuleContext, t: number): boolean =>
  (evaluation.tanks[t]?.gross_m3 ?? 0) > TWENTY_FIVE_GALLONS_M3;

/** Ports of such tanks that are not in the lid. */
export const openings = (which: (context: RuleContext, tank: TankDocument) => boolean) =>
  eachPort((port, tank, context) =>
    which(context, tank) && port.face !== 'lid'
      ? { what: say(`${port.name} opens ${tank.name} under its top.`) }
      : undefined,
  );
export const drains = eachPort((port) =>
  port.role === 'drain' ? { what: say(`${port.name} is a drain.`) } : undefined,
);
/** Hoses that are not said to be cut from marine fuel hose. */
export const unmarkedHoses = ({ system }: RuleContext): Hit[] =>
  system.lines.flatMap((line, l): Hit[] => {
    const stock = line.kind === 'hose' && line.stock ? stockOf(line) : undefined;
    return stock && stock.series !== 'hose-marine' && stock.series !== 'hose-fill'
      ? [{ what: say(`${line.name} is cut from ${stock.material}.`), path: ['lines', l, 'stock'] }]
      : [];
  });
/** Hoses of which it is not said what they are cut from. */
export const hoseNotSaid = ({ system }: RuleContext): string | undefined =>
  system.lines.some(({ kind, stock }) => kind === 'hose' && !stock)
    ? 'of some hoses it is not said what they are cut from'
    : undefined;
/** Where runs have not been looked at it is not known what siphons. */
export const siphonsNotKnown = ({ system, evaluation }: RuleContext): string | undefined =>
  !evaluation.lines
    ? 'the lines are not worked out yet'
    : drivenBy(system).some(({ id }) => feedPath(system, id).length < 2)
      ? 'nothing leads to an engine yet'
      : undefined;
/** Runs that drain a tank by siphon where they break at their lowest point. */
export const siphons = ({ system, evaluation }: RuleContext): Hit[] =>
  (evaluation.lines?.breakSpills ?? []).flatMap(({ runName, lineName, tanks }): Hit[] => {
    if (!tanks.some(({ bySiphon }) => bySiphon)) return [];
    const l = Math.max(
      0,
      system.lines.findIndex(({ name }) => name === lineName),
    );
    return [
      {
        what: say(`Broken at its lowest point, ${lineName} of ${runName} drains the tank by siphon.`),
        path: ['lines', l, 'rise_m'],
        // Where heights are guesses, it is not known to go against the clause.
        ...(system.lines[l]?.rise_m.origin === 'assumed' ? { severity: 'warn' as const } : {}),
      },
    ];
  });
