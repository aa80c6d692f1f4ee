import { readRig, type RigSample } from './rig';

/** How often a rig's readings go out. */
const EVERY_MS = 200;
export const MOST_OF_A_RIG = 4;
export const MOST_STREAMS = 24;
/** Samples that a reader may be behind before it is let go. */
const MOST_BEHIND = 50;

type Watcher = { readonly sample: (sample: RigSample) => void; readonly ended: () => void };
type Watched = { readonly watchers: Set<Watcher>; readonly timer: ReturnType<typeof setInterval> };
const shared = globalThis as typeof globalThis & { gaslineStreams?: Map<string, Watched> };
/** One timer a rig, however many look at it. */
const watched = (shared.gaslineStreams ??= new Map());

/** How many look at one rig, and at all. */
export const streamsNow = (id: string): { readonly ofRig: number; readonly all: number } => ({
  ofRig: watched.get(id)?.watchers.size ?? 0,
  all: [...watched.values()].reduce((sum, { watchers }) => sum + watchers.size, 0),
});

/** Calls with each reading until what comes back is called, or the rig ends. */
function watch(id: string, watcher: Watcher): () => void {
  const entry: Watched = watched.get(id) ?? { watchers: new Set(), timer: setInterval(() => tell(id), EVERY_MS) };
  watched.set(id, entry);
  entry.watchers.add(watcher);
  return () => {
    if (!entry.watchers.delete(watcher) || entry.watchers.size > 0) return;
    clearInterval(entry.timer);
    if (watched.get(id) === entry) watched.delete(id);
  };
}

function tell(id: string): void {
  const entry = watched.get(id);
  const sample = readRig(id, Date.now());
  for (const watcher of [...(entry?.watchers ?? [])]) {
    if (sample) watcher.sample(sample);
    else watcher.ended();
  }
}

/** A rig's readings as server-sent events; "too-many" where no more can look, undefined where there is no such rig. */
export function rigStream(id: string, signal: AbortSignal): ReadableStream<Uint8Array> | 'too-many' | undefined {
  const first = readRig(id, Date.now());
  if (!first) return undefined;
  const now = streamsNow(id);
  if (now.ofRig >= MOST_OF_A_RIG || now.all >= MOST_STREAMS) return 'too-many';
  const encoder = new TextEncoder();
  let leave = (): void => undefined;
  return new ReadableStream<Uint8Array>({
    start(controller) {
      const end = (): void => {
        leave();
        controller.close();
      };
      const sample = (reading: RigSample): void => {
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(reading)}\n\n`));
        if ((controller.desiredSize ?? 0) < -MOST_BEHIND) end();
      };
      leave = watch(id, { sample, ended: end });
      sample(first);
      signal.addEventListener('abort', () => leave(), { once: true });
    },
    cancel: () => leave(),
  });
}
