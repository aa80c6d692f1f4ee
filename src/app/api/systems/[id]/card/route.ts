import { cardSchema } from '@/core/answers';
import { database, keepCard } from '@/db';
import { buildId } from '@/server/build';
import { answering, bodyJson, checked, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** Keeps what a card shows, worked out by a page of this build from the revision named in If-Match. */
export const PUT = answering(
  async (request: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
    const revision = Number(request.headers.get('if-match') ?? Number.NaN);
    if (!Number.isInteger(revision))
      return refuse(428, 'no-revision', 'Say in If-Match which revision this was worked out of.');
    const body = await bodyJson(request, 'the card as JSON');
    if (!body.ok) return body.response;
    const card = checked(() => cardSchema.validateSync(body.value, { strict: true, abortEarly: true }));
    if (!card.ok) return refuse(422, 'invalid', card.detail);
    return keepCard(database(), (await params).id, revision, buildId(), JSON.stringify(card.value))
      ? new Response(null, { status: 204 })
      : refuse(409, 'conflict', 'The system has changed since, or is gone.');
  },
);
