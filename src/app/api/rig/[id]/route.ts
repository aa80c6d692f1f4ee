import { answering, bodyJson, refuse, refusedOrigin } from '@/server/http';
import { checked, endRig, pourBody, pourInto, readRig } from '@/server/rig';

export const dynamic = 'force-dynamic';

type Context = { readonly params: Promise<{ id: string }> };

const missing = (): Response => refuse(404, 'missing', 'There is no such rig; it has ended, or the server was started again.');
const EVERY_MS = 200;

/** Readings as they come, as server-sent events. */
export const GET = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const refused = refusedOrigin(request);
  if (refused) return refused;
  const { id } = await params;
  if (!readRig(id, Date.now())) return missing();
  const encoder = new TextEncoder();
  let timer: ReturnType<typeof setInterval> | undefined;
  const stop = (): void => clearInterval(timer);
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (): void => {
        const sample = readRig(id, Date.now());
        if (sample) controller.enqueue(encoder.encode(`data: ${JSON.stringify(sample)}\n\n`));
        else {
          stop();
          controller.close();
        }
      };
      send();
      timer = setInterval(send, EVERY_MS);
      request.signal.addEventListener('abort', stop);
    },
    cancel: stop,
  });
  return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
});

/** Pours into the rig, or draws off. */
export const POST = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const body = await bodyJson(request, '{"volume_m3": 0.005}');
  if (!body.ok) return body.response;
  const pour = checked(() => pourBody.validateSync(body.value, { strict: true, abortEarly: false }));
  if (!pour.ok) return refuse(422, 'bad-pour', pour.detail);
  const sample = pourInto((await params).id, pour.value.volume_m3, pour.value.flow_m3PerS ?? USUAL_FLOW_M3_PER_S, Date.now());
  return sample ? Response.json(sample) : missing();
});
/** 30 L/min, as a can runs out. */
const USUAL_FLOW_M3_PER_S = 0.0005;

/** Ends the rig and tells what was true of it. */
export const DELETE = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const refused = refusedOrigin(request);
  if (refused) return refused;
  const truth = endRig((await params).id);
  return truth ? Response.json(truth) : missing();
});
