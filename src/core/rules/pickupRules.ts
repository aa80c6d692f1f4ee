import { PICKUP_KEEP } from '../reference/pickups';
import { say, when, type Rule, type RuleContext } from './rule';

/** Higher off the floor than this only leaves fuel behind [m]. */
const HIGH_M = 0.035;
/** Nearer the floor than this an unstrained inlet draws water and dirt [m]. */
const LOW_M = 0.008;
/** Nearer than this a pickup is on the floor [m]. */
const ON_FLOOR_M = 0.01;
/** Share of what it holds that may stay behind at the worst attitude. */
const LOST_RATIO = 0.15;

/** A pickup that stands high on purpose, so that what it feeds goes out before the engine does. */
const isReserved = ({ system, evaluation }: RuleContext, pickup: string): boolean =>
  system.practice.heaterPickup === 'higher' && evaluation.reserves.some(({ first }) => first.pickup === pickup);

const eachPickup = ({ system, evaluation }: RuleContext) =>
  evaluation.tanks.flatMap((tank, t) =>
    tank.pickups.map((result) => {
      const p = system.tanks[t]!.pickups.findIndex((pickup) => pickup.id === result.id);
      return {
        tank,
        result,
        pickup: system.tanks[t]!.pickups[p]!,
        path: (key: string) => ['tanks', t, 'pickups', p, key],
      };
    }),
  );

export const PICKUP_RULES: readonly Rule[] = [
  {
    id: 'pickup.too-high',
    title: 'Pickup stands higher than it need',
    stage: 'ports',
    severity: 'warn',
    needs: ['details'],
    test: (context) =>
      eachPickup(context).flatMap(({ result, pickup, path }) =>
        when(
          pickup.kind === 'top-tube' && pickup.heightOffFloor_m.value > HIGH_M && !isReserved(context, pickup.id),
          () => ({
            what: say(`${result.name} ends {height} off the floor and leaves {left} behind even on the level.`, {
              height: { value: pickup.heightOffFloor_m.value, role: 'tape' },
              left: { value: result.unusableLevel_m3, role: 'tankVolume' },
            }),
            path: path('heightOffFloor_m'),
          }),
        ),
      ),
    why: 'A tube too short leaves fuel behind that you carry for ever.',
    mend: 'Lengthen the tube to end about {tape 0.025} off the floor.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'pickup.in-the-dirt',
    title: 'Pickup draws water and dirt',
    stage: 'ports',
    severity: 'note',
    test: (context) =>
      eachPickup(context).flatMap(({ result, pickup, path }) =>
        when(pickup.kind === 'top-tube' && pickup.strainer === 'none' && pickup.heightOffFloor_m.value < LOW_M, () => ({
          what: say(`${result.name} ends {height} off the floor with no strainer.`, {
            height: { value: pickup.heightOffFloor_m.value, role: 'tape' },
          }),
          path: path('heightOffFloor_m'),
        })),
      ),
    why: 'Water and grit lie on the floor of every tank.',
    mend: 'Fit a sock, or end the tube about {tape 0.025} off the floor and drain the water below it.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'pickup.unlike-plan',
    title: 'Pickup is not as it was chosen',
    stage: 'ports',
    severity: 'note',
    test: (context) =>
      eachPickup(context).flatMap(({ result, pickup, path }) => {
        if (pickup.kind === 'bottom-outlet') return [];
        const { practice } = context.system;
        const height = {
          height: { value: pickup.heightOffFloor_m.value, role: 'tape' as const },
          left: { value: result.unusableLevel_m3, role: 'tankVolume' as const },
        };
        return [
          ...when(practice.pickup === 'on-floor' && pickup.heightOffFloor_m.value > ON_FLOOR_M, () => ({
            what: say(
              `Pickups are to reach the floor; ${result.name} ends {height} over it and leaves {left} on the level.`,
              height,
            ),
            path: path('heightOffFloor_m'),
          })),
          ...when(
            practice.pickup === 'off-floor' && pickup.strainer !== 'none' && pickup.heightOffFloor_m.value < LOW_M,
            () => ({
              what: say(`Pickups are to keep off the floor; ${result.name} ends {height} over it.`, height),
              path: path('heightOffFloor_m'),
            }),
          ),
          ...when(practice.strainer === 'outside' && pickup.strainer === 'mesh', () => ({
            what: say(`Strainers are to be outside, where they can be changed; ${result.name} has a mesh in the tank.`),
            path: path('strainer'),
          })),
          ...when(practice.strainer === 'inside' && pickup.strainer === 'none', () => ({
            what: say(`Strainers are to be in the tank; ${result.name} has none.`),
            path: path('strainer'),
          })),
        ];
      }),
    why: 'Plan and school say two things: one of them is not what will be built.',
    mend: 'Set the pickup as it was chosen, or choose the other school.',
    source: 'the builder’s own choice; 10 mm is common practice',
    status: 'common practice',
  },
  {
    id: 'pickup.loses-on-slope',
    title: 'Much fuel lost on a slope',
    stage: 'ports',
    severity: 'warn',
    needs: ['details'],
    test: (context) =>
      eachPickup(context).flatMap(({ tank, result, path }) =>
        when(result.worst.unusable_m3 > LOST_RATIO * tank.holds_m3 && !isReserved(context, result.id), () => ({
          what: say(`At {pitch} pitch and {roll} roll ${result.name} leaves {left} of {holds} behind.`, {
            pitch: { value: result.worst.pitch_rad, role: 'slope' },
            roll: { value: result.worst.roll_rad, role: 'slope' },
            left: { value: result.worst.unusable_m3, role: 'tankVolume' },
            holds: { value: tank.holds_m3, role: 'tankVolume' },
          }),
          path: path('heightOffFloor_m'),
        })),
      ),
    why: 'Level figures lie: on a slope the fuel runs to a corner and the pickup stands dry above it.',
    mend: 'Move the pickup to the corner where the fuel gathers, add a sump, or ask for a smaller slope.',
    source: 'common practice: more than a seventh lost is worth mending',
    status: 'common practice',
  },
  {
    id: 'pickup.draws-air-now',
    title: 'Pickup draws air',
    stage: 'ports',
    severity: 'stop',
    test: (context) =>
      eachPickup(context).flatMap(({ result, path }) =>
        when(result.starvedNow, () => ({
          what: say(`At this fill and slope ${result.name} stands above the liquid; {left} lies out of its reach.`, {
            left: { value: result.unusableNow_m3, role: 'tankVolume' },
          }),
          path: path('heightOffFloor_m'),
        })),
      ),
    why: 'An engine that draws air stops, and a diesel must then be bled.',
    mend: 'Fill the tank further, stand more level, or move the pickup.',
    source: 'geometry of the tank at the set conditions',
    status: 'derived',
  },
  {
    id: 'pickup.bottom-outlet',
    title: 'Bottom outlet',
    stage: 'ports',
    severity: 'warn',
    test: (context) =>
      eachPickup(context).flatMap(({ result, pickup, path }) =>
        when(pickup.kind === 'bottom-outlet', () => ({
          what: say(`${result.name} leaves through the bottom of the tank.`),
          path: path('kind'),
          severity: context.system.practice.outlet === 'bottom-outlet' ? 'note' : 'warn',
        })),
      ),
    why: 'A hole below the liquid empties the whole tank when a hose or fitting fails, and lies where stones strike.',
    mend: 'Draw by a tube from the lid, or keep the bottom outlet with a shut-off valve on the tank and say so under Practice.',
    source: 'common practice: top tube is the default; some rulebooks forbid bottom outlets',
    status: 'common practice',
  },
  {
    id: 'pickup.near-arm',
    title: 'Sender and pickup meet',
    stage: 'ports',
    severity: 'stop',
    needs: ['details'],
    test: (context) =>
      eachPickup(context).flatMap(({ result, path }) =>
        (result.plan?.near ?? [])
          .filter(({ what, distance_m }) => what === 'sender' && distance_m < PICKUP_KEEP.arm)
          .map(({ to, distance_m }) => ({
            what: say(
              distance_m > 0
                ? `${to} swings within {apart} of ${result.name}; {want} are wanted.`
                : `${to} swings into ${result.name}.`,
              { apart: { value: distance_m, role: 'tape' }, want: { value: PICKUP_KEEP.arm, role: 'tape' } },
            ),
            path: path('port'),
          })),
      ),
    why: 'A float that catches on a tube sticks, and the gauge stands still.',
    mend: 'Turn the sender another way, or move one of the two ports.',
    source: 'common practice: 10 mm between, since tubes spring',
    status: 'common practice',
  },
  {
    id: 'pickup.near-baffle',
    title: 'Pickup runs into a baffle',
    stage: 'ports',
    severity: 'warn',
    needs: ['details'],
    test: (context) =>
      eachPickup(context).flatMap(({ result, path }) =>
        (result.plan?.near ?? [])
          .filter(
            ({ what, distance_m }) => what !== 'sender' && distance_m < (what === 'wall' ? 0 : PICKUP_KEEP.baffle),
          )
          .map(({ to, distance_m }) => ({
            what: say(
              distance_m > 0
                ? `${result.name} passes {apart} from ${to}; {want} are wanted.`
                : `${result.name} runs into ${to}.`,
              { apart: { value: distance_m, role: 'tape' }, want: { value: PICKUP_KEEP.baffle, role: 'tape' } },
            ),
            path: path('port'),
          })),
      ),
    why: 'A tube that touches rattles itself through, or does not go down at all.',
    mend: 'Move the port, or the baffle.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'pickup.heater-outlasts',
    title: 'The heater can strand the vehicle',
    stage: 'ports',
    severity: 'warn',
    needs: ['details'],
    test: ({ system, evaluation }) =>
      evaluation.reserves
        .filter((reserve) => reserve.worst_m3 <= 0)
        .map((reserve) => {
          const t = system.tanks.findIndex(({ id }) => id === reserve.tank);
          const p = system.tanks[t]!.pickups.findIndex(({ id }) => id === reserve.first.pickup);
          return {
            what: say(
              reserve.level_m3 <= 0
                ? `${reserve.second.consumer} starves before ${reserve.first.consumer} does.`
                : `${reserve.first.consumer} leaves {left} for ${reserve.second.consumer} on the level, and nothing at {pitch} pitch and {roll} roll.`,
              {
                left: { value: reserve.level_m3, role: 'tankVolume' },
                pitch: { value: reserve.worstAt.pitch_rad, role: 'slope' },
                roll: { value: reserve.worstAt.roll_rad, role: 'slope' },
              },
            ),
            path: ['tanks', t, 'pickups', p, 'heightOffFloor_m'],
            severity: system.practice.heaterPickup === 'deep' ? ('note' as const) : ('warn' as const),
          };
        }),
    why: 'A heater runs on when nobody looks at the gauge; what it may not take must lie below its pickup.',
    mend: 'Set the heater’s pickup higher; the Ports stage works out how high for the reserve you want.',
    source: 'common practice: the higher pickup is the default, a deep one a school of its own',
    status: 'common practice',
  },
];
