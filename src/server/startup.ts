import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { parseSystemText } from '@/core/document';
import { database, loadDemoOnce } from '@/db';

/** Opens and migrates the data file, and loads the demo when asked to. */
export function startUp(): void {
  const db = database();
  if (process.env.GASLINE_DEMO === '1') loadDemoOnce(db, demoSystems(), Date.now());
}

/** Order in which the demo is shown on a first visit. */
const DEMO_FIRST = ['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer'];

export function demoSystems(folder = path.join(process.cwd(), 'demo')) {
  const names = readdirSync(/*turbopackIgnore: true*/ folder).filter((file) => file.endsWith('.json')).map((file) => file.replace(/\.json$/, ''));
  const rank = (name: string): number => (DEMO_FIRST.includes(name) ? DEMO_FIRST.indexOf(name) : DEMO_FIRST.length);
  return names.sort((a, b) => rank(a) - rank(b)).map((id) => {
    const parsed = parseSystemText(readFileSync(/*turbopackIgnore: true*/ path.join(folder, `${id}.json`), 'utf8'));
    if (!parsed.ok) throw new Error(`demo/${id}.json: ${parsed.error.detail}`);
    return { id, document: parsed.value };
  });
}
