/**
 * The one SQLite file: systems and what they were at each save.
 *
 * Read `schema.ts` for the tables, `systems.ts` and `ownParts.ts` for all that is
 * done with them, `open.ts` for the file and its migrations. A change of tables is made
 * in `schema.ts`, then `npm run db:generate`.
 */
export { database, dataFolder, openDatabase, type Db } from './open';
export {
  createSystem, deleteSystem, findSystem, listRevisions, listSystems, loadDemoOnce, restoreSystem, REVISIONS_KEPT, saveSystem,
  type SaveResult, type SystemRow,
} from './systems';
export { addOwnParts, listOwnParts, removeOwnPart, type OwnPart } from './ownParts';
