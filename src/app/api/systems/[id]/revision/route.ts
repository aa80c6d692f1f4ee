import { countRecords, database, revisionOf } from '@/db';
import { answering, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** What a system is at: for pages that look whether another device changed it. */
export const GET = answering(
  async (_: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
    const { id } = await params;
    const revision = revisionOf(database(), id);
    return revision === undefined
      ? refuse(404, 'missing', 'There is no such system; it may have been deleted.')
      : Response.json({ revision, records: countRecords(database(), id) });
  },
);
