import { fileNameOf } from '@/core/document';
import { database, findSystem } from '@/db';
import { answering, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** The system as a file to keep or pass on. */
export const GET = answering(async (_: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
  const row = findSystem(database(), (await params).id);
  if (!row) return refuse(404, 'missing', 'There is no such system; it may have been deleted.');
  return new Response(`${JSON.stringify(row.document, null, 2)}\n`, {
    headers: { 'content-type': 'application/json; charset=utf-8', 'content-disposition': `attachment; filename="system.gasline.json"; filename*=UTF-8''${encodeURIComponent(`${fileNameOf(row.document.name)}.gasline.json`)}` },
  });
});
