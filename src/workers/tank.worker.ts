import { expose } from 'comlink';
import { meshText, tankBody, type MeshText, type SystemDocument } from '@/core/document';
import { tankMap, tankSolid, tankTable, type MapMode, type TableAt } from '@/core/evaluate';
import { readStl, stlBytes, type StlCode, type StlUnit } from '@/core/formats';
import { loadKernel, meshBounds, type Vec3 } from '@/core/geometry';
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
  /** The mesh as a document holds it, and where its aft, starboard, lower corner lies in the file. */
  readStl(bytes: Uint8Array, unit: StlUnit): Outcome<{ readonly mesh: MeshText; readonly corner_m: Vec3 }, StlCode> {
    const read = readStl(bytes, unit);
    return read.ok ? { ok: true, value: { mesh: meshText(read.value), corner_m: meshBounds(read.value).min } } : read;
  },
};

export type TankApi = typeof api;

expose(api);
