import { database, restoreSystem } from '@/db';
import { answering, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

export const POST = answering(
  async (request: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
    return restoreSystem(database(), (await params).id)
      ? new Response(null, { status: 204 })
      : refuse(404, 'missing', 'There is no such system to bring back.');
  },
);
