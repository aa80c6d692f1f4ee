import { holeOf_m } from '../model';
import { sideText } from '../plan/sides';
import { holePath, type SheetCheck, type SheetCheckKind, type SheetPort } from '../answers';
import { say, when, type Hit, type Rule as AnyRule, type Severity, type SheetRuleContext } from './rule';

type Rule = AnyRule<SheetRuleContext>;

const eachPort = ({
  evaluation,
  system,
}: SheetRuleContext): { port: SheetPort; t: number; corner: (edge: string) => string }[] =>
  (evaluation.sheets?.ok ? evaluation.sheets.value : []).flatMap((sheets, t) =>
    sheets.flatMap(({ ports, name }) =>
      ports.map((port) => ({
        port,
        t,
        corner: (edge) => `${edge} of the ${sideText(system.vehicle.kind, name).toLowerCase()}`,
      })),
    ),
  );

/** What is measured finer than with a tape. */
const FINE: ReadonlySet<SheetCheckKind> = new Set(['not-flat', 'too-thick', 'few-turns']);

/** A hit for each check of a kind, told by its name and what there is against what is wanted. */
const checksOf =
  (kinds: readonly SheetCheckKind[], what: (port: SheetPort, check: SheetCheck, where: string) => string) =>
  (context: SheetRuleContext): Hit[] =>
    eachPort(context).flatMap(({ port, t, corner }) =>
      port.checks
        .filter(({ kind }) => kinds.includes(kind))
        .map((check) => ({
          what: say(what(port, check, check.with.startsWith('edge') ? corner('an edge') : check.with), {
            have: { value: Math.max(0, check.have_m), role: FINE.has(check.kind) ? 'thickness' : 'tape' },
            over: { value: Math.max(0, -check.have_m), role: 'tape' },
            want: { value: check.want_m, role: FINE.has(check.kind) ? 'thickness' : 'tape' },
          }),
          path: holePath(t, port),
        })),
    );

const COMMON = { source: 'common practice', status: 'common practice' } as const;
const GEOMETRY = { source: 'geometry of the parts on the sheet', status: 'derived' } as const;

const rule = (
  id: string,
  title: string,
  severity: Severity,
  test: Rule['test'],
  why: string,
  mend: string,
  source: { readonly source: string; readonly status: Rule['status'] },
): Rule => ({ id, title, stage: 'ports', severity, needs: ['sheets'], test, why, mend, ...source });

/** A can or a bottle has fewer ports than this, and wants no spare. */
const SPARE_FROM = 4;

const overlaps = ({ have_m }: SheetCheck): boolean => have_m < 0;

export const PORT_RULES: readonly Rule[] = [
  rule(
    'port.off-sheet',
    'A part hangs over the edge of its face',
    'stop',
    checksOf(['off-sheet'], (port, check) =>
      overlaps(check) ? `${port.name} hangs {over} over the edge of its face.` : `${port.name} lies on no flat face.`,
    ),
    'There is no metal under it to weld or seal to.',
    'Move it in, or take a smaller part.',
    GEOMETRY,
  ),
  rule(
    'port.neighbour',
    'Two parts want the same place',
    'stop',
    checksOf(
      ['neighbour', 'inside-neighbour'],
      (port, check) =>
        `${port.name} and ${check.with} ${overlaps(check) ? 'overlap by {over}' : 'stand {have} apart, and want {want}'}${check.kind === 'inside-neighbour' ? ' under the sheet' : ''}.`,
    ),
    'The second cannot be welded, seated or turned once the first is in.',
    'Move one of them, or take smaller parts.',
    GEOMETRY,
  ),
  rule(
    'port.hose-end',
    'A hose end runs into its neighbour',
    'warn',
    checksOf(
      ['hose-end'],
      (port, check) =>
        `What stands on ${port.name} ${check.have_m <= 0 ? 'runs into' : 'comes within {have} of'} ${check.with}.`,
    ),
    'The hose kinks or chafes, or cannot be pushed on at all.',
    'Turn one hose end another way, or move the port.',
    GEOMETRY,
  ),
  rule(
    'port.near-bend',
    'A hole too near a bend',
    'warn',
    checksOf(
      ['bend', 'edge'],
      (port, check, where) => `${port.name} has {have} of metal to ${where}; {want} are wanted.`,
    ),
    'A hole beside a bend is pulled out of round when the sheet is folded, and its part no longer sits flat.',
    'Move it in, or cut it after folding.',
    COMMON,
  ),
  rule(
    'port.near-seam',
    'Two welds too near each other',
    'warn',
    checksOf(
      ['seam'],
      (port, check, where) => `The weld of ${port.name} lies {have} from ${where}; {want} are wanted.`,
    ),
    'The heat of the second weld opens the first, and the torch has no room between.',
    'Move it in, or use a part with a nut or screws.',
    COMMON,
  ),
  rule(
    'port.over-baffle',
    'A part over a baffle',
    'stop',
    checksOf(
      ['baffle'],
      (port, check) =>
        `${port.name} ${overlaps(check) ? 'cuts into' : 'comes within {have} of'} ${check.with} under the sheet.`,
    ),
    'The drill runs into the plate, and the part does not go in.',
    'Move the port or the baffle, or open a notch in the plate.',
    GEOMETRY,
  ),
  rule(
    'port.fouls-inside',
    'A part fouls a wall inside',
    'stop',
    checksOf(['inside'], (port, check) => `What is under the sheet at ${port.name} runs {over} into ${check.with}.`),
    'A nut that stands in a recess cannot be turned, and does not lie flat.',
    'Move it away from the wall, or take a part with less below.',
    GEOMETRY,
  ),
  rule(
    'port.fouls-outside',
    'A part fouls the tank outside',
    'stop',
    checksOf(['outside'], (port, check) => `What stands on ${port.name} runs {over} into ${check.with}.`),
    'It cannot be put on, or no tool gets round it.',
    'Move it away from the wall that rises beside it.',
    GEOMETRY,
  ),
  rule(
    'port.not-flat',
    'The seal does not lie flat',
    'warn',
    checksOf(
      ['not-flat'],
      (port, check) => `Under ${port.name} the wall is {have} out of flat; ${check.with} takes up {want}.`,
    ),
    'A washer or gasket that touches on two sides only seeps on the other two.',
    'Weld on a flat boss or ring, or use a part that is welded in. Try it on an offcut, left full of water, first.',
    GEOMETRY,
  ),
  rule(
    'port.too-thick',
    'The sheet is too thick for the part',
    'warn',
    checksOf(['too-thick'], (port, check) => `The sheet is {have} thick at ${port.name}; ${check.with} takes {want}.`),
    'The nut does not come far enough on to its thread.',
    'Take a longer one, or thin the sheet round the hole.',
    COMMON,
  ),
  rule(
    'port.few-turns',
    'Too few turns of thread in the wall',
    'warn',
    checksOf(
      ['few-turns'],
      (port, check) => `The wall gives ${port.name} ${check.with}, {have} of thread; {want} are wanted.`,
    ),
    'A thread of a turn or two strips, and its sealant has nothing to fill.',
    'Weld in a bung, or take a bulkhead fitting with a nut.',
    COMMON,
  ),
  rule(
    'port.off-plate',
    'A spigot beside its plate',
    'warn',
    ({ system }) =>
      system.tanks.flatMap((tank, t) =>
        tank.ports.flatMap((port, p): Hit[] => {
          const carrier = tank.ports.find(({ id }) => id === port.on);
          if (!carrier) return [];
          const plate = holeOf_m(carrier);
          const apart = Math.hypot(
            ...(['x_m', 'y_m', 'z_m'] as const).map((axis) => (port[axis]?.value ?? 0) - (carrier[axis]?.value ?? 0)),
          );
          return when(apart + port.bore_m.value / 2 > plate / 2, () => ({
            what: say(
              `${port.name} stands {apart} from the middle of ${carrier.name}, whose opening is {plate} wide: it does not come out inside.`,
              { apart: { value: apart, role: 'tape' }, plate: { value: plate, role: 'tape' } },
            ),
            path: ['tanks', t, 'ports', p, 'on'],
          }));
        }),
      ),
    'What hangs from a spigot goes through the opening under its plate, or not at all.',
    'Move it in, or give it a port of its own.',
    GEOMETRY,
  ),
  rule(
    'port.no-spare',
    'No spare port',
    'note',
    ({ system, evaluation }) =>
      system.tanks.flatMap((tank, t): Hit[] =>
        when(
          evaluation.sheets?.ok === true &&
            system.consumers.length > 0 &&
            tank.pickups.length > 0 &&
            tank.ports.length >= SPARE_FROM &&
            !tank.ports.some(({ role }) => role === 'spare'),
          () => ({
            what: say(`${tank.name} has no plugged spare for a later feed or return.`),
            path: ['tanks', t, 'ports'],
          }),
        ),
      ),
    'A heater, a second tank or a return is added to most vehicles sooner or later, and then the tank has held fuel.',
    'Weld in a plugged bung beside the feed while the tank is open.',
    COMMON,
  ),
  {
    ...rule(
      'port.new-beside-existing',
      'A new hole beside one that is there',
      'note',
      ({ system }) =>
        system.tanks.flatMap((tank, t): Hit[] => {
          const free = tank.ports.find(({ role, existing }) => role === 'spare' && existing === true);
          return system.practice.ports !== 'existing' || !free
            ? []
            : tank.ports.flatMap((port, p) =>
                when(port.existing !== true && BY_A_SPARE.has(port.role), () => ({
                  what: say(`${port.name} is to be cut, while ${free.name} is there and unused.`),
                  path: ['tanks', t, 'ports', p],
                })),
              );
        }),
      'Each hole that is not cut is a leak that cannot come.',
      'Use the port that is there, or choose new ports under Practice.',
      COMMON,
    ),
    needs: [],
  },
];

/** What can be led through a spare that is there. */
const BY_A_SPARE: ReadonlySet<string> = new Set(['feed', 'return', 'vent']);
