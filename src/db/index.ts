/**
 * The one SQLite file: systems, what they were at each save, and copies of it.
 *
 * Read `schema.ts` for the tables, `systems.ts`, `ownParts.ts` and `devices.ts`
 * for all that is done with them, `open.ts` and `lookThrough.ts` for the file and what is looked
 * at before it is used, `keeping.ts` for what is kept how long, `backup.ts` for
 * copies. A change of tables is made in `schema.ts`, then `npm run db:generate`.
 */
export { openDatabase, type Db } from './connection';
export { dataFile, database, dataFolder, openData, openStore } from './open';
export { type StoreCode } from './lookThrough';
export {
  createSystem,
  deleteSystem,
  findSystem,
  cardOfSystem,
  keepCard,
  listSystems,
  loadDemoOnce,
  nameSystems,
  restoreSystem,
  revisionOf,
  saveSystem,
  systemText,
  type Found,
  type ListedSystem,
  type Listing,
  type NamedSystem,
  type SaveResult,
  type SystemRow,
} from './systems';
export { DELETED_DAYS_KEPT, LAST_REVISIONS_KEPT, REVISIONS_KEPT, tidy } from './keeping';
export {
  backUp,
  backUpDaily,
  backupFile,
  COPIES_KEPT,
  copyTo,
  listBackups,
  restoreBackup,
  type Backup,
  type BackupKind,
} from './backup';
export {
  findRevision,
  listRevisions,
  MOST_NAMED,
  MOST_REVISION_NAME,
  nameRevision,
  restoreRevision,
  type Revision,
} from './revisions';
export { deviceKey, isLetIn, letIn, listDevices, sendAway, type Device } from './devices';
export { countRecords } from './records';
export { addOwnParts, listOwnParts, removeOwnPart, type OwnPart } from './ownParts';
