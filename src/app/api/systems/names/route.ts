import { database, nameSystems } from '@/db';
import { answering } from '@/server/http';

export const dynamic = 'force-dynamic';

/** All systems by name alone. */
export const GET = answering((): Response => Response.json({ systems: nameSystems(database()) }));
