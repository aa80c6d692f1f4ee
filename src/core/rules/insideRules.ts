import { sideText } from '../plan/sides';
import { REFILL_HEAD_M } from '../answers';
import { largestTwist_sin } from '../geometry';
import { PEAKLESS_RATIO } from '../tank';
import { EXCITATIONS, RESONANCE_REL } from '../reference/excitation';
import { say, when, type Rule } from './rule';

/** Of a tank's volume: what a compartment keeps below this is a puddle. */
const PUDDLE_SHARE = 0.01;
/** How long a manoeuvre lasts: a stop from speed, a long bend. */
const MANOEUVRE_S = 4;
/** A tenth of a degree from end to end: points typed to the millimetre twist that much. */
const TWIST_SIN = 2e-3;
/** Sloshing in less than this share of the surge limit moves no vehicle. */
const SLOSH_SHARE = 0.5;
const WAYS = {
  braking: 'while it brakes',
  driving: 'while it pulls away',
  'cornering to port': 'while it turns to port',
  'cornering to starboard': 'while it turns to starboard',
} as const;

export const INSIDE_RULES: readonly Rule[] = [
  {
    id: 'inside.surge-compartment-too-large',
    title: 'Too much free to surge',
    stage: 'tank',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) => {
        const limit = system.limits.surgeCompartment_m3.value;
        const { largest_m3, compartments } = tank.inside;
        const crossing_s = compartments.find(({ volume_m3 }) => volume_m3 === largest_m3)?.foam?.crossing_s;
        return when(system.vehicle.kind !== 'bench' && largest_m3 > limit * 1.0001, () => ({
          what: say(
            `The largest of ${compartments.length === 1 ? 'the one compartment' : `the ${compartments.length} compartments`} of ${tank.name} holds {largest}; the limit for one compartment is {limit}.${bafflesFor(tank.gross_m3, limit)}${crossing_s === undefined ? '' : ' Through its foam it takes {crossing} or more from end to end.'}`,
            {
              largest: { value: largest_m3, role: 'tankVolume' },
              limit: { value: limit, role: 'tankVolume' },
              crossing: { value: crossing_s ?? 0, role: 'duration' },
            },
          ),
          path: ['tanks', t, 'plates'],
        }));
      }),
    why: 'Liquid that is free to run from wall to wall pushes the vehicle about, beats on the ends and uncovers the pickup.',
    mend: 'Add baffles, move them so that the compartments are even, or set the limit that suits how this tank is carried.',
    source: 'common practice: 38 L (10 US gal) in one compartment',
    status: 'common practice',
  },
  {
    id: 'inside.compartment-cut-off',
    title: 'A compartment is cut off from the pickup',
    stage: 'tank',
    severity: 'stop',
    test: ({ evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.inside.compartments.flatMap((compartment, b) =>
          when(
            Object.values(compartment.kept_m3).some((kept) => kept === Infinity),
            () => ({
              what: say(`No way leads from compartment ${b + 1} of ${tank.name}, {volume}, to a pickup.`, {
                volume: { value: compartment.volume_m3, role: 'tankVolume' },
              }),
              path: ['tanks', t, 'plates'],
            }),
          ),
        ),
      ),
    why: 'Fuel that gets in cannot get out, air cannot either, and the gauge counts it.',
    mend: 'Cut the lower corners of the baffle away and leave a gap above it; turn a flap round that opens the wrong way.',
    source: 'geometry',
    status: 'derived',
  },
  {
    id: 'inside.compartment-keeps-fuel',
    title: 'A compartment keeps fuel back',
    stage: 'tank',
    severity: 'warn',
    test: ({ evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.inside.compartments.flatMap((compartment, b) => {
          const kept = Math.max(0, ...Object.values(compartment.kept_m3).filter((value) => value !== Infinity));
          return when(kept > PUDDLE_SHARE * tank.gross_m3, () => ({
            what: say(`Compartment ${b + 1} of ${tank.name} keeps {kept} below its lowest opening towards a pickup.`, {
              kept: { value: kept, role: 'tankVolume' },
            }),
            path: ['tanks', t, 'plates'],
          }));
        }),
      ),
    why: 'Liquid stays behind a baffle that has no opening at its lowest point.',
    mend: 'Cut the lower corners away, or set the lowest row of holes down to the floor.',
    source: 'geometry',
    status: 'derived',
  },
  {
    id: 'inside.refill-too-slow',
    title: 'Openings too small for the draw',
    stage: 'tank',
    severity: 'stop',
    test: ({ evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.inside.feeds.flatMap((feed) => {
          const { refill, draw_m3PerS } = feed;
          if (!refill || draw_m3PerS === 0 || refill.area_m2 === 0) return [];
          return when(refill.rate_m3PerS < draw_m3PerS, () => ({
            what: say(
              `In the last {head} of fuel the openings let {rate} into the pickup's compartment of ${tank.name}; {draw} is drawn from it.`,
              {
                head: { value: REFILL_HEAD_M, role: 'tape' },
                rate: { value: refill.rate_m3PerS, role: 'burn' },
                draw: { value: draw_m3PerS, role: 'burn' },
              },
            ),
            path: ['tanks', t, 'plates'],
          }));
        }),
      ),
    why: 'The pickup empties its own compartment faster than the others refill it, and draws air while the tank still has fuel.',
    mend: 'Make the lower openings larger: the flow grows with their area.',
    source: 'Torricelli with an orifice share of 0.61; 25 mm is common practice',
    status: 'derived',
  },
  {
    id: 'inside.no-air-gap',
    title: 'No way for air over a baffle',
    stage: 'tank',
    severity: 'warn',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) =>
        tank.plates.flatMap((plate, p) =>
          when(plate.axis !== 'z' && plate.topGap_m.value === 0, () => ({
            what: say(
              `${plate.name} of ${tank.name} closes with the lid: the compartment behind it traps air as it fills and draws a vacuum as it empties.`,
            ),
            path: ['tanks', t, 'plates', p, 'topGap_m'],
          })),
        ),
      ),
    why: 'Each compartment needs air from above for every litre that leaves it below.',
    mend: 'Leave about {tape 0.025} open above the baffle, or cut its upper corners.',
    source: 'common practice: about an inch',
    status: 'common practice',
  },
  {
    id: 'inside.flap-away',
    title: 'A flap opens away from the pickup',
    stage: 'tank',
    severity: 'warn',
    test: ({ evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.inside.feeds.flatMap((feed) =>
          when(feed.flapAway, () => ({
            what: say(`A flap of ${tank.name} lets fuel out of the pickup's compartment and not back in.`),
            path: ['tanks', t, 'plates'],
          })),
        ),
      ),
    why: 'A trap door is there to let fuel in and to hold it while the rest runs away.',
    mend: 'Turn the flap to open towards the pickup.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'inside.starves-in-manoeuvre',
    title: 'Starves while it moves',
    stage: 'tank',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.inside.feeds.flatMap((feed) => {
          if (feed.draw_m3PerS === 0) return [];
          const short = (Object.keys(WAYS) as (keyof typeof WAYS)[]).filter(
            (way) => feed.holds[way].time_s < MANOEUVRE_S,
          );
          const pickup = tank.pickups.find(({ id }) => id === feed.pickup)!;
          const now = Math.min(...short.map((way) => feed.holds[way].time_s));
          return when(short.length > 0 && !pickup.starvedNow, () => ({
            what: say(
              `At this fill ${pickup.name} runs dry ${short.map((way) => sideText(system.vehicle.kind, WAYS[way])).join(' and ')}, after ${now.toFixed(1)} s at the engine's draw.`,
            ),
            path: ['tanks', t, 'plates'],
            ...(system.consumers.some(({ kind }) => kind === 'petrol-injection') ? { severity: 'stop' as const } : {}),
          }));
        }),
      ),
    why: 'The fuel runs away from the pickup; an injection pump that draws air for a second stops the engine and may not prime again.',
    mend: 'Give the pickup a sump, a boxed compartment with a flap that opens towards it, or a surge pot; or move it to where the fuel runs. Foam slows slosh, but holds no fuel at a pickup.',
    source: 'geometry at the hardest accelerations set; 4 s is common practice',
    status: 'derived',
  },
  {
    id: 'inside.can-refills-slowly',
    title: 'A can that fills too slowly',
    stage: 'tank',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.inside.feeds.flatMap(({ can, draw_m3PerS, pickup }) => {
          const p = system.tanks[t]!.pickups.findIndex(({ id }) => id === pickup);
          return when(can !== undefined && can.rate_m3PerS < draw_m3PerS, () => ({
            what: say(
              `With {head} over their middle the openings of the can about ${system.tanks[t]!.pickups[p]!.name} let in {rate}, and {draw} is drawn.`,
              {
                head: { value: REFILL_HEAD_M, role: 'tape' },
                rate: { value: can!.rate_m3PerS, role: 'transfer' },
                draw: { value: draw_m3PerS, role: 'transfer' },
              },
            ),
            path: ['tanks', t, 'pickups', p, 'can', 'openings', 'count'],
          }));
        }),
      ),
    why: 'With the tank low the can is drawn empty while there is fuel about it.',
    mend: 'More or larger openings at its foot, or doors that open inward.',
    source: 'flow through sharp-edged openings, 0.61 of the ideal; 25 mm of head is common practice',
    status: 'derived',
  },
  {
    id: 'inside.can-over-lid',
    title: 'A can taller than its tank',
    stage: 'tank',
    severity: 'warn',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.inside.feeds.flatMap(({ can, pickup }) => {
          const p = system.tanks[t]!.pickups.findIndex(({ id }) => id === pickup);
          const { name, can: made } = system.tanks[t]!.pickups[p]!;
          const room = can?.room_m;
          return when(made !== undefined && room !== undefined && made.height_m.value > room, () => ({
            what: say(
              `The can about ${name} is {height} tall, and there are {room} under the lid of ${tank.name} there.`,
              { height: { value: made!.height_m.value, role: 'tape' }, room: { value: room!, role: 'tape' } },
            ),
            path: ['tanks', t, 'pickups', p, 'can', 'height_m'],
          }));
        }),
      ),
    why: 'It does not go in, and what it would hold is reckoned too much.',
    mend: 'Make it lower: a can wants air over its rim, to be filled from above too.',
    source: 'geometry',
    status: 'derived',
  },
  {
    id: 'inside.slosh-meets-movement',
    title: 'Swings in step with the vehicle',
    stage: 'tank',
    severity: 'note',
    test: ({ system, evaluation }) => {
      const row = EXCITATIONS.find(({ vehicle }) => vehicle === system.vehicle.kind);
      if (!row) return [];
      const meets = (frequency_Hz: number): boolean =>
        frequency_Hz > row.from_Hz * (1 - RESONANCE_REL) && frequency_Hz < row.to_Hz * (1 + RESONANCE_REL);
      return evaluation.tanks.flatMap((tank, t) =>
        tank.inside.compartments.flatMap((compartment, b) => {
          if (!compartment.slosh_Hz || compartment.liquid_m3 < SLOSH_SHARE * system.limits.surgeCompartment_m3.value)
            return [];
          const slow = Math.min(compartment.slosh_Hz.lengthwise, compartment.slosh_Hz.crosswise);
          const { damping } = compartment.foam ?? {};
          // Foam that takes the peak out of a swing leaves nothing to build up.
          const isDamped = damping !== undefined && Math.min(damping.lengthwise, damping.crosswise) > PEAKLESS_RATIO;
          return when(meets(slow) && !isDamped, () => ({
            what: say(
              `${tank.inside.compartments.length > 1 ? `Compartment ${b + 1} of ${tank.name}` : tank.name} swings at ${slow.toFixed(2)} Hz at this fill, as ${row.by} do (${row.from_Hz} to ${row.to_Hz} Hz).`,
            ),
            path: ['tanks', t, 'plates'],
          }));
        }),
      );
    },
    why: 'Liquid pushed in its own time builds up from swing to swing.',
    mend: 'A baffle across the long way makes the compartment shorter and its swing faster.',
    source: 'linear sloshing theory (Lamb; NASA SP-106); bands of movement are common practice',
    status: 'derived',
  },
  {
    id: 'inside.separate-bodies',
    title: 'The shape falls apart',
    stage: 'tank',
    severity: 'stop',
    test: ({ evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        when(tank.pieces > 1, () => ({
          what: say(`${tank.name} is in ${tank.pieces} bodies that do not touch.`),
          path: ['tanks', t, 'parts'],
        })),
      ),
    why: 'An added body that misses the tank, or a cut through it, leaves two tanks.',
    mend: 'Move the added body until it meets the tank, or make the cut shallower.',
    source: 'geometry',
    status: 'derived',
  },
  {
    id: 'inside.idle-part',
    title: 'Something that changes nothing',
    stage: 'tank',
    severity: 'note',
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.idle.map((id) => {
          const list = (['parts', 'slices', 'plates'] as const).find((key) =>
            system.tanks[t]![key].some((entry) => entry.id === id),
          )!;
          const index = system.tanks[t]![list].findIndex((entry) => entry.id === id);
          return {
            what: say(`${system.tanks[t]![list][index]!.name} changes nothing of ${tank.name}.`),
            path: ['tanks', t, list, index],
          };
        }),
      ),
    why: 'It lies wholly inside the tank already, or misses it.',
    mend: 'Check its place and sizes.',
    source: 'geometry',
    status: 'derived',
  },
  {
    id: 'inside.float-in-foam',
    title: 'A float in foam',
    stage: 'tank',
    severity: 'note',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) =>
        when(tank.foam_ratio !== undefined && tank.senders.length > 0, () => ({
          what: say(`Foam fills ${tank.name}, and a float swings in it.`),
          path: ['tanks', t, 'foam_ratio'],
        })),
      ),
    why: 'A float arm needs a well cut free over its whole swing, or it sticks.',
    mend: 'Cut the foam away around the arm, or use a tube or capacitive sender.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'inside.foam-does-not-pass',
    title: 'Foam that does not go in',
    stage: 'tank',
    severity: 'warn',
    needs: ['details'],
    test: ({ system, evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.foam.flatMap(({ pieces }, b) =>
          when(!pieces.ok, () => ({
            what: say(
              `No pieces worth cutting of the foam for ${tank.foam.length > 1 ? `compartment ${b + 1} of ` : ''}${tank.name} go through an opening of {opening}.`,
              { opening: { value: system.tanks[t]!.foam!.opening_m!.value, role: 'tape' } },
            ),
            path: ['tanks', t, 'foam', 'opening_m'],
          })),
        ),
      ),
    why: 'Crumbs drift to the pickup and block it.',
    mend: 'Lay the foam in before the lid goes on, or make a larger opening.',
    source: 'geometry of pieces and opening; a hand squeezes foam to half is common practice',
    status: 'common practice',
  },
  {
    id: 'inside.twisted-panels',
    title: 'Panels that twist',
    stage: 'tank',
    severity: 'note',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) =>
        when(tank.shape.kind === 'loft' && twists(tank.shape), () => ({
          what: say(`Panels of ${tank.name} twist from one end to the other and are reckoned as ruled surfaces.`),
          path: ['tanks', t, 'shape'],
        })),
      ),
    why: 'Flat sheet does not take a twist: folded along one diagonal or the other, the panel lies to either side of the ruled surface and the volume differs.',
    mend: 'Move the points so that opposite edges run parallel, or break each panel along one diagonal and draw it so.',
    source: 'geometry of developable surfaces',
    status: 'derived',
  },
];

/** More baffles than this are not a mend but another kind of tank. */
const MOST_BAFFLES = 4;

/** How many baffles would keep to the limit, where that is a number one would fit. */
function bafflesFor(gross_m3: number, limit: number): string {
  const count = Math.max(1, Math.ceil(gross_m3 / limit) - 1);
  return count > MOST_BAFFLES
    ? ''
    : ` ${count === 1 ? 'One baffle, making two compartments,' : `${count} baffles, making ${count + 1} compartments,`} would do if ${count === 1 ? 'it parts' : 'they part'} it evenly.`;
}

type Point = { readonly u_m: number; readonly v_m: number };
const points = (list: readonly Point[]): [number, number][] => list.map(({ u_m, v_m }) => [u_m, v_m]);

/** Whether an edge points another way at the far end than at the near. */
const twists = ({ near, far }: { readonly near: readonly Point[]; readonly far: readonly Point[] }): boolean =>
  near.length === far.length && largestTwist_sin(points(near), points(far)) > TWIST_SIN;
