import { createSystem, database, listSystems } from '@/db';
import { bodySystem } from '@/server/http';

export const dynamic = 'force-dynamic';

export function GET(): Response {
  return Response.json({ systems: listSystems(database()) });
}

export async function POST(request: Request): Promise<Response> {
  const body = await bodySystem(request);
  if (!body.ok) return body.response;
  const row = createSystem(database(), crypto.randomUUID(), body.document, Date.now());
  return Response.json({ id: row.id, revision: row.revision }, { status: 201 });
}
