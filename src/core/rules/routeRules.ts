import { from, lineAt } from './lineParts';
import { say, when, type Hit, type Rule } from './rule';

export const ROUTE_RULES: readonly Rule[] = [
  {
    id: 'line.bend-too-tight',
    title: 'Bend tighter than the line allows',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route): Hit[] =>
        when(route.tooTight, () => ({
          what: say(`${route.name} is bent to {bend}; ${route.stock.name} wants {least}.`, {
            bend: { value: route.bend_m!, role: 'tape' },
            least: { value: route.leastBend_m, role: 'tape' },
          }),
          path: [...lineAt(context, route.line), 'bend_m'],
        })),
      ),
    why: 'Hose kinks and shuts, tube flattens and cracks.',
    mend: 'A wider bend, or an elbow or swivel at the end instead.',
    source: 'bends in the table of lines',
    status: 'from memory',
  },
  {
    id: 'line.held-too-far',
    title: 'Line held too far apart',
    stage: 'lines',
    severity: 'note',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route): Hit[] =>
        when(route.heldTooFar, () => ({
          what: say(`${route.name} is held every {held}; every {most} is wanted.`, {
            held: { value: route.held_m!, role: 'run' },
            most: { value: route.mostApart_m, role: 'run' },
          }),
          path: [...lineAt(context, route.line), 'held_m'],
        })),
      ),
    why: 'It swings, chafes and works its joints loose.',
    mend: 'More brackets with rubber between, none of them cable ties.',
    source: 'spacing of holders in the table of lines',
    status: 'common practice',
  },
  {
    id: 'line.no-grommet',
    title: 'No room for a grommet',
    stage: 'lines',
    severity: 'warn',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route) =>
        route.passes
          .filter(({ state }) => state !== 'fits')
          .map((pass) => ({
            what:
              pass.state === 'line-too-wide' || pass.wants_m === undefined
                ? say(`${route.name} does not go through the hole of {hole} in ${pass.name}.`, {
                    hole: { value: pass.hole_m, role: 'bore' },
                  })
                : say(
                    `${route.name} goes bare through ${pass.name}: its grommet wants a hole of {wants}, not {hole}.`,
                    { wants: { value: pass.wants_m, role: 'bore' }, hole: { value: pass.hole_m, role: 'bore' } },
                  ),
            path: [...lineAt(context, route.line), 'passes'],
          })),
      ),
    why: 'The edge of the sheet saws through it.',
    mend: 'Open the hole to the grommet’s size, or use a bulkhead fitting.',
    source: 'table of grommets',
    status: 'common practice',
  },
  {
    id: 'line.rigid-but-moves',
    title: 'Hard line between moving ends',
    stage: 'lines',
    severity: 'stop',
    needs: ['lines'],
    test: (context) =>
      from(context, ({ routes }) => routes).flatMap((route): Hit[] =>
        when(route.rigidButFlexes, () => ({
          what: say(`${route.name} is hard and its ends move against each other.`),
          path: [...lineAt(context, route.line), 'flexes'],
        })),
      ),
    why: 'An engine on its mounts breaks a hard line at its flare in days.',
    mend: 'A piece of hose between, with slack for the movement.',
    source: 'common practice',
    status: 'common practice',
  },
];
