'use client';

import { Box, chakra } from '@chakra-ui/react';
import { HEEL_SHOWS_RAD, TRIM_SHOWS_RAD, MAIN_WAYS, MOVED_M, type Stands } from '@/core/answers';
import { withTankMoved, type StanceDocument, type SystemDocument } from '@/core/plan';
import type { Vec3 } from '@/core/geometry';
import { formatQuantity, type Role } from '@/core/units';
import type { GripProps } from '../drawing/DrawingView';
import { dragging } from '../drawing/grips';
import { onTape, stepsNow } from '../drawing/tapeSteps';
import { Drawn } from '../fit/FitViews';
import { Beside } from '../parts/Beside';
import { Button } from '../parts/Button';
import { cardTable } from '../parts/cardTable';
import { Caution } from '../parts/Caution';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { useAnswer, useOutcome } from '../state/answers';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';
import { fillHead } from './fillHead';
import { newStance } from './newStance';
import { StanceFields } from './StanceFields';

/** What the tanks do to the axles, or to how the boat lies, and where they would stand better. */
export function WeightTask() {
  const system = useSystem();
  const { stance } = system;
  if (!stance || !(stance.hull || (stance.axles ?? []).length > 0)) return <Ask />;
  return (
    <Beside
      picture={
        <>
          <Results stance={stance} />
          <Picture stance={stance} />
        </>
      }
    >
      <StanceFields stance={stance} />
    </Beside>
  );
}

function Ask() {
  const system = useSystem();
  const isBoat = system.vehicle.kind === 'boat';
  return (
    <Panel title="What it stands on" testId="stance">
      <Box maxW="70ch" mb="3">
        {isBoat
          ? 'With her displacement, how steady she is and her breadth along the waterline, Gas Line works out how the full, half full and empty tanks trim and list her.'
          : 'With what each axle bears and where it is, Gas Line works out what the full, half full and empty tanks put on each axle and side, and on the coupling.'}
      </Box>
      <Box display="flex" gap="2" flexWrap="wrap">
        {(isBoat ? (['hull', 'axles'] as const) : (['axles', 'hull'] as const)).map((on) => (
          <Button key={on} onClick={() => setValue('what it stands on', ['stance'], newStance(system, on))}>
            {on === 'hull' ? 'Say how she floats' : 'Say what its axles bear'}
          </Button>
        ))}
      </Box>
    </Panel>
  );
}

function Results({ stance }: { readonly stance: StanceDocument }) {
  const { value: stands, standing, reason } = useAnswer('stands');
  return (
    <Panel title="What the tanks do" testId="stands">
      {stands?.ok ? (
        <Box opacity={standing === 'fresh' ? 1 : 0.6} data-fresh={standing === 'fresh'}>
          <Headline stance={stance} stands={stands.value} />
          {(stance.axles ?? []).length > 0 && <OnAxles stance={stance} stands={stands.value} />}
          {stance.hull && <Lies stands={stands.value} />}
          <Elsewhere stance={stance} stands={stands.value} />
          <Box color="soft" mt="3" maxW="75ch">
            Tanks and what is in them alone: fittings, mounts, lines and people are not counted.
            {(stance.axles ?? []).length > 0 && ' Standing level; braking and slopes put more on one end.'}
            {stance.hull && ' Small leans of sides that are upright at the waterline.'}
          </Box>
        </Box>
      ) : reason !== undefined || stands ? (
        <NotWorkedOut why={reason ?? (stands && !stands.ok ? stands.error.detail : '')} />
      ) : (
        <Box color="soft">Working out what it stands on…</Box>
      )}
    </Panel>
  );
}

/** What it comes to, in a line: what of what it may bear is borne at most; how she lies, full. */
function Headline({ stance, stands }: { readonly stance: StanceDocument; readonly stands: Stands }) {
  const system = useSystem();
  const sides = useSides();
  const write = useWrite();
  const said = headlineOf(system, stance, stands, write);
  return (
    <>
      {said.map(({ text, tone, more }) => (
        <Box key={text} mb="3" data-testid="stand-verdict">
          <Box fontSize="2xl" fontWeight="750" color={tone} lineHeight="1.2">
            {sides(text)}
          </Box>
          <Box>{more}</Box>
        </Box>
      ))}
    </>
  );
}

type Said = { readonly text: string; readonly tone: 'good' | 'warn' | 'stop'; readonly more?: string };

function headlineOf(
  system: SystemDocument,
  stance: StanceDocument,
  { cases }: Stands,
  write: (value: number, role: Role) => string,
): Said[] {
  const said: Said[] = [];
  const axles = stance.axles ?? [];
  if (axles.length > 0 && cases.every(({ wheels }) => wheels?.ok)) {
    const rated = [
      ...axles.map(({ name, rating_kg }, a) => ({ name, rating: rating_kg?.value, a })),
      ...(stance.hitch ? [{ name: 'Coupling', rating: stance.hitch.rating_kg?.value, a: -1 }] : []),
      { name: 'In all', rating: stance.rating_kg?.value, a: -2 },
    ];
    const loads = cases.flatMap((each) => {
      if (!each.wheels?.ok) return [];
      const { axles: on, hitch_kg, total_kg } = each.wheels.value;
      return rated.flatMap(({ name, rating, a }) => {
        const load = a === -2 ? total_kg : a === -1 ? hitch_kg! : on[a]!.load_kg;
        return rating === undefined ? [] : [{ name, each, load, rating }];
      });
    });
    const most = loads.reduce<(typeof loads)[number] | undefined>(
      (worst, one) => (worst && worst.load / worst.rating >= one.load / one.rating ? worst : one),
      undefined,
    );
    const unsaid = rated.filter(({ rating }) => rating === undefined).map(({ name }) => name.toLowerCase());
    const lifts = cases.some(({ wheels }) => wheels?.ok && wheels.value.lifts.length > 0);
    const more = unsaid.length > 0 ? `What may be borne is not said: ${unsaid.join(', ')}.` : undefined;
    if (lifts) said.push({ text: 'A wheel lifts off the ground', tone: 'stop' });
    else if (!most) said.push({ text: 'Not known whether it bears them', tone: 'warn', ...(more ? { more } : {}) });
    else
      said.push({
        text: `${most.name}: ${write(most.load, 'load')} of ${write(most.rating, 'load')}, ${fillHead(system, most.each).toLowerCase()}`,
        tone: most.load > most.rating ? 'stop' : unsaid.length > 0 ? 'warn' : 'good',
        ...(more ? { more } : {}),
      });
  }
  const full = cases.find(({ fill }) => fill === 'full')?.afloat;
  if (full?.ok) {
    const { portDown_rad, bowDown_rad, gm_m } = full.value;
    const list = isLevel(portDown_rad)
      ? 'lies upright'
      : `lists ${write(Math.abs(portDown_rad), 'slope')} to ${portDown_rad > 0 ? 'port' : 'starboard'}`;
    const trim = isLevel(bowDown_rad)
      ? 'trims level'
      : `trims ${write(Math.abs(bowDown_rad), 'slope')} by the ${bowDown_rad > 0 ? 'bow' : 'stern'}`;
    said.push({
      text: `Full she ${list} and ${trim}`,
      tone: Math.abs(portDown_rad) > HEEL_SHOWS_RAD || Math.abs(bowDown_rad) > TRIM_SHOWS_RAD ? 'warn' : 'good',
      more: `Against how she lay when she was weighed. ${write(gm_m, 'tape')} of metacentric height are left.`,
    });
  } else if (full) said.push({ text: 'How she lies full is not known', tone: 'stop', more: full.error.detail });
  return said;
}

type Cell = { readonly text: string; readonly tone?: 'stop' | 'warn' | 'good' };

function Table({
  label,
  heads,
  rows,
}: {
  readonly label: string;
  readonly heads: readonly string[];
  readonly rows: readonly { readonly head: string; readonly cells: readonly Cell[] }[];
}) {
  return (
    <Box overflowX="auto">
      <chakra.table borderCollapse="collapse" aria-label={label} minW="100%" css={cardTable(heads)}>
        <thead>
          <tr>
            {heads.map((text, i) => (
              <chakra.th key={i} px="2" textAlign={i === 0 ? 'left' : 'right'} color="soft" fontWeight="600">
                {text}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ head, cells }) => (
            <chakra.tr key={head} borderTopWidth="1px" borderColor="rule">
              <chakra.td px="2" py="1">
                {head}
              </chakra.td>
              {cells.map(({ text, tone }, i) => (
                <chakra.td
                  key={i}
                  px="2"
                  textAlign="right"
                  whiteSpace="nowrap"
                  fontWeight={tone ? 700 : undefined}
                  color={tone}
                >
                  {text}
                </chakra.td>
              ))}
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}

/** A quantity in the reader's words. */
function useWrite(): (value: number, role: Role) => string {
  const reader = useReader();
  return (value, role) => formatQuantity(value, role, { reader }).text;
}

function OnAxles({ stance, stands }: { readonly stance: StanceDocument; readonly stands: Stands }) {
  const system = useSystem();
  const sides = useSides();
  const write = useWrite();
  const axles = stance.axles ?? [];
  const failed = stands.cases.find(({ wheels }) => wheels && !wheels.ok)?.wheels;
  if (failed && !failed.ok) return <NotWorkedOut why={failed.error.detail} />;
  const part = (load: number, rating: number | undefined): Cell =>
    rating === undefined
      ? { text: write(load, 'load') }
      : {
          text: `${write(load, 'load')} of ${write(rating, 'load')}`,
          ...(load > rating ? { tone: 'stop' as const } : {}),
        };
  const heads = [
    '',
    ...axles.map(({ name }) => name),
    ...(stance.hitch ? ['Coupling'] : []),
    'In all',
    sides('On the port side'),
  ];
  const rows = stands.cases.flatMap((each) => {
    if (!each.wheels?.ok) return [];
    const { axles: loads, hitch_kg, total_kg, lifts } = each.wheels.value;
    const left_kg = loads.reduce((sum, { port_kg }) => sum + port_kg, 0);
    const onWheels = loads.reduce((sum, { load_kg }) => sum + load_kg, 0);
    // What would have to be held down is no load.
    if (lifts.length > 0)
      return [
        {
          head: fillHead(system, each),
          cells: heads
            .slice(1)
            .map((_, i) => ({
              text: lifts.includes(axles[i]?.name ?? '') ? 'a wheel lifts' : 'not known',
              tone: 'stop' as const,
            })),
        },
      ];
    return [
      {
        head: fillHead(system, each),
        cells: [
          ...loads.map(({ load_kg }, a) => part(load_kg, axles[a]!.rating_kg?.value)),
          ...(hitch_kg === undefined
            ? []
            : [
                hitch_kg < 0
                  ? { text: `pulled up by ${write(-hitch_kg, 'load')}`, tone: 'stop' as const }
                  : part(hitch_kg, stance.hitch?.rating_kg?.value),
              ]),
          part(total_kg, stance.rating_kg?.value),
          { text: write(left_kg / onWheels, 'share') },
        ],
      },
    ];
  });
  return (
    <>
      <Table label="What each axle bears" heads={heads} rows={rows} />
      <Tips stands={stands} />
    </>
  );
}

const WAY_HEADS: Readonly<Record<(typeof MAIN_WAYS)[number], string>> = {
  port: 'to port',
  starboard: 'to starboard',
  fore: 'over its fore end',
  aft: 'over its aft end',
};
const WAYS = ['port', 'starboard', 'fore', 'aft'] as const;

/** Leans at which the vehicle itself goes over. */
function Tips({ stands }: { readonly stands: Stands }) {
  const system = useSystem();
  const sides = useSides();
  const write = useWrite();
  const told = stands.cases.filter(({ tips }) => tips);
  if (told.length === 0) return null;
  const failed = told.find(({ tips }) => tips && !tips.ok)?.tips;
  return (
    <Box mt="3">
      <Box fontWeight="700" mb="1">
        Goes over at
      </Box>
      {failed && !failed.ok ? (
        <NotWorkedOut why={failed.error.detail} />
      ) : (
        <Table
          label="Lean at which the vehicle goes over"
          heads={['', ...WAYS.map((way) => sides(WAY_HEADS[way]))]}
          rows={told.map((each) => ({
            head: fillHead(system, each),
            cells: WAYS.map((way) => ({ text: each.tips?.ok ? write(each.tips.value[way], 'slope') : '' })),
          }))}
        />
      )}
      <Box color="soft" maxW="75ch">
        Standing still on stiff wheels, its liquid running to the low side. Springs, tyres, corners and holes tip it
        much sooner.
      </Box>
    </Box>
  );
}

function Lies({ stands }: { readonly stands: Stands }) {
  const system = useSystem();
  const write = useWrite();
  const { hull } = stands;
  const lean = (angle: number, [more, less]: readonly [string, string]): Cell => {
    const text = write(Math.abs(angle), 'slope');
    return isLevel(angle) ? { text: 'level' } : { text: `${text} ${angle > 0 ? more : less}` };
  };
  const length_m = hull ? hull.fore_m - hull.aft_m : 0;
  return (
    <Table
      label="How she lies"
      heads={['', 'Lists', 'Trims', 'Over her length', 'Deeper by', 'GM left']}
      rows={stands.cases.flatMap((each) => {
        if (!each.afloat) return [];
        const head = fillHead(system, each);
        if (!each.afloat.ok) {
          const words = {
            unsteady: 'does not stay upright',
            'too-far': 'leans more than 12°',
            'not-found': 'not known',
          }[each.afloat.error.code];
          return [{ head, cells: [{ text: words, tone: 'stop' as const }] }];
        }
        const { sinks_m, bowDown_rad, portDown_rad, gm_m } = each.afloat.value;
        return [
          {
            head,
            cells: [
              lean(portDown_rad, ['to port', 'to starboard']),
              lean(bowDown_rad, ['by the bow', 'by the stern']),
              { text: write(Math.abs(Math.tan(bowDown_rad)) * length_m, 'tape') },
              { text: write(sinks_m, 'tape') },
              { text: write(gm_m, 'tape') },
            ],
          },
        ];
      })}
    />
  );
}
/** Less is not told from level [rad]. */
const LEVEL_RAD = (0.05 * Math.PI) / 180;
const isLevel = (angle: number): boolean => Math.abs(angle) < LEVEL_RAD;

/** What moving the tank does, and where it would stand even. */
function Elsewhere({ stance, stands }: { readonly stance: StanceDocument; readonly stands: Stands }) {
  const t = useTank();
  const system = useSystem();
  const sides = useSides();
  const write = useWrite();
  const own = stands.moved.filter(({ tanks }) => tanks.includes(t));
  const [fore, port] = [own.find(({ way }) => way === 'fore'), own.find(({ way }) => way === 'port')];
  if (!fore || !port) return null;
  const name = fore.tanks.map((each) => system.tanks[each]!.name).join(' and ');
  const more = (value: number, role: Role): string => `${value < 0 ? '−' : '+'}${write(Math.abs(value), role)}`;
  const axles = stance.axles ?? [];
  const { hull } = stands;
  const words = [
    ...(fore.axles_kg
      ? [
          `${sides('forward')}: ${fore.axles_kg.map((value, a) => `${axles[a]?.name} ${more(value, 'mass')}`).join(', ')}${
            fore.hitch_kg === undefined ? '' : `, coupling ${more(fore.hitch_kg, 'mass')}`
          }`,
        ]
      : []),
    ...(port.port_kg === undefined
      ? []
      : [`${sides('to port')}: ${more(port.port_kg, 'mass')} ${sides('on the port side')}`]),
    ...(fore.bowDown_rad === undefined || !hull
      ? []
      : [`forward: ${more(Math.tan(fore.bowDown_rad) * (hull.fore_m - hull.aft_m), 'tape')} bow down over her length`]),
    ...(port.portDown_rad === undefined ? [] : [`to port: ${more(port.portDown_rad, 'slope')} port side down`]),
  ];
  const places = betterPlaces(stance, stands, fore, port);
  return (
    <Box mt="3" data-testid="elsewhere">
      <Box>
        {name}, full, {write(MOVED_M, 'tape')} further {words.join('; ')}.
      </Box>
      {stance.weighed !== 'without' ? (
        <Box color="soft" mt="1">
          It was weighed with the tanks where they stood. Weigh it without them, or take them off, to move them here.
        </Box>
      ) : (
        places.length > 0 && (
          <Box display="flex" gap="2" flexWrap="wrap" mt="2">
            {places.map(({ by_m, even }) => {
              const k = by_m[0] === 0 ? 1 : 0;
              const way = k === 1 ? (by_m[1] > 0 ? 'to port' : 'to starboard') : by_m[0] > 0 ? 'forward' : 'aft';
              const text = `${write(Math.abs(by_m[k]), 'tape')} ${sides(way)}: ${even}`;
              return (
                <Button
                  key={even}
                  onClick={() => applyEdit(`move ${name} ${text}`, (current) => withTankMoved(current, t, by_m))}
                >
                  {text}
                </Button>
              );
            })}
          </Box>
        )
      )}
    </Box>
  );
}

/** Further than this it is another tank [m]. */
const MOST_MOVE_M = 3;
/** Sides that differ by less of the whole are alike. */
const UNEVEN_REL = 0.005;

/** Where it would stand, all full, so that both sides are alike, or so that she trims level. */
function betterPlaces(
  stance: StanceDocument,
  stands: Stands,
  fore: Stands['moved'][number],
  port: Stands['moved'][number],
): { readonly by_m: Vec3; readonly even: string }[] {
  const full = stands.cases.find(({ fill }) => fill === 'full');
  if (!full) return [];
  const found: { by_m: Vec3; even: string }[] = [];
  const step = (off: number, each: number | undefined): number | undefined => {
    if (each === undefined || Math.abs(each) < 1e-9) return undefined;
    const by = onTape((-off / each) * MOVED_M, stepsNow());
    return Math.abs(by) > MOST_MOVE_M || by === 0 ? undefined : by;
  };
  if (full.wheels?.ok && full.wheels.value.lifts.length === 0) {
    const off = full.wheels.value.axles.reduce((sum, { port_kg, starboard_kg }) => sum + port_kg - starboard_kg, 0) / 2;
    const by = step(off, port.port_kg);
    if (by !== undefined && Math.abs(off) > UNEVEN_REL * full.wheels.value.total_kg)
      found.push({ by_m: [0, by, 0], even: 'both sides alike' });
  }
  if (full.afloat?.ok && stance.hull) {
    const across = step(full.afloat.value.portDown_rad, port.portDown_rad);
    if (across !== undefined && !isLevel(full.afloat.value.portDown_rad))
      found.push({ by_m: [0, across, 0], even: 'she does not list' });
    const along = step(full.afloat.value.bowDown_rad, fore.bowDown_rad);
    if (along !== undefined && !isLevel(full.afloat.value.bowDown_rad))
      found.push({ by_m: [along, 0, 0], even: 'she trims level' });
  }
  return found;
}

/** The tanks over what bears them: drawn along and across, the numbers follow. */
function Picture({ stance }: { readonly stance: StanceDocument }) {
  const system = useSystem();
  const { value: drawing, fresh } = useOutcome('standDrawing');
  const mayMove = stance.weighed === 'without';
  const gripOf = (id: string, name: string, view: 'side' | 'end' | 'plan', mmPerM: number): GripProps | undefined => {
    const t = system.tanks.findIndex((tank) => tank.id === id);
    if (t < 0 || !mayMove) return undefined;
    const edit = `move ${name}`;
    const nudge = (by: Vec3): void => applyEdit(edit, (current) => withTankMoved(current, t, by));
    return {
      role: 'button',
      tabIndex: 0,
      'aria-label': `${name}: move with the arrow keys`,
      style: { cursor: 'grab', touchAction: 'none', outlineWidth: '0.7px', outlineOffset: '0.4px' },
      onPointerDown: dragging(edit, (before, [right, down]) =>
        withTankMoved(before, t, draggedBy(view, right, down, mmPerM)),
      ),
      onKeyDown: (event) => {
        const step = event.shiftKey ? 10 * stepsNow().large_m : stepsNow().large_m;
        const by = {
          ArrowLeft: [-step, 0, 0],
          ArrowRight: [step, 0, 0],
          ArrowUp: [0, step, 0],
          ArrowDown: [0, -step, 0],
        }[event.key] as Vec3 | undefined;
        if (!by) return;
        event.preventDefault();
        nudge(by);
      },
    };
  };
  return (
    <Panel title="Where they stand" testId="stand-picture">
      {drawing?.ok ? (
        <Box opacity={fresh ? 1 : 0.6}>
          <Drawn
            seen={drawing.value}
            gap={undefined}
            moving={undefined}
            title="Tanks with what bears them: side, end and plan to one scale"
            gripOf={gripOf}
          />
          <Box color="soft" mt="2">
            {mayMove && 'Draw a tank along or across, or use the arrow keys: its mounts go with it. '}
            Wheels are drawn for their place alone.
          </Box>
        </Box>
      ) : (
        <Box color={drawing ? 'stop' : 'soft'} role={drawing ? 'alert' : undefined}>
          {drawing ? drawing.error.detail : 'Drawing…'}
        </Box>
      )}
      <Box mt="3">
        <Caution>
          Ratings of axles, tyres, couplings and hulls are the makers’; road and boat law decide. Lift a full tank only
          with gear and people that are licensed for it.
        </Caution>
      </Box>
    </Panel>
  );
}

/** How far a pointer on a view moves a tank, to marks of the tape; heights stay [m]. */
function draggedBy(view: 'side' | 'end' | 'plan', right_mm: number, down_mm: number, mmPerM: number): Vec3 {
  const tape = (mm: number): number => onTape(mm / mmPerM, stepsNow());
  if (view === 'side') return [tape(right_mm), 0, 0];
  if (view === 'end') return [0, tape(-right_mm), 0];
  return [tape(right_mm), tape(-down_mm), 0];
}
