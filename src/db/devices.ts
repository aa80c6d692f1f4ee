import { randomBytes } from 'node:crypto';
import { desc, eq } from 'drizzle-orm';
import { AT_ONCE, type Db } from './connection';
import { devices, facts } from './schema';

export type Device = {
  readonly id: string;
  readonly name: string;
  readonly letInAt_ms: number;
  readonly seenAt_ms: number;
};

export const listDevices = (db: Db): Device[] => db.select().from(devices).orderBy(desc(devices.seenAt_ms)).all();

export const letIn = (db: Db, id: string, name: string, now_ms: number): void =>
  void db.insert(devices).values({ id, name, letInAt_ms: now_ms, seenAt_ms: now_ms }).run();

export const sendAway = (db: Db, id: string): boolean => db.delete(devices).where(eq(devices.id, id)).run().changes > 0;

/** How finely it is noted when a device was last seen: each note is a write. */
const NOTED_EVERY_MS = 60_000;

/** Whether a device is let in; notes that it was seen. */
export function isLetIn(db: Db, id: string, now_ms: number): boolean {
  const device = db.select().from(devices).where(eq(devices.id, id)).get();
  if (!device) return false;
  if (now_ms - device.seenAt_ms > NOTED_EVERY_MS)
    db.update(devices).set({ seenAt_ms: now_ms }).where(eq(devices.id, id)).run();
  return true;
}

const KEY = 'device-key';

/** The secret that this folder signs devices' cookies with; made when it is first asked for. */
export function deviceKey(db: Db): Buffer {
  return db.transaction((tx) => {
    const there = tx.select().from(facts).where(eq(facts.key, KEY)).get();
    if (there) return Buffer.from(there.value, 'hex');
    const made = randomBytes(32);
    tx.insert(facts)
      .values({ key: KEY, value: made.toString('hex') })
      .run();
    return made;
  }, AT_ONCE);
}
