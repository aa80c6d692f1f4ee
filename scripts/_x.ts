import { readFileSync } from 'node:fs';
import { parseSystemText } from '../src/core/document';
import { reachOf } from '../src/core/evaluate';
import { loadKernel } from '../src/core/geometry';
await loadKernel();
for (const n of ['snow-vehicle','forest-trailer','crab-boat','hill-climb-car']) {
  const p = parseSystemText(readFileSync(`demo/${n}.json`,'utf8')); if (!p.ok) { console.log(p.error); continue; }
  const t=performance.now(); const r = reachOf(p.value); 
  console.log(n, (performance.now()-t).toFixed(0),'ms');
  if (!r.ok) { console.log(r.error); continue; }
  for (const a of r.value) console.log('  ', a.tank, a.name, a.job, a.when, a.names.join(' | '), a.at?.key, a.at?.arc_deg.toFixed(0), a.acrossFlats_m);
}
