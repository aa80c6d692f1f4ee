import { senderKind } from '../senders';
import { rangeOf } from '../model/compileSender';
import type { Path } from '../plan/edit';
import type { GaugeDocument, Plan } from '../plan/schema';
import { allKnown, type GaugeResult } from '../answers';
import { straight, type Scale } from '../gauge';
import { FLUIDS } from '../reference/fluids';
import { say, when, type Hit, type Rule, type RuleContext } from './rule';

const GAUGE_ERROR = 0.1;
const RANGE_MISMATCH = 0.1;
/** Of what the tank holds. */
const UNSEEN_RATIO = 1 / 12;
const SIGHT_RATIO = 0.05;
/** Of the scale. */
const DRY_RATIO = 0.1;

/** Where the needle stands with a volume in the tank. */
const needleWith = ({ curve: { points } }: GaugeResult, volume_m3: number): number =>
  straight(
    points.map((point) => point.volume_m3),
    points.map((point) => point.needle_ratio),
    volume_m3,
  );

const solvedGauges = ({ system, evaluation }: RuleContext) =>
  evaluation.gauges.flatMap((gauge) => {
    if (!gauge.ok) return [];
    const t = system.tanks.findIndex((tank) => tank.id === gauge.value.tank);
    const s = system.tanks[t]!.senders.findIndex((sender) => sender.id === gauge.value.sender);
    return [
      {
        result: gauge.value,
        sender: system.tanks[t]!.senders[s]!,
        tank: evaluation.tanks[t]!,
        path: (key: string) => ['tanks', t, 'senders', s, ...key.split('.')],
      },
    ];
  });

/** What a gauge wants at its ends; one that is taught takes what it is given. */
const gaugeEnds = (gauge: GaugeDocument): Scale | undefined =>
  gauge.kind === 'calibrated'
    ? undefined
    : gauge.kind === 'linear'
      ? rangeOf(gauge.scale)
      : { empty: gauge.empty_ohm.value, full: gauge.full_ohm.value };

/** Gauges come in the order of tanks and their senders. */
function pathOfGauge({ tanks }: Plan, gauge: number): Path {
  const all = tanks.flatMap(({ senders }, t) => senders.map((_, s) => ['tanks', t, 'senders', s]));
  return all[gauge] ?? ['tanks', 0];
}

export const GAUGE_RULES: readonly Rule[] = [
  {
    id: 'gauge.float-hits-floor',
    title: 'Sender stops before its low end',
    stage: 'gauge',
    severity: 'warn',
    needs: ['gauges'],
    test: (context) =>
      solvedGauges(context).flatMap(({ result, sender, path }) =>
        when(result.curve.free.lowBy !== undefined, () => ({
          what: say(
            `${sender.name} meets ${result.curve.free.lowBy} before its low stop: of its travel the lowest {lost} are never used, and the last {volume} are not seen.`,
            {
              lost: { value: result.curve.free.low_share, role: 'share' },
              volume: { value: result.curve.unseenLow_m3, role: 'tankVolume' },
            },
          ),
          path: path(senderKind(sender).lowerBy),
        })),
      ),
    why: 'A sender from another tank is wrong for this depth: the needle stands above empty while the tank runs dry.',
    mend: 'Shorten the arm, raise the pivot or turn it away from what it meets; “Design it for me” on the Gauge stage finds sizes that fit.',
    source: 'geometry of the sender in the tank',
    status: 'derived',
  },
  {
    id: 'gauge.float-hits-lid',
    title: 'Sender stops before its high end',
    stage: 'gauge',
    severity: 'warn',
    needs: ['gauges'],
    test: (context) =>
      solvedGauges(context).flatMap(({ result, sender, path }) =>
        when(result.curve.free.highBy !== undefined, () => ({
          what: say(
            `${sender.name} meets ${result.curve.free.highBy} before its high stop: of its travel the highest {lost} are never used, and the gauge never shows full.`,
            { lost: { value: 1 - result.curve.free.high_share, role: 'share' } },
          ),
          path: path(senderKind(sender).higherBy),
        })),
      ),
    why: 'The float must reach near the lid to read full.',
    mend: 'Set the pivot deeper, or shorten the arm.',
    source: 'geometry of the sender in the tank',
    status: 'derived',
  },
  {
    id: 'gauge.cannot-swing',
    title: 'No reading from the sender',
    stage: 'gauge',
    severity: 'stop',
    test: ({ system, evaluation }) =>
      evaluation.gauges.flatMap((gauge, g): Hit[] =>
        gauge.ok ? [] : [{ what: say(gauge.error.detail), path: pathOfGauge(system, g) }],
      ),
    why: 'A float that touches a wall sticks, and the gauge stands still.',
    mend: 'Shorten the arm, or turn or move the sender.',
    source: 'geometry of the arm in the tank',
    status: 'derived',
  },
  {
    id: 'gauge.lies',
    title: 'Gauge is far out',
    stage: 'gauge',
    severity: 'warn',
    needs: ['gauges'],
    test: (context) =>
      solvedGauges(context).flatMap(({ result, sender, path }) => {
        const { worst } = result.curve;
        return when(Math.abs(worst.error_ratio) > GAUGE_ERROR, () => ({
          what: say('With {volume} in the tank the needle says {needle}; the truth is {truth}.', {
            volume: { value: worst.at.volume_m3, role: 'tankVolume' },
            needle: { value: worst.at.needle_ratio, role: 'share' },
            truth: { value: worst.at.true_ratio, role: 'share' },
          }),
          path: path(senderKind(sender).lowerBy),
        }));
      }),
    why: 'People trust the needle and run dry.',
    mend: 'Suit arm and pivot to the depth, or use a gauge that can be calibrated, or write a table beside it.',
    source: 'geometry of arm and tank; a tenth of full scale is common practice',
    status: 'common practice',
  },
  {
    id: 'gauge.range-mismatch',
    title: 'Sender and gauge speak different ohms',
    stage: 'gauge',
    severity: 'warn',
    needs: ['gauges'],
    test: (context) =>
      solvedGauges(context).flatMap(({ sender, result, path }) => {
        const [given, wanted] = [rangeOf(sender.output), gaugeEnds(sender.gauge)];
        if (!wanted) return [];
        const off = Math.max(Math.abs(given.empty - wanted.empty), Math.abs(given.full - wanted.full));
        const role = result.signal;
        return when(off > RANGE_MISMATCH * Math.abs(wanted.full - wanted.empty), () => ({
          what: say(
            `The sender runs from {a} to {b}; the gauge wants {c} to {d}.${(given.full - given.empty) * (wanted.full - wanted.empty) < 0 ? ' The needle will run backward.' : ''}`,
            {
              a: { value: given.empty, role },
              b: { value: given.full, role },
              c: { value: wanted.empty, role },
              d: { value: wanted.full, role },
            },
          ),
          path: path('output'),
        }));
      }),
    why: 'Resistance ranges differ between makers and countries; the wrong pair reads backward, or never full.',
    mend: 'Get sender and gauge of the same range, or a converter.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'gauge.unseen',
    title: 'Fuel that the gauge never sees',
    stage: 'gauge',
    severity: 'warn',
    needs: ['gauges'],
    test: (context) =>
      solvedGauges(context).flatMap(({ result, tank, sender, path }) =>
        when(result.curve.unseenLow_m3 > UNSEEN_RATIO * tank.holds_m3, () => ({
          what: say(`Below {volume} ${sender.name} no longer moves.`, {
            volume: { value: result.curve.unseenLow_m3, role: 'tankVolume' },
          }),
          path: path(senderKind(sender).lowerBy),
        })),
      ),
    why: 'The needle rests on empty while fuel is left, and nobody knows how much.',
    mend: 'Let the float reach lower, or set the low-level lamp by the table.',
    source: 'geometry of the sender in the tank; a twelfth of the tank is common practice',
    status: 'common practice',
  },
  {
    id: 'gauge.dry-above-empty',
    title: 'It runs dry before the needle says empty',
    stage: 'gauge',
    severity: 'warn',
    needs: ['gauges'],
    test: (context) =>
      solvedGauges(context).flatMap(({ result, tank, sender, path }) =>
        tank.pickups.slice(0, 1).flatMap((pickup) => {
          const at = needleWith(result, pickup.unusableLevel_m3);
          return when(at > DRY_RATIO, () => ({
            what: say(
              `When ${pickup.name} draws air on the level, {left} are in the tank and the needle still says {needle}.`,
              { left: { value: pickup.unusableLevel_m3, role: 'tankVolume' }, needle: { value: at, role: 'share' } },
            ),
            path: path(senderKind(sender).lowerBy),
          }));
        }),
      ),
    why: 'An engine that stops with fuel on the gauge is taken for broken.',
    mend: 'Let the pickup reach lower, or the float stop higher, so that empty means that no more can be drawn.',
    source: 'common practice: a tenth of the scale',
    status: 'common practice',
  },
  {
    id: 'gauge.lamp-late',
    title: 'The low-level lamp comes too late',
    stage: 'gauge',
    severity: 'warn',
    needs: ['gauges'],
    test: (context) =>
      solvedGauges(context).flatMap(({ result, path }) =>
        when(result.lamp !== undefined && result.lamp.drawWorst_m3 <= 0, () => ({
          what: say(
            'At the worst slope asked for, and with the needle as far off as it may be, nothing more can be drawn when the lamp lights; there may be {least} in the tank.',
            { least: { value: result.lamp!.volume.least_m3, role: 'tankVolume' } },
          ),
          path: path('gauge.lamp_ratio'),
        })),
      ),
    why: 'A warning is worth what is left to act on it.',
    mend: 'Set the lamp higher on the scale, or let the float reach lower.',
    source: 'geometry of the sender in the tank and of the pickup',
    status: 'derived',
  },
  {
    id: 'gauge.broken-wire',
    title: 'A broken wire reads as empty or full',
    stage: 'gauge',
    severity: 'note',
    needs: ['gauges'],
    test: (context) =>
      solvedGauges(context).flatMap(({ result, sender, path }) =>
        when(
          result.signal === 'voltage' && Math.min(rangeOf(sender.output).empty, rangeOf(sender.output).full) === 0,
          () => ({ what: say(`${sender.name} gives 0 V at one end, as a broken wire does.`), path: path('output') }),
        ),
      ),
    why: 'Nobody can tell a fault from a reading.',
    mend: 'Prefer a range that begins above zero, such as 0.5 to 4.5 V.',
    source: 'common practice',
    status: 'common practice',
  },
  {
    id: 'gauge.capacitive-blend',
    title: 'A capacitive probe is upset by alcohol and water',
    stage: 'gauge',
    severity: 'note',
    test: ({ system }) =>
      system.tanks.flatMap((tank, t) =>
        tank.senders.flatMap((sender, s) =>
          when(
            senderKind(sender).feelsCharge === true &&
              FLUIDS[system.fluids.find(({ id }) => id === tank.fluid)!.fluid].mayTakeUpWater,
            () => ({
              what: say(`${sender.name} stands in a liquid that may carry alcohol or water.`),
              path: ['tanks', t, 'senders', s, 'kind'],
            }),
          ),
        ),
      ),
    why: 'It measures how well the liquid takes up charge, which changes with alcohol and water by far more than between petrol and diesel.',
    mend: 'Teach it with the fuel that it will stand in, and again when the blend changes; or use a float.',
    source: 'common practice: permittivity of ethanol about 24, of petrol about 2',
    status: 'common practice',
  },
  {
    id: 'gauge.sight-blind',
    title: 'A sight tube does not see the bottom',
    stage: 'gauge',
    severity: 'warn',
    needs: ['details'],
    test: ({ evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.sights.flatMap((sight, s) => {
          const path: Path = ['tanks', t, 'sightTubes', s, 'lower_m'];
          if (!sight.scale.ok) return [{ what: say(sight.scale.error.detail), path }];
          const { unseenLow_m3 } = sight.scale.value;
          return when(unseenLow_m3 > SIGHT_RATIO * tank.holds_m3, () => ({
            what: say(`Below the lower boss of ${sight.name} lie {volume} that it never shows.`, {
              volume: { value: unseenLow_m3, role: 'tankVolume' },
            }),
            path,
          }));
        }),
      ),
    why: 'Whoever reads it takes an empty tube for an empty tank, or trusts what is below and runs dry.',
    mend: 'Set the lower boss near the floor.',
    source: 'geometry of the tank; a twentieth is common practice',
    status: 'common practice',
  },
  {
    id: 'gauge.no-stick',
    title: 'A dipstick does not reach the floor',
    stage: 'gauge',
    severity: 'warn',
    needs: ['details'],
    test: ({ evaluation }) =>
      evaluation.tanks.flatMap((tank, t) =>
        tank.dips.flatMap((dip, d): Hit[] =>
          dip.scale.ok ? [] : [{ what: say(dip.scale.error.detail), path: ['tanks', t, 'dipsticks', d, 'port'] }],
        ),
      ),
    why: 'Its marks would stand for nothing.',
    mend: 'Put it through a port that has floor under it.',
    source: 'geometry of the tank',
    status: 'derived',
  },
  {
    id: 'gauge.salvaged-unmeasured',
    title: 'A salvaged sender that nobody has measured',
    stage: 'gauge',
    severity: 'note',
    test: ({ system }) =>
      system.practice.sender !== 'salvaged'
        ? []
        : system.tanks.flatMap((tank, t) =>
            tank.senders.flatMap((sender, s) =>
              when(
                allKnown(sender.output).some(({ known }) => known.origin !== 'measured'),
                () => ({
                  what: say(`${sender.name} comes from another tank, and what it gives at its ends is not measured.`),
                  path: ['tanks', t, 'senders', s, 'output'],
                }),
              ),
            ),
          ),
    why: 'Ranges differ between makers and years, and a worn track gives what it likes.',
    mend: 'Swing it by hand with a meter on it, and write down what it gives at both stops.',
    source: 'common practice',
    status: 'common practice',
  },
];
