import { object, string } from 'yup';
import { PLAIN_NAME } from '@/core/formats';
import { database, findRevision, MOST_NAMED, MOST_REVISION_NAME, nameRevision } from '@/db';
import { answering, bodyJson, checked, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

type Context = { readonly params: Promise<{ id: string; revision: string }> };

const named = object({
  name: string()
    .trim()
    .max(MOST_REVISION_NAME, `name must have no more than ${MOST_REVISION_NAME} characters`)
    .matches(PLAIN_NAME, { message: 'name must be plain text with a letter or figure', excludeEmptyString: true })
    .defined('name is missing'),
}).noUnknown('only name can be given to a save');

/** What the system was at that save. */
export const GET = answering(async (_: Request, { params }: Context): Promise<Response> => {
  const { id, revision } = await params;
  const found = findRevision(database(), id, Number(revision));
  return found.ok
    ? Response.json({ document: found.value })
    : refuse(found.error.code === 'missing' ? 404 : 422, found.error.code, found.error.detail);
});

/** Names a save, by which it is kept for good; an empty name takes it away. */
export const PUT = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const body = await bodyJson(request, 'an object with a name');
  if (!body.ok) return body.response;
  const read = checked(() => named.validateSync(body.value, { strict: true, abortEarly: false }));
  if (!read.ok) return refuse(422, 'invalid', read.detail);
  const { id, revision } = await params;
  const done = nameRevision(database(), id, Number(revision), read.value.name.trim() || null);
  if (done === 'named') return new Response(null, { status: 204 });
  return done === 'missing'
    ? refuse(404, 'missing', 'There is no such save.')
    : refuse(409, 'too-many', `A system keeps ${MOST_NAMED} saves with a name; take one away first.`);
});
