import { expose } from 'comlink';
import type { SystemDocument } from '@/core/document';
import { tankMap, type MapMode } from '@/core/evaluate';

const api = {
  map: (system: SystemDocument, tankIndex: number, mode: MapMode, steps: number) => tankMap(system, tankIndex, mode, steps),
};

export type MapApi = typeof api;

expose(api);
