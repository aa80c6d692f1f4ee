import { database, removeOwnPart } from '@/db';
import { answering, refuse } from '@/server/http';

type Context = { readonly params: Promise<{ id: string }> };

export const DELETE = answering(async (request: Request, { params }: Context): Promise<Response> => {
  return removeOwnPart(database(), (await params).id)
    ? new Response(null, { status: 204 })
    : refuse(404, 'missing', 'There is no such part in the catalogue; it may have been removed.');
});
