import { createReadStream, statSync } from 'node:fs';
import { Readable } from 'node:stream';
import { backupFile, dataFolder } from '@/db';
import { hereOnly, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** A copy as a file to keep elsewhere. */
export const GET = hereOnly(
  async (_: Request, { params }: { readonly params: Promise<{ name: string }> }): Promise<Response> => {
    const { name } = await params;
    const file = backupFile(dataFolder(), name);
    if (file === undefined) return refuse(404, 'missing', 'There is no such copy.');
    return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream, {
      headers: {
        'content-type': 'application/vnd.sqlite3',
        'content-length': String(statSync(file).size),
        'content-disposition': `attachment; filename="${name}"`,
      },
    });
  },
);
