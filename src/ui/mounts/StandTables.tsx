'use client';

import { Box, chakra } from '@chakra-ui/react';
import { HEEL_SHOWS_RAD, TRIM_SHOWS_RAD, type MAIN_WAYS, type Stands } from '@/core/answers';
import { type StanceDocument } from '@/core/plan';
import type { Afloat, Ballast } from '@/core/weight';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { useSystem } from '../state/editor';
import { useSides } from '../state/sides';
import { fillHead } from './fillHead';
import { Table, useWrite, type Cell } from '../parts/Table';
import { isLevel } from './level';

/** Axles of which each side was not weighed: half is taken for each. */
const halvedOf = ({ axles = [] }: StanceDocument): string[] =>
  axles.flatMap(({ name, portLoad_kg }) => (portLoad_kg ? [] : [name]));

/** What each axle bears as the tanks fill, with the coupling and the whole. */
export function OnAxles({ stance, stands }: { readonly stance: StanceDocument; readonly stands: Stands }) {
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
  const halved = halvedOf(stance);
  return (
    <>
      <Table label="What each axle bears" heads={heads} rows={rows} />
      {halved.length > 0 && (
        <Box color="warn" mt="1" data-testid="halved">
          Sides were not weighed of {halved.join(' and ')}: half is taken for each side.
        </Box>
      )}
      <Corners stance={stance} stands={stands} />
      <Tips stands={stands} />
    </>
  );
}

/** What each wheel bears, empty and full; and of two axles the weight over each diagonal. */
function Corners({ stance, stands }: { readonly stance: StanceDocument; readonly stands: Stands }) {
  const sides = useSides();
  const write = useWrite();
  const axles = stance.axles ?? [];
  const told = (['empty', 'full'] as const).flatMap((fill) => {
    const wheels = stands.cases.find((each) => each.fill === fill)?.wheels;
    return wheels?.ok && wheels.value.lifts.length === 0 ? [wheels.value.axles] : [];
  });
  if (told.length < 2) return null;
  const front = (axles[0]?.x_m.value ?? 0) > (axles[1]?.x_m.value ?? 0) ? 0 : 1;
  const cross = (on: (typeof told)[number]): number => {
    const whole = on.reduce((sum, { load_kg }) => sum + load_kg, 0);
    return (on[front]!.starboard_kg + on[1 - front]!.port_kg) / whole;
  };
  return (
    <chakra.details>
      <chakra.summary minH="42px" py="2" cursor="pointer">
        Each wheel
      </chakra.summary>
      <Table
        label="What each wheel bears"
        heads={[
          '',
          ...['empty', 'full'].flatMap((fill) =>
            ['port side', 'starboard side'].map((side) => `${fill}, ${sides(side)}`),
          ),
        ]}
        rows={axles.map(({ name }, a) => ({
          head: name,
          cells: told.flatMap((on) =>
            [on[a]!.port_kg, on[a]!.starboard_kg].map((load) => ({ text: write(load, 'load') })),
          ),
        }))}
      />
      {axles.length === 2 && (
        <Box mt="1">
          Front right with rear left: {told.map((on) => write(cross(on), 'share')).join(' empty, ')} full of what the
          wheels bear.
        </Box>
      )}
    </chakra.details>
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

/** How she lies as her tanks fill, and how steady she is then. */
export function Lies({ stands }: { readonly stands: Stands }) {
  const system = useSystem();
  const write = useWrite();
  const { hull } = stands;
  const lean = (angle: number, [more, less]: readonly [string, string]): Cell => {
    const text = write(Math.abs(angle), 'slope');
    return isLevel(angle) ? { text: 'level' } : { text: `${text} ${angle > 0 ? more : less}` };
  };
  const length_m = hull ? hull.fore_m - hull.aft_m : 0;
  const half = stands.cases.find(({ fill }) => fill === 'half');
  return (
    <>
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
      {half?.ballast && half.afloat?.ok && leansToShow(half.afloat.value) && (
        <BallastWords ballast={half.ballast} aft_m={hull?.aft_m ?? 0} lies={half.afloat.value} />
      )}
    </>
  );
}

const leansToShow = ({ bowDown_rad, portDown_rad }: Afloat): boolean =>
  Math.abs(portDown_rad) > HEEL_SHOWS_RAD || Math.abs(bowDown_rad) > TRIM_SHOWS_RAD;

/** No closer than ballast is weighed out and put down. */
const aboutKg = (mass_kg: number): number => Number(mass_kg.toPrecision(2));
const PLACED_M = 0.05;
const aboutM = (length_m: number): number => PLACED_M * Math.round(length_m / PLACED_M);

/** What would lay her level with her tanks half full: between what she is at either end. */
function BallastWords({
  ballast,
  aft_m,
  lies,
}: {
  readonly ballast: Ballast;
  readonly aft_m: number;
  readonly lies: Afloat;
}) {
  const write = useWrite();
  const { along_kg, at_x_m, across_kg, at_y_m } = ballast;
  const weights = [
    ...(Math.abs(lies.bowDown_rad) > TRIM_SHOWS_RAD
      ? [`${write(aboutKg(along_kg), 'mass')} at ${write(aboutM(at_x_m - aft_m), 'tape')} from her stern, amidships`]
      : []),
    ...(Math.abs(lies.portDown_rad) > HEEL_SHOWS_RAD
      ? [
          `${write(aboutKg(across_kg), 'mass')} on her ${at_y_m > 0 ? 'port' : 'starboard'} side, ${write(aboutM(Math.abs(at_y_m)), 'tape')} from the middle line`,
        ]
      : []),
  ];
  return weights.length === 0 ? null : (
    <Box mt="2" maxW="75ch" data-testid="ballast">
      With tanks half full she would lie level with about {weights.join(' and about ')}. It is weight to carry: moving
      the tank, or a battery that is aboard in any case, costs none.
    </Box>
  );
}
