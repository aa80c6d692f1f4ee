'use client';

/** Who waits for the answer: somebody who looks at the screen, or nobody in particular. */
export type Lane = 'soon' | 'whenever';

/** A machine of few cores is kept free for the numbers: on two, one job of either lane runs at a time. */
const slots = (): number => Math.max(1, Math.floor((globalThis.navigator?.hardwareConcurrency ?? 2) / 2));

const lanes: Readonly<Record<Lane, { running: number; readonly waiting: (() => void)[] }>> = {
  soon: { running: 0, waiting: [] },
  whenever: { running: 0, waiting: [] },
};

/**
 * Runs a worker's job when its lane has a slot, first come, first served. What it gives back or throws is the job's
 * own.
 */
export async function inBackground<T>(name: Lane, job: () => Promise<T>): Promise<T> {
  const lane = lanes[name];
  if (lane.running >= slots()) await new Promise<void>((go) => lane.waiting.push(go));
  else lane.running++;
  try {
    return await job();
  } finally {
    // Whoever is next takes over the slot.
    const next = lane.waiting.shift();
    if (next) next();
    else lane.running--;
  }
}
