import { say, when, type Hit, type Rule, type RuleContext } from './rule';

const GAUGE_ERROR = 0.1;
const RANGE_MISMATCH = 0.1;

const solvedGauges = ({ system, evaluation }: RuleContext) =>
  evaluation.gauges.flatMap((gauge) => {
    if (!gauge.ok) return [];
    const t = system.tanks.findIndex((tank) => tank.id === gauge.value.tank);
    const s = system.tanks[t]!.senders.findIndex((sender) => sender.id === gauge.value.sender);
    return [{ result: gauge.value, sender: system.tanks[t]!.senders[s]!, path: (key: string) => ['tanks', t, 'senders', s, key] }];
  });

export const GAUGE_RULES: readonly Rule[] = [
  {
    id: 'gauge.float-hits-floor',
    title: 'Float stops before its low end',
    stage: 'gauge', severity: 'warn',
    test: (context) => solvedGauges(context).flatMap(({ result, sender, path }) => when(result.curve.swing.lowBlocked, () => ({
      what: say(`The float of ${sender.name} meets floor or wall at {angle}, before its low stop at {stop}; the gauge never shows empty.`, {
        angle: { value: result.curve.swing.low_rad, role: 'slope' }, stop: { value: (sender.lowStop_deg.value * Math.PI) / 180, role: 'slope' },
      }),
      path: path('armLength_m'),
    }))),
    why: 'A sender from another tank is wrong for this depth: the needle stands above empty while the tank runs dry.',
    mend: 'Shorten the arm or raise the pivot so that the float clears the floor at its low stop.',
    source: 'geometry of the arm in the tank', status: 'derived',
  },
  {
    id: 'gauge.float-hits-lid',
    title: 'Float stops before its high end',
    stage: 'gauge', severity: 'warn',
    test: (context) => solvedGauges(context).flatMap(({ result, sender, path }) => when(result.curve.swing.highBlocked, () => ({
      what: say(`The float of ${sender.name} meets lid or wall at {angle}, before its high stop at {stop}; the gauge never shows full.`, {
        angle: { value: result.curve.swing.high_rad, role: 'slope' }, stop: { value: (sender.highStop_deg.value * Math.PI) / 180, role: 'slope' },
      }),
      path: path('pivotDepth_m'),
    }))),
    why: 'The float must reach near the lid to read full.',
    mend: 'Set the pivot deeper, or shorten the arm.',
    source: 'geometry of the arm in the tank', status: 'derived',
  },
  {
    id: 'gauge.cannot-swing',
    title: 'Float cannot swing',
    stage: 'gauge', severity: 'stop',
    test: ({ evaluation }) => evaluation.gauges.flatMap((gauge): Hit[] => (gauge.ok ? [] : [{ what: say(gauge.error.detail), path: ['tanks', 0, 'senders', 0, 'armLength_m'] }])),
    why: 'A float that touches a wall sticks, and the gauge stands still.',
    mend: 'Shorten the arm, or turn or move the sender.',
    source: 'geometry of the arm in the tank', status: 'derived',
  },
  {
    id: 'gauge.lies',
    title: 'Gauge is far out',
    stage: 'gauge', severity: 'warn',
    test: (context) => solvedGauges(context).flatMap(({ result, path }) => {
      const { worst } = result.curve;
      return when(Math.abs(worst.error_ratio) > GAUGE_ERROR, () => ({
        what: say('With {volume} in the tank the needle says {needle}; the truth is {truth}.', {
          volume: { value: worst.at.volume_m3, role: 'tankVolume' }, needle: { value: worst.at.needle_ratio, role: 'share' }, truth: { value: worst.at.true_ratio, role: 'share' },
        }),
        path: path('armLength_m'),
      }));
    }),
    why: 'People trust the needle and run dry.',
    mend: 'Suit arm and pivot to the depth, or use a gauge that can be calibrated, or write a table beside it.',
    source: 'geometry of arm and tank; a tenth of full scale is common practice', status: 'common practice',
  },
  {
    id: 'gauge.range-mismatch',
    title: 'Sender and gauge speak different ohms',
    stage: 'gauge', severity: 'warn',
    test: (context) => solvedGauges(context).flatMap(({ sender, path }) => {
      const span = Math.abs(sender.gauge.fullResistance_ohm.value - sender.gauge.emptyResistance_ohm.value);
      const off = Math.max(
        Math.abs(sender.emptyResistance_ohm.value - sender.gauge.emptyResistance_ohm.value), Math.abs(sender.fullResistance_ohm.value - sender.gauge.fullResistance_ohm.value));
      return when(off > RANGE_MISMATCH * span, () => ({
        what: say('The sender runs from {a} to {b}; the gauge wants {c} to {d}.', {
          a: { value: sender.emptyResistance_ohm.value, role: 'resistance' }, b: { value: sender.fullResistance_ohm.value, role: 'resistance' },
          c: { value: sender.gauge.emptyResistance_ohm.value, role: 'resistance' }, d: { value: sender.gauge.fullResistance_ohm.value, role: 'resistance' },
        }),
        path: path('emptyResistance_ohm'),
      }));
    }),
    why: 'Resistance ranges differ between makers and countries; the wrong pair reads backward, or never full.',
    mend: 'Get sender and gauge of the same range, or a converter.',
    source: 'common practice', status: 'common practice',
  },
];
