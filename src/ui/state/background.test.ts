import { afterEach, expect, it, vi } from 'vitest';
import { inBackground } from './background';

afterEach(() => vi.unstubAllGlobals());

/** A job that ends when it is told to. */
function job(order: string[], name: string) {
  let end: (failed?: Error) => void = () => undefined;
  const run = (): Promise<string> => {
    order.push(`${name} begins`);
    return new Promise((resolve, reject) => {
      end = (failed) => (failed ? reject(failed) : resolve(name));
    });
  };
  return { run, end: (failed?: Error) => end(failed) };
}

const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

it('on two cores one job of a lane runs at a time, in turn, and one that fails lets the next in', async () => {
  vi.stubGlobal('navigator', { hardwareConcurrency: 2 });
  const order: string[] = [];
  const [a, b, c, other] = ['a', 'b', 'c', 'other'].map((name) => job(order, name)) as [
    ReturnType<typeof job>,
    ReturnType<typeof job>,
    ReturnType<typeof job>,
    ReturnType<typeof job>,
  ];
  const answers = [a, b, c].map(({ run }) => inBackground('soon', run).catch((error: Error) => error.message));
  void inBackground('whenever', other.run);
  await settled();
  expect(order).toEqual(['a begins', 'other begins']);
  a.end(new Error('broke'));
  await settled();
  expect(order.slice(2)).toEqual(['b begins']);
  b.end();
  await settled();
  c.end();
  other.end();
  expect(await Promise.all(answers)).toEqual(['broke', 'b', 'c']);
  const late = job(order, 'late');
  const answer = inBackground('soon', late.run);
  late.end();
  expect(order.at(-1)).toBe('late begins');
  expect(await answer).toBe('late');
});

it('on eight cores four run at once', async () => {
  vi.stubGlobal('navigator', { hardwareConcurrency: 8 });
  const order: string[] = [];
  const jobs = Array.from({ length: 5 }, (_, i) => job(order, String(i)));
  const answers = jobs.map(({ run }) => inBackground('soon', run));
  await settled();
  expect(order).toHaveLength(4);
  jobs[0]!.end();
  await settled();
  expect(order).toHaveLength(5);
  jobs.slice(1).forEach(({ end }) => end());
  expect(await Promise.all(answers)).toEqual(['0', '1', '2', '3', '4']);
});
