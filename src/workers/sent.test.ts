import { describe, expect, it } from 'vitest';
import { draftSystem, toPath, withValue, type SystemDocument } from '@/core/plan';
import { receiving, sender } from './sent';

const DRAFT = draftSystem({ name: 'Draft', vehicle: 'boat', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.1 });
const api = { same: (system: SystemDocument, ..._rest: readonly unknown[]) => system };
const named = (name: string, system = DRAFT): SystemDocument => withValue(system, toPath('tanks.0.name'), name);

/** A line to a worker: what goes over it is copied. */
function line() {
  const send = sender();
  const worker = receiving(api);
  const bytes: number[] = [];
  const call = (...args: readonly unknown[]): SystemDocument => {
    const copied = structuredClone(send(args));
    bytes.push(JSON.stringify(copied).length);
    return (worker.same as (...given: readonly unknown[]) => SystemDocument)(...copied);
  };
  return { call, bytes };
}

describe('a document on its way to a worker', () => {
  it('goes whole once, and then as what changed', () => {
    const { call, bytes } = line();
    expect(call(DRAFT)).toEqual(DRAFT);
    expect(call(named('Another'), 1, 'two')).toEqual(named('Another'));
    expect(call(named('Another'))).toEqual(named('Another'));
    expect(bytes[0]).toBeGreaterThan(JSON.stringify(DRAFT).length);
    expect(Math.max(...bytes.slice(1))).toBeLessThan(200);
  });

  it('keeps the very same branches where nothing changed', () => {
    const { call } = line();
    const first = call(DRAFT);
    const second = call(named('Another'));
    expect(second.lines).toBe(first.lines);
    expect(second.tanks[0]!.shape).toBe(first.tanks[0]!.shape);
    expect(second.tanks[0]).not.toBe(first.tanks[0]);
  });

  it('another system altogether comes over too, and so does going back', () => {
    const { call } = line();
    call(DRAFT);
    const other = { ...structuredClone(DRAFT), lines: [], name: 'Other' };
    expect(call(other)).toEqual(other);
    expect(call(DRAFT)).toEqual(DRAFT);
  });

  it('what is lost on the way is an error, never an older document', () => {
    const send = sender();
    const worker = receiving(api);
    const [first, , third] = [DRAFT, named('lost'), named('third')].map((system) => send([system])[0]);
    worker.same(first as SystemDocument);
    expect(() => worker.same(third as SystemDocument)).toThrow('a document was lost on its way');
    expect(() => receiving(api).same(send([named('x')])[0] as SystemDocument)).toThrow();
  });
});
