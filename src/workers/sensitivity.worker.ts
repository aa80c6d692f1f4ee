import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import { influencesOf, together, type Influence, type Sensitivity } from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import { findingKeys } from '@/core/rules';
import type { Steps } from '@/core/steps';
import { receiving } from './sent';
import { stoppable } from './stoppable';

const ready = loadKernel();

const work = stoppable();

function* inSteps(system: SystemDocument): Steps<Sensitivity> {
  const found: Influence[] = [];
  for (const influence of influencesOf(system, findingKeys)) {
    found.push(influence);
    yield;
  }
  return together(found);
}

const api = {
  /** Spreads and what moves them; nothing when it was stopped, or asked of another document, before it was done. */
  async sensitivity(system: SystemDocument): Promise<Sensitivity | undefined> {
    await ready;
    return work.run(inSteps(system));
  },
  /** Leaves off: the document has changed. */
  stop: work.stop,
};

export type SensitivityApi = typeof api;

expose(receiving(api));
