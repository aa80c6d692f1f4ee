import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import { costliest, evaluateSystem, sizeTable, type Costliest, type SizeTable } from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import { failure, success, type Outcome } from '@/core/outcome';
import { receiving } from './sent';

const ready = loadKernel();

/** What is asked of lines beside the numbers: what other sizes and parts would do. */
const api = {
  async sizes(system: SystemDocument, line: string): Promise<Outcome<SizeTable>> {
    await ready;
    const table = sizeTable(system, line);
    return table ? success(table) : failure('no-line', line, 'That line is not there, or it has no length of its own.');
  },
  /** Of one consumer's feed, by its number. */
  async costliest(system: SystemDocument, k: number): Promise<Outcome<readonly Costliest[]>> {
    await ready;
    const evaluation = evaluateSystem(system, 'numbers', 'without-fit');
    if (!evaluation.ok) return evaluation;
    const flow = evaluation.value.flows[k];
    const consumer = system.consumers[k];
    if (!flow || !consumer) return failure('no-consumer', 'consumers', 'Nothing burns the fuel yet.');
    return flow.ok ? success(costliest(system, consumer, flow.value.losses)) : flow;
  },
};

export type LinesApi = typeof api;

expose(receiving(api));
