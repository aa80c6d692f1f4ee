import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import { sensitivity, type Sensitivity } from '@/core/evaluate';
import { loadKernel } from '@/core/geometry';
import { findingKeys } from '@/core/rules';

const ready = loadKernel();

const api = {
  async sensitivity(system: SystemDocument): Promise<Sensitivity> {
    await ready;
    return sensitivity(system, findingKeys);
  },
};

export type SensitivityApi = typeof api;

expose(api);
