import { MOST_RECORDS } from '@/core/plan';
import { database, deleteSystem, findSystem, saveSystem } from '@/db';
import { answering, bodySystem, decodedHeader, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

type Context = { readonly params: Promise<{ id: string }> };

const missing = (): Response => refuse(404, 'missing', 'There is no such system; it may have been deleted.');

export const GET = answering(async (_: Request, { params }: Context): Promise<Response> => {
  const found = findSystem(database(), (await params).id);
  return found.ok
    ? Response.json(found.value)
    : refuse(found.error.code === 'missing' ? 404 : 422, found.error.code, found.error.detail);
});

/** Saves a document over the revision named in If-Match. */
export const PUT = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const from = Number(request.headers.get('if-match') ?? Number.NaN);
  if (!Number.isInteger(from)) return refuse(428, 'no-revision', 'Say in If-Match which revision this replaces.');
  const body = await bodySystem(request);
  if (!body.ok) return body.response;
  const edit = (decodedHeader(request, 'x-edit') ?? 'edited').slice(0, 120);
  const result = saveSystem(database(), (await params).id, body.document, from, edit, Date.now());
  if (result.saved) return Response.json({ revision: result.revision });
  if (result.reason === 'altered')
    return refuse(
      422,
      'record-altered',
      `The record ${result.record} was written down otherwise. Records are only added to: correct it by another that names it. Nothing was saved.`,
    );
  if (result.reason === 'too-many-records')
    return refuse(
      422,
      'too-many-records',
      `A system takes ${MOST_RECORDS} records, and has them. Nothing was saved; keep a copy by Export.`,
    );
  return result.reason === 'missing'
    ? missing()
    : refuse(
        409,
        'conflict',
        'This system was changed in another window since; reload to see it, or save yours as a copy.',
      );
});

export const DELETE = answering(async (request: Request, { params }: Context): Promise<Response> => {
  return deleteSystem(database(), (await params).id, Date.now()) ? new Response(null, { status: 204 }) : missing();
});
