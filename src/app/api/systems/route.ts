import { createSystem, database, findSystem, listSystems } from '@/db';
import { answering, bodySystem, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

export const GET = answering((): Response => {
  return Response.json({ systems: listSystems(database()) });
});

/** Files a new system; with ?variantOf=ID as a variant of one that is there. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await bodySystem(request);
  if (!body.ok) return body.response;
  const variantOf = new URL(request.url).searchParams.get('variantOf') ?? undefined;
  if (variantOf !== undefined && !findSystem(database(), variantOf)) return refuse(404, 'missing', 'The system to fork is not there; it may have been deleted.');
  const row = createSystem(database(), crypto.randomUUID(), body.document, Date.now(), { edit: variantOf === undefined ? 'created' : 'forked', variantOf });
  return Response.json({ id: row.id, revision: row.revision }, { status: 201 });
});
