import { database, sendAway } from '@/db';
import { hereOnly, refuse } from '@/server/http';

/** Sends a device away: its cookie counts no more. */
export const DELETE = hereOnly(
  async (_: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> =>
    sendAway(database(), (await params).id)
      ? new Response(null, { status: 204 })
      : refuse(404, 'missing', 'There is no such device; it may have been sent away.'),
);
