import { fileNameOf } from '@/core/plan';
import { database, findSystem, systemText } from '@/db';
import { answering, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** The system as a file to keep or pass on; one that cannot be read goes out as it is kept. */
export const GET = answering(
  async (_: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
    const { id } = await params;
    const kept = systemText(database(), id);
    if (!kept) return refuse(404, 'missing', 'There is no such system; it may have been deleted.');
    const found = findSystem(database(), id);
    return new Response(found.ok ? `${JSON.stringify(found.value.document, null, 2)}\n` : kept.text, {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="system.gasline.json"; filename*=UTF-8''${encodeURIComponent(`${fileNameOf(kept.name)}.gasline.json`)}`,
      },
    });
  },
);
