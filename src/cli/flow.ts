import { costliest, mendsOf, sizeTable, type Evaluation } from '@/core/answers';
import type { Outcome } from '@/core/outcome';
import type { SystemDocument } from '@/core/plan';
import { UsageError } from './args';
import { failed, type Verb } from './verb';

export const flow: Verb = {
  name: 'flow',
  summary:
    'flow and pressure at each consumer against its need; joints, profiles, spills, transfers and lists of all lines',
  prints:
    'fluid, consumers[]: delivered_m3PerS, margin_ratio, pressureAtNeed_Pa, duties[], suction, nodes[], links[], pumps[], losses[], residuals; expelled[] (what crankcases and cooling systems throw out): source, name, kind, tank (id, name) or null, comes, pressure and boils (each a number, an error, or null where it is not asked of that kind), room_m3, isCovered, drainLeaves_m3, along_m, coolant (boils_K, boilsAt[] by altitude_m, toBoiling_m3, marks (cold and hot: volume_m3, height_m; holds_m3), coldLeft_m3), null where not known; lines: joints[], list, profiles[], jointSpills[], breakSpills[], circuits, routes[]; with --size, --costliest, --mend their answers',
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
    expelled: evaluation.expelled.map(printedExpelled),
    lines: evaluation.lines,
    ...(options.size === undefined ? {} : { size: sized(system, options.size) }),
    ...(options.costliest === undefined ? {} : { costliest: costly(system, evaluation, options.costliest) }),
    ...(options.mend === undefined ? {} : { mend: mended(system, evaluation, options.mend) }),
  }),
};

/** What is not there or not known is null. */
const orNull = <T>(value: T | undefined): T | null => value ?? null;
const printed = (result: Outcome<number> | undefined) =>
  result === undefined ? null : result.ok ? result.value : failed(result.error);

const printedExpelled = ({ comes, pressure, boils, coolant, ...rest }: Evaluation['expelled'][number]) => ({
  ...rest,
  tank: orNull(rest.tank),
  room_m3: orNull(rest.room_m3),
  isCovered: orNull(rest.isCovered),
  drainLeaves_m3: orNull(rest.drainLeaves_m3),
  along_m: orNull(rest.along_m),
  comes: printed(comes),
  pressure: printed(pressure),
  boils: printed(boils),
  coolant: coolant
    ? {
        boils_K: orNull(coolant.boils_K),
        boilsAt: coolant.boilsAt.map(({ altitude_m, boils_K }) => ({ altitude_m, boils_K: orNull(boils_K) })),
        toBoiling_m3: orNull(coolant.toBoiling_m3),
        marks: coolant.marks,
        coldLeft_m3: coolant.coldLeft_m3,
      }
    : null,
});

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
