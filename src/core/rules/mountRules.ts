import {
  GOES_WORDS,
  shakingOf,
  SHOCK_CASES,
  SWING_WORDS,
  unheldOf,
  weakest,
  type Goes,
  type MountPart,
  type MountsOf,
  type ShockCase,
} from '../answers';
import type { MountSide } from '../model/compileMounts';
import { sideText } from '../plan/sides';
import { LEAK_TEST } from '../reference/leakTest';
import { say, type Hit, type MountRuleContext, type Rule as AnyRule } from './rule';

type Rule = AnyRule<MountRuleContext>;

/** What each case is, said after "when". */
export const CASE_WORDS: Readonly<Record<ShockCase, string>> = {
  rest: 'it stands still',
  fore: 'it is thrown forward',
  aft: 'it is thrown aft',
  port: 'it is thrown to port',
  starboard: 'it is thrown to starboard',
  up: 'it is thrown up',
  down: 'it is pressed down',
};
/** What each part of a mount is called, and how it gives. */
export const PART_WORDS: Readonly<Record<MountPart, string>> = {
  strap: 'the strap stretches for good',
  bolt: 'a bolt gives',
  thread: 'a bolt’s thread pulls out',
  washer: 'a washer pulls through',
  'bolt-hole': 'a bolt’s hole tears in what it stands on',
  'own-hole': 'its own bolt hole tears',
  arm: 'it bends',
  weld: 'its weld breaks',
  'tank-wall': 'the tank’s wall is bent in',
  pad: 'its pad is pressed flat',
};

const END_WORDS: Readonly<Record<MountSide, string>> = {
  fore: 'fore end',
  aft: 'aft end',
  port: 'port side',
  starboard: 'starboard side',
  up: 'lid',
  down: 'floor',
};

const shellsOf = ({ evaluation: { mounts } }: MountRuleContext): readonly MountsOf[] =>
  mounts?.ok ? mounts.value.shells : [];
const pathOf = (mount: number): (string | number)[] => ['mounts', mount];
/** The first mount of a shell, where one is led for what is of all of them. */
const firstOf = (shell: MountsOf): (string | number)[] =>
  shell.mounts[0] === undefined ? ['mounts'] : pathOf(shell.mounts[0]);

const SLIDES: ReadonlySet<Goes> = new Set(['fore', 'aft', 'port', 'starboard', 'up']);

const STATICS = 'statics of a rigid body on supports that push or pull, with friction';
const COMMON = { source: 'common practice', status: 'common practice' } as const;

export const MOUNT_RULES: readonly Rule[] = [
  {
    id: 'mount.not-held',
    title: 'Nothing holds it',
    stage: 'mounts',
    severity: 'stop',
    needs: ['mounts-there', 'mounts-said', 'mounts-solved'],
    test: (context) =>
      shellsOf(context).flatMap((shell) => {
        const loose = SHOCK_CASES.flatMap((shock) => {
          const held = shell.cases[shock];
          return held.held === false ? [{ shock, goes: held.goes }] : [];
        });
        if (loose.length === 0) return [];
        const words = loose.map(({ shock, goes }) => `when ${CASE_WORDS[shock]} it ${GOES_WORDS[goes]}`).join('; ');
        return [
          {
            what: say(
              sideText(context.system.vehicle.kind, `Filled to its limit ${shell.name} is not held: ${words}.`),
              {},
            ),
            path: firstOf(shell),
          },
        ];
      }),
    why: 'A tank that comes loose tears its lines and crushes what is before it.',
    mend: 'Give it a stop or a lip on that side, a strap that pulls it down, or tabs that hold both ways.',
    source: STATICS,
    status: 'derived',
  },
  {
    id: 'mount.too-weak',
    title: 'The weakest part of what holds it',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said', 'mounts-solved', 'mount-parts'],
    test: (context) =>
      shellsOf(context).flatMap((shell): Hit[] => {
        const { mounts } = context.evaluation;
        const needed = mounts?.ok ? mounts.value.needed : 1;
        const first = weakest(shell);
        if (!first || first.factor! >= needed) return [];
        const { name } = context.system.mounts[first.mount]!;
        return [
          {
            what: say(
              sideText(
                context.system.vehicle.kind,
                `At ${name} ${PART_WORDS[first.part]} first: asked {asked} when ${CASE_WORDS[first.shock]}, it bears {bears}. That is {factor} times, where {needed} is wanted.`,
              ),
              {
                asked: { value: first.demand_N, role: 'force' },
                bears: { value: first.capacity_N!, role: 'force' },
                factor: { value: first.factor!, role: 'count' },
                needed: { value: needed, role: 'count' },
              },
            ),
            path: pathOf(first.mount),
            ...(first.factor! < 1 ? { severity: 'stop' as const } : {}),
          },
        ];
      }),
    why: 'What gives first lets go of all the rest. Shocks come by the million, and loads are guessed.',
    mend: 'Take the cheapest change that Mounts & weight offers, or set the shocks to what this vehicle really gives.',
    source: STATICS + '; strength of each part by the standard named in its table',
    status: 'derived',
  },
  {
    id: 'mount.shaken',
    title: 'It swings by itself as fast as it is shaken',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said', 'mounts-solved', 'mount-swings'],
    test: (context) =>
      shellsOf(context).flatMap((shell): Hit[] => {
        if (!shell.swings.ok) return [];
        const { kind } = context.system.vehicle;
        const free = unheldOf(shell.swings.value);
        if (free)
          return [
            {
              what: say(
                sideText(
                  kind,
                  `${shell.name} swings ${SWING_WORDS[free.way]} as it is shaken: nothing that presses on it at rest holds it that way.`,
                ),
                {},
              ),
              path: firstOf(shell),
            },
          ];
        // An engine’s speeds are many: what is bolted down meets some of them always.
        const found = shakingOf(kind, shell.swings.value).find(
          ({ by, meets }) => by.from === 'way' && meets.length > 0,
        );
        const first = found?.meets[0];
        if (!found || !first) return [];
        return [
          {
            what: say(
              sideText(
                kind,
                `${first.isFull ? 'Full' : 'Empty'}, ${shell.name} swings ${SWING_WORDS[first.swing.way]} by itself {swings} times a second; ${found.by.by} shake it {from} to {to} times.`,
              ),
              {
                swings: { value: first.swing.frequency_Hz, role: 'count' },
                from: { value: found.by.from_Hz, role: 'count' },
                to: { value: found.by.to_Hz, role: 'count' },
              },
            ),
            path: firstOf(shell),
          },
        ];
      }),
    why: 'What is shaken as fast as it swings by itself builds it up, until a weld or a strap cracks.',
    mend: 'Stiffer: a thinner or harder pad, a strap more, a stop on that side; or a good deal softer all round.',
    source: 'natural frequencies of a rigid body on its mounts; what shakes it by its table',
    status: 'common practice',
  },
  {
    id: 'mount.liquid-presses',
    title: 'Its liquid presses harder than a leak test',
    stage: 'mounts',
    severity: 'note',
    needs: ['mounts-pressed'],
    test: (context) =>
      shellsOf(context).flatMap(({ pressed, tanks }) =>
        pressed.flatMap((one, i): Hit[] => {
          const t = tanks[i]!;
          const worst = [...(one?.sides ?? [])].sort((a, b) => b.peak_Pa - a.peak_Pa)[0];
          if (!worst || worst.peak_Pa <= LEAK_TEST.air_Pa) return [];
          return [
            {
              what: say(
                sideText(
                  context.system.vehicle.kind,
                  `When ${CASE_WORDS[worst.shock]} the liquid of ${context.system.tanks[t]!.name} presses its ${END_WORDS[worst.side]} with {peak}; a leak test puts {test} on it.`,
                ),
                {
                  peak: { value: worst.peak_Pa, role: 'pressure' },
                  test: { value: LEAK_TEST.air_Pa, role: 'pressure' },
                },
              ),
              path: ['tanks', t, 'material', 'thickness_m'],
            },
          ];
        }),
      ),
    why: 'What no test has shown it bears, the first hard stop tries: seams at the ends crack.',
    mend: 'Thicker ends, a bead or a stiffener across them, baffles welded all round, or a shorter tank that way.',
    source: 'hydrostatics under the gravity that is felt; leak test: common practice',
    status: 'common practice',
  },
  {
    id: 'mount.creeps',
    title: 'Only friction keeps it in its place',
    stage: 'mounts',
    severity: 'warn',
    needs: ['mounts-there', 'mounts-said', 'mounts-solved'],
    test: (context) =>
      shellsOf(context).flatMap((shell) => {
        const directions = new Set(
          SHOCK_CASES.flatMap((shock) => {
            const held = shell.cases[shock];
            return held.held === true && held.creeps !== undefined && SLIDES.has(held.creeps) ? [held.creeps] : [];
          }),
        );
        if (directions.size === 0) return [];
        const words = [...directions]
          .map((way) => GOES_WORDS[way].replace('slides', 'slide').replace('lifts', 'lift'))
          .join(', ');
        return [
          {
            what: say(
              sideText(
                context.system.vehicle.kind,
                `${shell.name} would ${words} if nothing rubbed: shaken for years it does.`,
              ),
              {},
            ),
            path: firstOf(shell),
          },
        ];
      }),
    why: 'A tank that is only pressed down walks out from under its straps, and chafes as it goes.',
    mend: 'Put a stop, a lip or a tab on that side.',
    ...COMMON,
  },
  {
    id: 'mount.astray',
    title: 'A mount that is not at the tank',
    stage: 'mounts',
    severity: 'stop',
    needs: ['mounts-solved'],
    test: (context) =>
      shellsOf(context).flatMap(({ astray }) =>
        astray.map(({ mount, why }) => ({
          what: say(`${context.system.mounts[mount]!.name} holds nothing: ${why}.`, {}),
          path: pathOf(mount),
        })),
      ),
    why: 'It is counted for nothing, and what it was to bear the others bear.',
    mend: 'Move it to the tank, or turn it to the side that it is meant for.',
    source: 'geometry of the tank as mounted',
    status: 'derived',
  },
  {
    id: 'mount.not-said',
    title: 'What the mounts must bear',
    stage: 'mounts',
    severity: 'note',
    needs: ['mounts-there'],
    test: (context) =>
      shellsOf(context).flatMap((shell) =>
        shell.undescribed.length === 0
          ? []
          : [
              {
                what: say(
                  `Filled to its limit ${shell.name} weighs {mass}; how ${shell.undescribed.map((m) => context.system.mounts[m]!.name).join(', ')} ${shell.undescribed.length === 1 ? 'is' : 'are'} made is not said, and what ${shell.undescribed.length === 1 ? 'it bears' : 'they bear'} not judged.`,
                  { mass: { value: shell.load.mass_kg, role: 'mass' } },
                ),
                path: pathOf(shell.undescribed[0]!),
              },
            ],
      ),
    why: 'A tank that tears loose tears its lines too. Shocks off the road or a wave are several times what braking does.',
    mend: 'Say how it is made, or have the mounts sized by someone who does so for a living where people ride with the tank.',
    ...COMMON,
  },
];
