import { catalogueCsv, MOST_OWN_PARTS, parsePart, readCatalogueCsv, type ComponentDocument } from '@/core/plan';
import { addOwnParts, database, listOwnParts } from '@/db';
import { answering, bodyJson, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** The builder's own parts; with ?as=csv as a file. */
export const GET = answering((request: Request): Response => {
  const { parts, unread } = listOwnParts(database());
  if (new URL(request.url).searchParams.get('as') !== 'csv') return Response.json({ parts, unread });
  return new Response(catalogueCsv(parts.map(({ part }) => part)), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="own-parts.csv"',
    },
  });
});

/** Files one part, { part }, or all parts of a file, { csv }: all or none. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await bodyJson(request, WANTS);
  if (!body.ok) return body.response;
  const read = partsIn(body.value);
  if (!read.ok) return read.response;
  const parts = read.parts.map((part) => ({ id: crypto.randomUUID(), part }));
  if (!addOwnParts(database(), parts, Date.now()))
    return refuse(409, 'too-many', `A catalogue takes ${MOST_OWN_PARTS} parts; remove some first.`);
  return Response.json({ added: parts.length }, { status: 201 });
});

const WANTS = '{ "part": … } or { "csv": "…" } as JSON';

function partsIn(raw: unknown): { ok: true; parts: readonly ComponentDocument[] } | { ok: false; response: Response } {
  const { part, csv } = (typeof raw === 'object' && raw !== null ? raw : {}) as { part?: unknown; csv?: unknown };
  const read = typeof csv === 'string' ? readCatalogueCsv(csv) : part === undefined ? undefined : parsePart(part);
  if (!read) return { ok: false, response: refuse(422, 'invalid', `Send ${WANTS}.`) };
  if (!read.ok) return { ok: false, response: refuse(422, read.error.code, read.error.detail) };
  return {
    ok: true,
    parts: Array.isArray(read.value) ? (read.value as readonly ComponentDocument[]) : [read.value as ComponentDocument],
  };
}
