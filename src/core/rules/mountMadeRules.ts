import { STRAP_SPAN_M } from '../answers';
import { meshBounds, placedBack, type Vec3 } from '../geometry';
import { derived } from '../memo';
import { outerMesh, placeOf, pointOf } from '../model/compileFit';
import { FACE_OF_SIDE } from '../model/axes';
import { RUN_AXIS } from '../model/compileMounts';
import type { MountDocument, Plan, TankDocument } from '../plan/schema';
import { ALLOYS } from '../reference/alloys';
import { BOLTS } from '../reference/bolts';
import { AXES } from '../shapes';
import { say, type Hit, type MountRuleContext, type Rule as AnyRule } from './rule';

type Rule = AnyRule<MountRuleContext>;

const pathOf = (mount: number): (string | number)[] => ['mounts', mount];
/** A hit for the mounts of a tank that a test has something to say of: what it says of the first, and how many more. */
const mountsThat =
  (test: (mount: MountDocument, system: Plan) => Omit<Hit, 'path'> | undefined) =>
  ({ system }: MountRuleContext): Hit[] => {
    const hits = system.mounts.flatMap((mount, m) => {
      const hit = test(mount, system);
      return hit ? [{ ...hit, mount, path: pathOf(m) }] : [];
    });
    return system.tanks.flatMap(({ id }): Hit[] => {
      const [first, ...more] = hits.filter(({ mount }) => mount.tank === id);
      if (!first) return [];
      const { mount: _, what, ...rest } = first;
      if (more.length === 0) return [{ ...rest, what }];
      const others = more.map(({ mount }) => mount.name).join(', ');
      return [{ ...rest, what: say(`${what.text} So it is with ${others}.`, what.values) }];
    });
  };
const boltsOf = (mount: MountDocument) => (mount.made && 'bolts' in mount.made ? mount.made.bolts : undefined);
/** Where a mount is in its tank's axes. */
const inTank = (tank: TankDocument, mount: MountDocument): Vec3 => placedBack(placeOf(tank.mounting), pointOf(mount));
const AXIS_KEYS = ['x_m', 'y_m', 'z_m'] as const;
const tankOf = (system: Plan, mount: MountDocument) => system.tanks.find(({ id }) => id === mount.tank)!;

const COMMON = { source: 'common practice', status: 'common practice' } as const;

/** What is told of mounts by how they are made and where they are, whatever throws them. */
export const MADE_RULES: readonly Rule[] = [
  {
    id: 'mount.strap-span',
    title: 'Too few straps',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said'],
    test: ({ system }) =>
      system.tanks.flatMap((tank): Hit[] => {
        const straps = system.mounts.flatMap((mount, m) =>
          mount.tank === tank.id && mount.kind === 'strap' && mount.made?.runs === 'across' ? [{ mount, m }] : [],
        );
        const others = system.mounts.some(
          ({ tank: id, kind }) => id === tank.id && (kind === 'tab' || kind === 'flange'),
        );
        if (straps.length === 0 || others) return [];
        const at = straps.map(({ mount }) => inTank(tank, mount)[0]).sort((a, b) => a - b);
        const gap = Math.max(...at.map((x, i) => (i === 0 ? 0 : x - at[i - 1]!)));
        if (straps.length > 1 && gap <= STRAP_SPAN_M) return [];
        return [
          {
            what:
              straps.length === 1
                ? say(`One strap holds ${tank.name}: when it breaks nothing does.`, {})
                : say(`Two straps of ${tank.name} are {gap} apart.`, { gap: { value: gap, role: 'tape' } }),
            path: pathOf(straps[0]!.m),
          },
        ];
      }),
    why: 'Between straps the tank works, and what is held by one strap is held by one bolt.',
    mend: 'Take two straps at least, a fifth of the length in from each end, and one more where they stand further apart than a forearm and a half.',
    ...COMMON,
  },
  {
    id: 'mount.bare',
    title: 'Metal on metal without a pad',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said'],
    test: mountsThat((mount, system) => {
      const { made } = mount;
      if (!made || !('pad' in made) || made.pad.of !== 'none' || !('stock' in made)) return undefined;
      if (mount.kind === 'tab' || made.stock === 'polyester-web') return undefined;
      const tank = tankOf(system, mount);
      const steelOnAluminium = made.stock === 'mild-steel' && tank.material.alloy.startsWith('al-');
      return {
        what: say(
          steelOnAluminium
            ? `${mount.name} is steel on the aluminium of ${tank.name}, with nothing between: wet, the aluminium is eaten.`
            : `Nothing lies between ${mount.name} and ${tank.name}: it chafes.`,
          {},
        ),
      };
    }),
    why: 'A strap that rubs wears a groove, and two metals in salt water are a battery: the tank leaks where nobody sees it.',
    mend: 'Put a strip of rubber or neoprene between, glued so that it stays and holds no water against the tank.',
    ...COMMON,
  },
  {
    id: 'mount.over-port',
    title: 'A strap over a port',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said'],
    test: mountsThat((mount, system) => {
      if (mount.kind !== 'strap' || !mount.made) return undefined;
      const tank = tankOf(system, mount);
      // Ports of faces that it does not run over have no place along the axis that it runs across.
      const axis = RUN_AXIS[mount.made.runs];
      const at = inTank(tank, mount)[axis];
      const under = tank.ports.find((port) => {
        const where = port[AXIS_KEYS[axis]]?.value;
        if (where === undefined || port.on !== undefined) return false;
        if (FACE_OF_SIDE[mount.made!.side] === port.face) return false;
        return Math.abs(where - at) < (mount.made!.width_m.value + port.bore_m.value) / 2;
      });
      return under && { what: say(`${mount.name} runs over ${under.name} of ${tank.name}.`, {}) };
    }),
    why: 'A strap that bears on a bung or its weld cracks it, and the fitting cannot be reached.',
    mend: 'Move the strap or the port.',
    ...COMMON,
  },
  {
    id: 'mount.over-seam',
    title: 'A strap on a seam',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said'],
    test: mountsThat((mount, system) => {
      if (mount.kind !== 'strap' || !mount.made) return undefined;
      const tank = tankOf(system, mount);
      const axis = RUN_AXIS[mount.made.runs];
      const at = inTank(tank, mount)[axis];
      const reach = mount.made.width_m.value / 2 + BEAD_M;
      const seam = seamsAlong(tank, axis).find(({ at_m }) => Math.abs(at_m - at) < reach);
      return seam && { what: say(`${mount.name} lies on ${seam.of} of ${tank.name}.`, {}) };
    }),
    why: 'A strap that bears on a bead rocks on it, and cracks the softest metal of the tank.',
    mend: 'Move it in from the end, or off the joint, by its own width.',
    ...COMMON,
  },
  {
    id: 'mount.edge',
    title: 'A bolt too near to an edge',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said'],
    test: mountsThat((mount) => {
      const bolts = boltsOf(mount);
      if (!bolts) return undefined;
      const least = EDGE_HOLES * BOLTS[bolts.size].hole_m;
      return bolts.edge_m.value < least - 1e-6
        ? {
            what: say(`The bolts of ${mount.name} stand {edge} from an edge; {least} is the least.`, {
              edge: { value: bolts.edge_m.value, role: 'tape' },
              least: { value: least, role: 'tape' },
            }),
          }
        : undefined;
    }),
    why: 'The metal before a bolt tears out long before the bolt shears.',
    mend: 'Move the hole in by one and a half of its diameters, or more.',
    source: 'EN 1993-1-8 table 3.3 wants 1.2 holes, AISC about 1.5; from memory',
    status: 'from memory',
  },
  {
    id: 'mount.through-wall',
    title: 'Bolted through the tank',
    stage: 'mounts',
    severity: 'stop',
    needs: ['mounts-there', 'mounts-said'],
    test: mountsThat((mount, system) =>
      mount.kind === 'tab' && mount.made && !mount.made.weld
        ? {
            what: say(
              ALLOYS[tankOf(system, mount).material.alloy].isMetal
                ? `${mount.name} has no weld: bolted to the wall of ${tankOf(system, mount).name}, each bolt is a hole in it.`
                : `${mount.name} is fastened to the wall of ${tankOf(system, mount).name} by nothing that is said.`,
              {},
            ),
          }
        : undefined,
    ),
    why: 'A bolt through a fuel tank’s wall leaks as soon as it works, and cracks run from its hole.',
    mend: 'Weld the tab on before the tank is closed, or hold the tank by straps or a cradle.',
    ...COMMON,
  },
  {
    id: 'mount.tab-on-thin',
    title: 'A stiff tab on thin sheet',
    stage: 'mounts',
    severity: 'note',
    needs: ['mounts-there', 'mounts-said'],
    test: mountsThat((mount, system) => {
      if (mount.kind !== 'tab' || !mount.made?.weld) return undefined;
      const wall = tankOf(system, mount).material.thickness_m.value;
      const tab = mount.made.thickness_m.value;
      return tab > STIFF_RATIO * wall
        ? {
            what: say(`${mount.name} is {tab} thick on a wall of {wall}.`, {
              tab: { value: tab, role: 'thickness' },
              wall: { value: wall, role: 'thickness' },
            }),
          }
        : undefined;
    }),
    why: 'The wall bends at the end of its weld with each shock, and cracks there first.',
    mend: 'Weld a plate of the wall’s own sheet between, round at its corners and larger than the tab, or put the tab on a corner of the tank.',
    ...COMMON,
  },
  {
    id: 'mount.cradle-loose',
    title: 'What it stands on is not fastened',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said'],
    test: mountsThat((mount) =>
      mount.kind === 'cradle' && mount.made && !mount.made.bolts
        ? { what: say(`Nothing fastens ${mount.name}: it goes where the tank goes.`, {}) }
        : undefined,
    ),
    why: 'A lip or a rough pad holds the tank to its cradle, and nothing holds the cradle.',
    mend: 'Bolt or weld it down, with two bolts at least.',
    ...COMMON,
  },
];
/** A weld’s bead, and what is soft beside it [m]. @source common practice */
const BEAD_M = 0.01;

/** Asked for each strap, and with each value whose spread is told. */
const boundsOf = derived((tank: TankDocument) => {
  const outer = outerMesh(tank);
  return outer.ok ? meshBounds(outer.value) : undefined;
});

/** Where seams run round a tank square to an axis: at its ends, and where a band was taken out. */
function seamsAlong(tank: TankDocument, axis: 0 | 1 | 2): { readonly of: string; readonly at_m: number }[] {
  const bounds = boundsOf(tank);
  if (!bounds || !isWelded(tank)) return [];
  const { min, max } = bounds;
  return [
    { of: 'the seam at the end', at_m: min[axis] },
    { of: 'the seam at the end', at_m: max[axis] },
    ...tank.slices
      .filter((slice) => slice.axis === AXES[axis])
      .map(({ name, at_m }) => ({ of: `the joint of ${name}`, at_m: at_m.value })),
  ];
}
/** What is moulded or glued has no bead. */
const isWelded = ({ material }: TankDocument): boolean => ALLOYS[material.alloy].isMetal;

/** Holes from a bolt’s middle to the edge, at least. */
const EDGE_HOLES = 1.5;
/** A tab this many times as thick as the wall is stiff on it. */
const STIFF_RATIO = 2;
