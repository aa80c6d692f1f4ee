import { sentCardSchema } from '@/core/answers';
import { database, keepCard } from '@/db';
import { buildId } from '@/server/build';
import { answering, bodyJson, checked, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** Keeps a card as a page of this build worked it out: of the revision in If-Match, at the conditions beside it. */
export const PUT = answering(
  async (request: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
    const revision = Number(request.headers.get('if-match') ?? Number.NaN);
    if (!Number.isInteger(revision))
      return refuse(428, 'no-revision', 'Say in If-Match which revision this was worked out of.');
    const body = await bodyJson(request, 'the card as JSON');
    if (!body.ok) return body.response;
    const sent = checked(() => sentCardSchema.validateSync(body.value, { strict: true, abortEarly: true }));
    if (!sent.ok) return refuse(422, 'invalid', sent.detail);
    const { card, conditions } = sent.value;
    const source = { revision, build: buildId(), conditions };
    return keepCard(database(), (await params).id, source, JSON.stringify(card))
      ? new Response(null, { status: 204 })
      : refuse(409, 'conflict', 'The system has changed since, or is gone.');
  },
);
