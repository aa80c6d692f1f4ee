import { say, when, type Rule, type RuleContext } from './rule';

/** Higher off the floor than this only leaves fuel behind [m]. */
const HIGH_M = 0.035;
/** Nearer the floor than this an unstrained inlet draws water and dirt [m]. */
const LOW_M = 0.008;
/** Share of what it holds that may stay behind at the worst attitude. */
const LOST_RATIO = 0.15;

const eachPickup = ({ system, evaluation }: RuleContext) =>
  evaluation.tanks.flatMap((tank, t) => tank.pickups.map((result) => {
    const p = system.tanks[t]!.pickups.findIndex((pickup) => pickup.id === result.id);
    return { tank, result, pickup: system.tanks[t]!.pickups[p]!, path: (key: string) => ['tanks', t, 'pickups', p, key] };
  }));

export const PICKUP_RULES: readonly Rule[] = [
  {
    id: 'pickup.too-high',
    title: 'Pickup stands higher than it need',
    stage: 'ports', severity: 'warn',
    test: (context) => eachPickup(context).flatMap(({ result, pickup, path }) => when(pickup.kind === 'top-tube' && pickup.heightOffFloor_m.value > HIGH_M, () => ({
      what: say(`${result.name} ends {height} off the floor and leaves {left} behind even on the level.`, {
        height: { value: pickup.heightOffFloor_m.value, role: 'tape' }, left: { value: result.unusableLevel_m3, role: 'tankVolume' },
      }),
      path: path('heightOffFloor_m'),
    }))),
    why: 'A tube too short leaves fuel behind that you carry for ever.',
    mend: 'Lengthen the tube to end about 25 mm off the floor.',
    source: 'common practice', status: 'common practice',
  },
  {
    id: 'pickup.in-the-dirt',
    title: 'Pickup draws water and dirt',
    stage: 'ports', severity: 'note',
    test: (context) => eachPickup(context).flatMap(({ result, pickup, path }) => when(pickup.kind === 'top-tube' && pickup.strainer === 'none' && pickup.heightOffFloor_m.value < LOW_M, () => ({
      what: say(`${result.name} ends {height} off the floor with no strainer.`, { height: { value: pickup.heightOffFloor_m.value, role: 'tape' } }),
      path: path('heightOffFloor_m'),
    }))),
    why: 'Water and grit lie on the floor of every tank.',
    mend: 'Fit a sock, or end the tube about 25 mm off the floor and drain the water below it.',
    source: 'common practice', status: 'common practice',
  },
  {
    id: 'pickup.loses-on-slope',
    title: 'Much fuel lost on a slope',
    stage: 'ports', severity: 'warn',
    test: (context) => eachPickup(context).flatMap(({ tank, result, path }) => when(result.worst.unusable_m3 > LOST_RATIO * tank.holds_m3, () => ({
      what: say(`At {pitch} pitch and {roll} roll ${result.name} leaves {left} of {holds} behind.`, {
        pitch: { value: result.worst.pitch_rad, role: 'slope' }, roll: { value: result.worst.roll_rad, role: 'slope' },
        left: { value: result.worst.unusable_m3, role: 'tankVolume' }, holds: { value: tank.holds_m3, role: 'tankVolume' },
      }),
      path: path('heightOffFloor_m'),
    }))),
    why: 'Level figures lie: on a slope the fuel runs to a corner and the pickup stands dry above it.',
    mend: 'Move the pickup to the corner where the fuel gathers, add a sump, or ask for a smaller slope.',
    source: 'common practice: more than a seventh lost is worth mending', status: 'common practice',
  },
  {
    id: 'pickup.draws-air-now',
    title: 'Pickup draws air',
    stage: 'ports', severity: 'stop',
    test: (context) => eachPickup(context).flatMap(({ result, path }) => when(result.starvedNow, () => ({
      what: say(`At this fill and slope ${result.name} stands above the liquid; {left} lies out of its reach.`, { left: { value: result.unusableNow_m3, role: 'tankVolume' } }),
      path: path('heightOffFloor_m'),
    }))),
    why: 'An engine that draws air stops, and a diesel must then be bled.',
    mend: 'Fill the tank further, stand more level, or move the pickup.',
    source: 'geometry of the tank at the set conditions', status: 'derived',
  },
  {
    id: 'pickup.bottom-outlet',
    title: 'Bottom outlet',
    stage: 'ports', severity: 'warn',
    test: (context) => eachPickup(context).flatMap(({ result, pickup, path }) => when(pickup.kind === 'bottom-outlet', () => ({
      what: say(`${result.name} leaves through the bottom of the tank.`), path: path('kind'),
      severity: context.system.practice.outlet === 'bottom-outlet' ? 'note' : 'warn',
    }))),
    why: 'A hole below the liquid empties the whole tank when a hose or fitting fails, and lies where stones strike.',
    mend: 'Draw by a tube from the lid, or keep the bottom outlet with a shut-off valve on the tank and say so under Practice.',
    source: 'common practice: top tube is the default; some rulebooks forbid bottom outlets', status: 'common practice',
  },
];
