import { ensureBuilt, ensureInstalled } from './setup.mjs';

/** `npm run build`: installs where that is needed, builds where something changed. */
await ensureInstalled();
process.exit(await ensureBuilt());
