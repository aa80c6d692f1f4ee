import { database, listRevisions, revisionOf } from '@/db';
import { answering, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** The saves of a system that are kept, the latest first. */
export const GET = answering(
  async (_: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
    const { id } = await params;
    return revisionOf(database(), id) === undefined
      ? refuse(404, 'missing', 'There is no such system; it may have been deleted.')
      : Response.json({ revisions: listRevisions(database(), id) });
  },
);
