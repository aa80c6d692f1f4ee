import { readFileSync } from 'node:fs';
import path from 'node:path';
import { parseSystemText } from '@/core/plan';
import { openStore, revisionOf, saveSystem } from '@/db';

/**
 * Saves one system again and again, as the route does, until it is killed: reads
 * the document from text, saves it, then says which revision it was told.
 */
const [folder, id] = process.argv.slice(2) as [string, string];
// Where nobody listens any more, nobody kills it either.
process.stdout.on('error', () => process.exit(1));
const store = openStore(folder, Date.now());
if (!store.ok) throw new Error(store.error.detail);
const text = readFileSync(path.join(folder, 'document.json'), 'utf8');
for (let from = revisionOf(store.value, id)!; ; from++) {
  // What is saved says which revision it is.
  const parsed = parseSystemText(text.replace('"description":""', `"description":"revision ${from + 1}"`));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  const saved = saveSystem(store.value, id, parsed.value, from, 'drill', Date.now());
  if (!saved.saved) throw new Error(saved.reason);
  process.stdout.write(`${saved.revision}\n`);
  await new Promise((resolve) => setImmediate(resolve));
}
