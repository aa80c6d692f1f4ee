import { backupFile, database, dataFolder, restoreBackup } from '@/db';
import { bodyJson, hereOnly, refuse } from '@/server/http';

/** Brings back one of the copies: { "name": "…" }. */
export const POST = hereOnly(async (request: Request): Promise<Response> => {
  const body = await bodyJson(request, '{"name": "the name of a copy"}');
  if (!body.ok) return body.response;
  const { name } = (typeof body.value === 'object' && body.value !== null ? body.value : {}) as { name?: unknown };
  const file = typeof name === 'string' ? backupFile(dataFolder(), name) : undefined;
  if (file === undefined) return refuse(404, 'missing', 'There is no such copy.');
  const restored = restoreBackup(database(), dataFolder(), file, Date.now());
  return restored.ok ? Response.json(restored.value) : refuse(422, restored.error.code, restored.error.detail);
});
