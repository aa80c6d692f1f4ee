import { describe, expect, it } from 'vitest';
import { allSteps, type Steps } from '@/core/steps';
import { seeded } from '@/core/seeded';
import { workQueue } from './queue';

/** Steps that tell what they do, each in its turn. */
function* steps(name: string, count: number, told: string[]): Steps<string> {
  for (let i = 0; i < count; i++) {
    told.push(name);
    yield;
  }
  return name;
}
/** Every look at the clock is a slice later, so that the queue is looked at after each step. */
const clock = () => {
  let time = 0;
  return () => (time += 100);
};
const pause = (): Promise<void> => new Promise((go) => setTimeout(go));

describe('a queue of work in steps', () => {
  it('the most urgent first, whichever came first of equals; one that is under way gives way', async () => {
    const told: string[] = [];
    const queue = workQueue(pause, clock());
    const slow = queue.run('slow', 2, steps('slow', 4, told));
    await pause();
    await pause();
    const [also, quick] = [
      queue.run('also', 2, steps('also', 1, told)),
      queue.run('quick', 0, steps('quick', 2, told)),
    ];
    expect(await Promise.all([slow, also, quick])).toEqual([{ value: 'slow' }, { value: 'also' }, { value: 'quick' }]);
    const from = told.indexOf('quick');
    expect(from).toBeGreaterThan(0);
    expect(told.slice(from, from + 2)).toEqual(['quick', 'quick']);
    expect(told.at(-1)).toBe('also');
  });

  it('asked again in the same slot: the older comes to nothing', async () => {
    const told: string[] = [];
    const queue = workQueue(pause, clock());
    const [older, newer] = [queue.run('one', 1, steps('older', 3, told)), queue.run('one', 1, steps('newer', 1, told))];
    expect(await older).toBeUndefined();
    expect(await newer).toEqual({ value: 'newer' });
    expect(told).toEqual(['newer']);
  });

  it('dropped: left off between two steps, and the rest goes on', async () => {
    const told: string[] = [];
    const queue = workQueue(pause, clock());
    const [left, kept] = [
      queue.run('left', 0, steps('left', 1000, told)),
      queue.run('kept', 1, steps('kept', 1, told)),
    ];
    await pause();
    await pause();
    queue.drop(['left', 'never there']);
    expect(await left).toBeUndefined();
    expect(await kept).toEqual({ value: 'kept' });
    expect(told.filter((name) => name === 'left').length).toBeLessThan(1000);
  });

  it('one that breaks breaks alone', async () => {
    const queue = workQueue(pause, clock());
    const broken = queue.run(
      'broken',
      0,
      (function* (): Steps<string> {
        yield;
        throw new Error('out of metal');
      })(),
    );
    const sound = queue.run('sound', 1, steps('sound', 2, []));
    await expect(broken).rejects.toThrow('out of metal');
    expect(await sound).toEqual({ value: 'sound' });
  });

  it('undefined is an answer, and told apart from none', async () => {
    const queue = workQueue(pause, clock());

    const nothing = function* (): Steps<undefined> {
      return undefined;
    };
    expect(await queue.run('nothing', 0, nothing())).toEqual({ value: undefined });
  });

  it.each([...Array(20).keys()])(
    'seed %i: whatever comes in whatever order, each ends, the last of a slot with its answer',
    async (seed) => {
      const random = seeded(seed).uniform;
      const queue = workQueue(pause, clock());
      const last = new Map<string, number>();
      const dropped = new Set<string>();
      const all = Array.from({ length: 30 }, (_, i) => {
        const slot = `slot ${Math.floor(random() * 8)}`;
        last.set(slot, i);
        dropped.delete(slot);
        const asked = queue.run(slot, Math.floor(random() * 3), steps(String(i), Math.floor(random() * 4), []));
        if (random() < 0.15) {
          queue.drop([slot]);
          dropped.add(slot);
        }
        return { slot, i, asked };
      });
      for (const { slot, i, asked } of all)
        expect(await asked).toEqual(last.get(slot) === i && !dropped.has(slot) ? { value: String(i) } : undefined);
      expect(allSteps(steps('x', 2, []))).toBe('x');
    },
  );
});
