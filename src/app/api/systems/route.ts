import { createSystem, database, listSystems, revisionOf } from '@/db';
import { buildId } from '@/server/build';
import { answering, bodySystem, checked, refuse } from '@/server/http';
import { listQuery } from '@/server/queries';

export const dynamic = 'force-dynamic';

/** A piece of the library: ?from=0&most=24&having=text of a name. */
export const GET = answering((request: Request): Response => {
  const query = checked(() =>
    listQuery.validateSync(Object.fromEntries(new URL(request.url).searchParams), { abortEarly: false }),
  );
  return query.ok
    ? Response.json(listSystems(database(), buildId(), query.value))
    : refuse(422, 'bad-query', query.detail);
});

/** Files a new system; with ?variantOf=ID as a variant of one that is there. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await bodySystem(request);
  if (!body.ok) return body.response;
  const variantOf = new URL(request.url).searchParams.get('variantOf') ?? undefined;
  if (variantOf !== undefined && revisionOf(database(), variantOf) === undefined)
    return refuse(404, 'missing', 'The system to fork is not there; it may have been deleted.');
  const row = createSystem(database(), crypto.randomUUID(), body.document, Date.now(), {
    edit: variantOf === undefined ? 'created' : 'forked',
    variantOf,
  });
  return Response.json({ id: row.id, revision: row.revision }, { status: 201 });
});
