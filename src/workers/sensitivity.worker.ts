import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import { sensitivity, type Sensitivity } from '@/core/evaluate';
import { findingKeys } from '@/core/rules';

const api = {
  sensitivity: (system: SystemDocument): Sensitivity => sensitivity(system, findingKeys),
};

export type SensitivityApi = typeof api;

expose(api);
