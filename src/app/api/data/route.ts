import { backUp, database, dataFolder, listBackups } from '@/db';
import { hereOnly } from '@/server/http';

export const dynamic = 'force-dynamic';

/** Copies of the data that are kept beside it. */
export const GET = hereOnly((): Response =>
  Response.json({ folder: dataFolder(), backups: listBackups(dataFolder()) }),
);

/** Makes a copy of the data as it is now. */
export const POST = hereOnly((): Response =>
  Response.json(backUp(database(), dataFolder(), 'asked-for', Date.now()), { status: 201 }),
);
