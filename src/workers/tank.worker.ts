import { expose } from 'comlink';
import { meshText, tankBody, type MeshText, type SystemDocument } from '@/core/document';
import { tankMap, tankSolid, tankTable, type MapMode, type TableAt } from '@/core/evaluate';
import { readStl, stlBytes, type StlCode, type StlUnit } from '@/core/formats';
import { loadKernel } from '@/core/geometry';
import type { Outcome } from '@/core/outcome';

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
  readStl(bytes: Uint8Array, unit: StlUnit): Outcome<MeshText, StlCode> {
    const read = readStl(bytes, unit);
    return read.ok ? { ok: true, value: meshText(read.value) } : read;
  },
};

export type TankApi = typeof api;

expose(api);
