import { costliest, mendsOf, sizeTable, type Evaluation } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { UsageError } from './args';
import { failed, type Verb } from './verb';

export const flow: Verb = {
  name: 'flow',
  summary:
    'flow and pressure at each consumer against its need; joints, profiles, spills, transfers and lists of all lines',
  prints:
    'fluid, consumers[]: delivered_m3PerS, margin_ratio, pressureAtNeed_Pa, duties[], suction, nodes[], links[], pumps[], losses[], residuals; lines: joints[], list, profiles[], jointSpills[], breakSpills[], circuits, routes[]; with --size, --costliest, --mend their answers',
  options: {
    size: 'id of a line: what it would do in every size that it is sold in',
    costliest: 'id of a consumer: the parts that cost most pressure, and what each change would gain',
    mend: 'id of a line: chains of adapters for its joints that do not go together',
  },
  needs: 'lines',
  run: (system, evaluation, options) => ({
    system: system.name,
    ambientAbs_Pa: evaluation.state.ambientAbs_Pa,
    fluid: evaluation.fluid,
    consumers: evaluation.flows.map((result, index) =>
      result.ok ? { ok: true, ...result.value } : { consumer: system.consumers[index]?.id, ...failed(result.error) },
    ),
    lines: evaluation.lines,
    ...(options.size === undefined ? {} : { size: sized(system, options.size) }),
    ...(options.costliest === undefined ? {} : { costliest: costly(system, evaluation, options.costliest) }),
    ...(options.mend === undefined ? {} : { mend: mended(system, evaluation, options.mend) }),
  }),
};

const noSuch = (what: string, id: string, there: readonly { id: string }[]): UsageError =>
  new UsageError(`There is no ${what} "${id}"; there is ${there.map((each) => each.id).join(', ') || 'none'}.`);

function sized(system: SystemDocument, id: string) {
  const line = system.lines.find((each) => each.id === id);
  if (!line) throw noSuch('line', id, system.lines);
  return (
    sizeTable(system, id) ??
    failed({ code: 'no-line', at: line.name, detail: `${line.name} is no line: its parts are screwed together.` })
  );
}

function costly(system: SystemDocument, { flows }: Evaluation, id: string) {
  const k = system.consumers.findIndex((consumer) => consumer.id === id);
  const result = flows[k];
  if (!result) throw noSuch('consumer', id, system.consumers);
  return result.ok ? costliest(system, system.consumers[k]!, result.value.losses) : failed(result.error);
}

function mended(system: SystemDocument, { lines }: Evaluation, id: string) {
  if (!system.lines.some((line) => line.id === id)) throw noSuch('line', id, system.lines);
  return (lines?.joints ?? [])
    .filter((joint) => joint.line === id)
    .map((joint) => ({
      at: joint.at,
      part: joint.part,
      state: joint.state,
      why: joint.why,
      chains: mendsOf(joint).map(({ adapters, bore_m }) => ({
        adapters: adapters.map(({ row }) => row.key),
        bore_m: Number.isFinite(bore_m) ? bore_m : null,
      })),
    }));
}
