import { answering, bodyJson, checked, refuse } from '@/server/http';
import { endRig, pourBody, pourInto } from '@/server/rig';
import { MOST_OF_A_RIG, rigStream } from '@/server/rigStreams';

export const dynamic = 'force-dynamic';

type Context = { readonly params: Promise<{ id: string }> };

const missing = (): Response =>
  refuse(404, 'missing', 'There is no such rig; it has ended, or the server was started again.');

/** Readings as they come, as server-sent events. */
export const GET = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const stream = rigStream((await params).id, request.signal);
  if (stream === undefined) return missing();
  if (stream === 'too-many')
    return refuse(429, 'too-many', `Up to ${MOST_OF_A_RIG} pages can look at one rig; close one that does.`);
  return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
});

/** Pours into the rig, or draws off. */
export const POST = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const body = await bodyJson(request, '{"volume_m3": 0.005}');
  if (!body.ok) return body.response;
  const pour = checked(() => pourBody.validateSync(body.value, { strict: true, abortEarly: false }));
  if (!pour.ok) return refuse(422, 'bad-pour', pour.detail);
  const sample = pourInto(
    (await params).id,
    pour.value.volume_m3,
    pour.value.flow_m3PerS ?? USUAL_FLOW_M3_PER_S,
    Date.now(),
  );
  return sample ? Response.json(sample) : missing();
});
/** 30 L/min, as a can runs out. */
const USUAL_FLOW_M3_PER_S = 0.0005;

/** Ends the rig and tells what was true of it. */
export const DELETE = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const truth = endRig((await params).id);
  return truth ? Response.json(truth) : missing();
});
