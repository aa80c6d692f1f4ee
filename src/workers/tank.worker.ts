import { expose } from 'comlink';
import { stlShape, tankBody, unsavable, type StlShape, type SystemDocument } from '@/core/document';
import { tankMap, tankSolid, tankTable, type MapMode, type TableAt } from '@/core/evaluate';
import { stlBytes, type StlUnit } from '@/core/formats';
import { loadKernel } from '@/core/geometry';
import type { Outcome } from '@/core/outcome';
import { receiving } from './sent';

const ready = loadKernel();

/** What is asked of one tank beside its numbers. */
const api = {
  async map(system: SystemDocument, tankIndex: number, mode: MapMode, steps: number) {
    await ready;
    return tankMap(system, tankIndex, mode, steps);
  },
  async table(system: SystemDocument, tankIndex: number, step_m: number, at: TableAt, bay?: number) {
    await ready;
    return tankTable(system, tankIndex, step_m, at, bay);
  },
  async solid(system: SystemDocument, tankIndex: number) {
    await ready;
    return tankSolid(system, tankIndex);
  },
  async stl(system: SystemDocument, tankIndex: number): Promise<Uint8Array<ArrayBuffer> | undefined> {
    await ready;
    const tank = system.tanks[tankIndex];
    const body = tank && tankBody(tank);
    return body?.ok ? stlBytes(body.value.shell, tank!.name) : undefined;
  },
  async readStl(bytes: Uint8Array, unit: StlUnit, file: string): Promise<Outcome<StlShape, string>> {
    await ready;
    return stlShape(bytes, unit, file);
  },
  /** Why a system would be refused when it is saved. */
  unsavable: (system: SystemDocument): string | undefined => unsavable(system),
};

export type TankApi = typeof api;

expose(receiving(api));
