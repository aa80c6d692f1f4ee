import { describe, expect, it } from 'vitest';
import { allSteps, type Steps } from '@/core/steps';
import { stoppable } from './stoppable';

/** Counts so far, in so many steps. */
function* counted(most: number, told: number[]): Steps<number> {
  for (let i = 1; i <= most; i++) {
    told.push(i);
    yield;
  }
  return most;
}

describe('work that can be left off', () => {
  it('comes to what its steps come to', async () => {
    const told: number[] = [];
    expect(await stoppable().run(counted(5, told))).toBe(5);
    expect(told).toEqual([1, 2, 3, 4, 5]);
    expect(allSteps(counted(3, []))).toBe(3);
  });

  it('leaves off between two steps when told to, and says so', async () => {
    const told: number[] = [];
    const work = stoppable();
    const running = work.run(counted(1000, told));
    await new Promise((resolve) => setTimeout(resolve));
    work.stop();
    expect(await running).toBeUndefined();
    expect(told.length).toBeLessThan(1000);
  });

  it('leaves off when it is asked anew, and answers the newer question', async () => {
    const work = stoppable();
    const [first, second] = [work.run(counted(1000, [])), work.run(counted(4, []))];
    expect(await first).toBeUndefined();
    expect(await second).toBe(4);
  });

  it('what breaks in a step is told', async () => {
    function* broken(): Steps<number> {
      yield;
      throw new Error('broke');
    }
    await expect(stoppable().run(broken())).rejects.toThrow('broke');
  });
});
