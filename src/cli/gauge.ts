import { calibrationResult, designedSender, refittedSender, taughtByPours } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { numberFrom, UsageError } from './args';
import { failed, type Verb } from './verb';

const POINTS = 5;

export const gauge: Verb = {
  name: 'gauge',
  summary: 'needle against volume with its band, and the worst error; a sender designed; a calibration read',
  prints:
    'gauges[]: signal, curve.points[] (volume_m3, share, reading [ohm or V as signal says], needle_ratio, true_ratio), curve.worst, band[], marks[], lamp, now; scales of sight tubes and dipsticks; with --design, --refit, --calibration their answers',
  options: {
    design: 'id of a swing-arm sender: pivot depth and arm length for its port and depth',
    refit: 'id of a swing-arm sender from another tank: what to cut or bend of it',
    calibration: 'id of a calibration in the file: what the pours say',
    points: `with --calibration: how many points the gauge takes; ${POINTS} where it is left out`,
  },
  needs: 'lines',
  run: (system, { gauges, tanks }, options) => ({
    system: system.name,
    gauges: gauges.map((result) => (result.ok ? { ok: true, ...result.value } : failed(result.error))),
    scales: tanks.flatMap(({ sights, dips }) =>
      [...sights, ...dips].map(({ scale, ...rest }) => ({
        ...rest,
        scale: scale.ok ? scale.value : failed(scale.error),
      })),
    ),
    ...(options.design === undefined ? {} : { design: designed(system, options.design) }),
    ...(options.refit === undefined ? {} : { refit: refitted(system, options.refit) }),
    ...(options.calibration === undefined
      ? {}
      : {
          calibration: calibrated(
            system,
            options.calibration,
            options.points === undefined ? POINTS : numberFrom('--points', options.points),
          ),
        }),
  }),
};

/** Where a sender or calibration stands in the document, by its id. */
function placeOf(system: SystemDocument, list: 'senders' | 'calibrations', id: string): readonly [number, number] {
  for (const [t, tank] of system.tanks.entries()) {
    const index = tank[list].findIndex((one) => one.id === id);
    if (index >= 0) return [t, index];
  }
  const there = system.tanks.flatMap((tank) => tank[list].map((one) => one.id)).join(', ');
  throw new UsageError(
    `There is no ${list === 'senders' ? 'sender' : 'calibration'} "${id}"; there is ${there || 'none'}.`,
  );
}

function designed(system: SystemDocument, id: string) {
  const answer = designedSender(system, ...placeOf(system, 'senders', id), 'any');
  return answer.ok ? answer.value : failed(answer.error);
}

function refitted(system: SystemDocument, id: string) {
  const answer = refittedSender(system, ...placeOf(system, 'senders', id));
  return answer.ok ? answer.value : failed(answer.error);
}

function calibrated(system: SystemDocument, id: string, points: number) {
  if (!Number.isInteger(points) || points < 2 || points > 64)
    throw new UsageError(`--points wants a whole number from 2 to 64; it is ${points}.`);
  const answer = calibrationResult(system, ...placeOf(system, 'calibrations', id));
  if (!answer.ok) return failed(answer.error);
  const { measured, explained, ...rest } = answer.value;
  const table = taughtByPours(answer.value, points, 'best');
  return {
    ...rest,
    measured: measured.ok ? measured.value : failed(measured.error),
    explained: explained.ok ? explained.value : failed(explained.error),
    table: table.ok ? table.value : failed(table.error),
  };
}
