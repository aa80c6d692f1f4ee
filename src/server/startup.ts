import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { parseSystemText } from '@/core/plan';
import { success, type Outcome } from '@/core/outcome';
import { backUpDaily, dataFolder, loadDemoOnce, openData, tidy, type Db, type StoreCode } from '@/db';

/**
 * Opens and migrates the data file, loads the demo when asked to, and keeps house from then on; or says in one sentence
 * why not.
 */
export function startUp(): Outcome<Db, StoreCode> {
  const opened = openData(Date.now());
  if (!opened.ok) return opened;
  if (process.env.GASLINE_DEMO === '1') loadDemoOnce(opened.value, demoSystems(), Date.now());
  keepHouse(opened.value);
  return success(opened.value);
}

/** The same for whoever can do nothing without it. */
export function startUpOrExit(): Db {
  const started = startUp();
  if (started.ok) return started.value;
  console.error(started.error.detail);
  process.exit(1);
}

const HOUR_MS = 3_600_000;
const shared = globalThis as typeof globalThis & { gaslineHouse?: NodeJS.Timeout };

/** The day's copy, and what is to go, now and once an hour: a server that runs on sees the days change. */
function keepHouse(db: Db): void {
  const keep = (): void => {
    try {
      backUpDaily(db, dataFolder(), Date.now());
      tidy(db, Date.now());
    } catch (error) {
      console.error(
        `The day's copy of the data was not made: ${(error as Error).message}. Look at the disk, and at the folder backups in ${dataFolder()}.`,
      );
    }
  };
  if (shared.gaslineHouse) return;
  shared.gaslineHouse = setInterval(keep, HOUR_MS);
  shared.gaslineHouse.unref();
  keep();
}

/** Order in which the demo is shown on a first visit. */
const DEMO_FIRST = ['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer', 'van-heater'];

export function demoSystems(folder = path.join(process.cwd(), 'demo')) {
  const names = readdirSync(/*turbopackIgnore: true*/ folder)
    .filter((file) => file.endsWith('.json'))
    .map((file) => file.replace(/\.json$/, ''));
  const rank = (name: string): number => (DEMO_FIRST.includes(name) ? DEMO_FIRST.indexOf(name) : DEMO_FIRST.length);
  return names
    .sort((a, b) => rank(a) - rank(b))
    .map((id) => {
      const parsed = parseSystemText(readFileSync(/*turbopackIgnore: true*/ path.join(folder, `${id}.json`), 'utf8'));
      if (!parsed.ok) throw new Error(`demo/${id}.json: ${parsed.error.detail}`);
      return { id, document: parsed.value };
    });
}
