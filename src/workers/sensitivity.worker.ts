import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import { influencesOf, together, type Influence, type Sensitivity } from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import { findingKeys } from '@/core/rules';
import { receiving } from './sent';

const ready = loadKernel();

/** Lets messages in; a timer would wait longer. */
const messages = new MessageChannel();
const pause = (): Promise<void> =>
  new Promise((resolve) => {
    messages.port1.onmessage = () => resolve();
    messages.port2.postMessage(undefined);
  });

let asked = 0;

const api = {
  /** Spreads and what moves them; nothing when it was stopped, or asked of another document, before it was done. */
  async sensitivity(system: SystemDocument): Promise<Sensitivity | undefined> {
    const mine = ++asked;
    await ready;
    const found: Influence[] = [];
    for (const influence of influencesOf(system, findingKeys)) {
      found.push(influence);
      await pause();
      if (mine !== asked) return undefined;
    }
    return together(found);
  },
  /** Leaves off: the document has changed. */
  stop(): void {
    asked++;
  },
};

export type SensitivityApi = typeof api;

expose(receiving(api));
