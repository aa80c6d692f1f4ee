import { database, restoreRevision } from '@/db';
import { answering, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

type Context = { readonly params: Promise<{ id: string; revision: string }> };

/** Makes an earlier save the present one, over the revision named in If-Match. */
export const POST = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const from = Number(request.headers.get('if-match') ?? Number.NaN);
  if (!Number.isInteger(from)) return refuse(428, 'no-revision', 'Say in If-Match which revision this replaces.');
  const { id, revision } = await params;
  const done = restoreRevision(database(), id, Number(revision), from, Date.now());
  if ('saved' in done) {
    if (done.saved) return Response.json({ revision: done.revision });
    return done.reason === 'missing'
      ? refuse(404, 'missing', 'There is no such system; it may have been deleted.')
      : refuse(409, 'conflict', 'The system was changed since this list was made; reload it.');
  }
  if (done.ok) throw new Error('a restored save is saved or refused');
  return refuse(done.error.code === 'missing' ? 404 : 422, done.error.code, done.error.detail);
});
