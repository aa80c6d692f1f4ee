import { answering, bodySystem, checked, refuse } from '@/server/http';
import { rigQuery, startRig } from '@/server/rig';

export const dynamic = 'force-dynamic';

/** Starts a simulated rig of a sender of the system in the body. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await bodySystem(request);
  if (!body.ok) return body.response;
  const query = checked(() =>
    rigQuery.validateSync(Object.fromEntries(new URL(request.url).searchParams), { abortEarly: false }),
  );
  if (!query.ok) return refuse(422, 'bad-query', query.detail);
  const started = await startRig(body.document, query.value, crypto.randomUUID(), Date.now());
  return started.ok
    ? Response.json(started.value, { status: 201 })
    : refuse(422, started.error.code, started.error.detail);
});
