import { readFileSync, writeFileSync } from 'node:fs';
import { parseSystemText } from '../src/core/document';
for (const f of ['demo/crab-boat','demo/forest-trailer','demo/hill-climb-car','demo/snow-vehicle','tests/fixtures/box-boat']) {
  const r = parseSystemText(readFileSync(`${f}.json`, 'utf8'));
  if (!r.ok) { console.log(f, JSON.stringify(r.error).slice(0,600)); continue; }
  writeFileSync(`${f}.json`, JSON.stringify(r.value, null, 2) + '\n');
}
