import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { liveWorker, useWorkerNotice, type Made } from './liveWorker';

type Api = { readonly double: (value: number) => Promise<number> };

/** A worker that answers when told to, and can be made to die. */
function fake() {
  const made: {
    answers: ((value: number) => void)[];
    fail: ((reason: Error) => void)[];
    die: (event: 'error' | 'messageerror') => void;
    ended: boolean;
  }[] = [];
  const make = (): Made<Api> => {
    const listeners = new Map<string, () => void>();
    const self = {
      answers: [] as ((value: number) => void)[],
      fail: [] as ((reason: Error) => void)[],
      ended: false,
      die: (event: 'error' | 'messageerror') => listeners.get(event)?.(),
    };
    made.push(self);
    return {
      worker: {
        addEventListener: (name: string, listener: unknown) => void listeners.set(name, listener as () => void),
        terminate: () => {
          self.ended = true;
        },
      } as Made<Api>['worker'],
      remote: {
        double: () =>
          new Promise<number>((resolve, reject) => {
            self.answers.push(resolve);
            self.fail.push(reject);
          }),
      },
    };
  };
  return { make, made };
}

beforeEach(() => {
  vi.useFakeTimers();
  useWorkerNotice.setState({ text: undefined });
});
afterEach(() => vi.useRealTimers());

describe('a worker that is kept alive', () => {
  it('is not made only to be told to leave off', async () => {
    const { make, made } = fake();
    const worker = liveWorker<Api>('doubles', make);
    expect(worker.running()).toBeUndefined();
    expect(made).toHaveLength(0);
    void worker.remote.double(2).catch(() => undefined);
    expect(worker.running()).toBe(worker.remote);
    worker.stop();
    expect(worker.running()).toBeUndefined();
    expect(made).toHaveLength(1);
  });

  it('is made once, when it is first asked, and hands answers on', async () => {
    const { make, made } = fake();
    const live = liveWorker<Api>('the clearances', make);
    expect(made).toHaveLength(0);
    const [a, b] = [live.remote.double(1), live.remote.double(2)];
    expect(made).toHaveLength(1);
    made[0]!.answers[0]!(2);
    made[0]!.answers[1]!(4);
    expect(await Promise.all([a, b])).toEqual([2, 4]);
    expect(useWorkerNotice.getState().text).toBeUndefined();
  });

  it.each(['error', 'messageerror'] as const)(
    'that dies by %s lets nobody wait, says so, and is made anew',
    async (event) => {
      const { make, made } = fake();
      const live = liveWorker<Api>('the clearances', make);
      const waiting = [live.remote.double(1), live.remote.double(2)].map((answer) =>
        answer.catch((error: Error) => error.message),
      );
      made[0]!.die(event);
      for (const message of await Promise.all(waiting)) expect(message).toMatch(/broke off; it is started anew/);
      expect(made[0]!.ended).toBe(true);
      expect(useWorkerNotice.getState().text).toMatch(/the clearances broke off/);
      const again = live.remote.double(3);
      expect(made).toHaveLength(2);
      made[1]!.answers[0]!(6);
      expect(await again).toBe(6);
    },
  );

  it('that does not come back is ended after its time, and a late answer of it counts for nothing', async () => {
    const { make, made } = fake();
    const live = liveWorker<Api>('the reach', make, 5000);
    const waiting = live.remote.double(1).catch((error: Error) => error.message);
    vi.advanceTimersByTime(5001);
    expect(await waiting).toMatch(/did not come back within 5 s/);
    expect(made[0]!.ended).toBe(true);
    made[0]!.answers[0]!(2);
    made[0]!.die('error');
    const again = live.remote.double(3);
    expect(made).toHaveLength(2);
    made[1]!.answers[0]!(6);
    expect(await again).toBe(6);
  });

  it('whose function fails hands the failure on and lives', async () => {
    const { make, made } = fake();
    const live = liveWorker<Api>('the reach', make);
    const failing = live.remote.double(1).catch((error: Error) => error.message);
    made[0]!.fail[0]!(new Error('no'));
    expect(await failing).toBe('no');
    void live.remote.double(2);
    expect(made).toHaveLength(1);
  });

  it('that cannot be made says why, and is tried again', async () => {
    let tries = 0;
    const { make } = fake();
    const live = liveWorker<Api>('the reach', () => {
      tries++;
      if (tries === 1) throw new Error('no memory');
      return make();
    });
    expect(await live.remote.double(1).catch((error: Error) => error.message)).toBe('no memory');
    void live.remote.double(1);
    expect(tries).toBe(2);
  });

  it('that is stopped on purpose tells those who wait, and nobody else', async () => {
    const { make, made } = fake();
    const live = liveWorker<Api>('the search', make);
    const waiting = live.remote.double(1).catch((error: Error) => error.message);
    live.stop();
    expect(await waiting).toBe('stopped');
    expect(made[0]!.ended).toBe(true);
    expect(useWorkerNotice.getState().text).toBeUndefined();
  });
});
