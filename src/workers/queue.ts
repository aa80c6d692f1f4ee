import type { Steps } from '@/core/steps';

/** Lets messages in; a timer would wait longer. */
const messages = new MessageChannel();
const waiting: (() => void)[] = [];
messages.port1.onmessage = () => waiting.shift()?.();
const letMessagesIn = (): Promise<void> =>
  new Promise((resolve) => {
    waiting.push(resolve);
    messages.port2.postMessage(undefined);
  });

/** So long one job goes on before the queue is looked at again. */
const SLICE_MS = 4;

type Job = {
  readonly slot: string;
  readonly urgency: number;
  readonly steps: Steps<unknown>;
  readonly done: (whole: { readonly value: unknown } | undefined) => void;
  readonly broke: (error: unknown) => void;
};

/**
 * Jobs in steps, the most urgent first, whichever came first of equals. A job
 * gives way between two steps; one that is asked again in the same slot, or
 * dropped, is left off there and comes to undefined.
 */
export function workQueue(pause: () => Promise<void> = letMessagesIn, now: () => number = () => performance.now()) {
  const jobs: Job[] = [];
  let isRunning = false;

  const leaveOff = (job: Job): void => {
    jobs.splice(jobs.indexOf(job), 1);
    job.done(undefined);
  };
  const drop = (slots: readonly string[]): void => jobs.filter(({ slot }) => slots.includes(slot)).forEach(leaveOff);

  /** A slice of a job; takes it out of the queue where it ended. */
  const work = (job: Job): void => {
    const until = now() + SLICE_MS;
    try {
      do {
        const step = job.steps.next();
        if (!step.done) continue;
        jobs.splice(jobs.indexOf(job), 1);
        return job.done({ value: step.value });
      } while (now() < until);
    } catch (error) {
      jobs.splice(jobs.indexOf(job), 1);
      job.broke(error);
    }
  };

  const go = async (): Promise<void> => {
    isRunning = true;
    // Whatever was sent in one go is seen before the first is chosen.
    await pause();
    while (jobs.length > 0) {
      work(jobs.reduce((first, each) => (each.urgency < first.urgency ? each : first)));
      await pause();
    }
    isRunning = false;
  };

  return {
    drop,
    run: <T>(slot: string, urgency: number, steps: Steps<T>): Promise<{ readonly value: T } | undefined> =>
      new Promise((resolve, reject) => {
        drop([slot]);
        jobs.push({ slot, urgency, steps, done: resolve as Job['done'], broke: reject });
        if (!isRunning) void go();
      }),
  };
}
