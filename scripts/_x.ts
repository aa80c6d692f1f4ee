import { readFileSync } from 'node:fs';
import { parseSystemText } from '../src/core/document';
import { evaluateSystem, faceSheets } from '../src/core/evaluate';
import { findingsOf } from '../src/core/rules';
import { loadKernel } from '../src/core/geometry';
import { messageText } from '../src/core/units';
await loadKernel();
for (const f of ['demo/crab-boat','demo/forest-trailer','demo/hill-climb-car','demo/snow-vehicle','tests/fixtures/box-boat']) {
  const r = parseSystemText(readFileSync(`${f}.json`, 'utf8'));
  if (!r.ok) continue;
  const s = r.value;
  let t0 = performance.now(); evaluateSystem(s,'numbers','without-fit'); const n1=performance.now()-t0;
  t0 = performance.now(); evaluateSystem(s,'numbers','without-fit'); const n2=performance.now()-t0;
  t0 = performance.now(); const e = evaluateSystem(s,'full','without-fit'); const fl=performance.now()-t0;
  t0 = performance.now(); s.tanks.forEach((_, i) => faceSheets(s,i)); const fs=performance.now()-t0;
  console.log(f, 'numbers', n1|0, n2|0, 'full', fl|0, 'sheets', fs|0);
  if (e.ok) {
    console.log(findingsOf(s,e.value).map(x=>x.id+': '+messageText(x.what,'metric')).join('\n   '));
    e.value.sheets.forEach((sh) => sh.ok ? sh.value.filter(x=>x.ports.length).forEach(x => console.log('  ', x.name, x.kind, x.ports.map(p => `${p.name} at ${p.at_m.map(v=>(v*1000)|0)} hole ${p.hole_m*1000} ${p.checks.map(c=>c.kind+' '+c.with+' '+(c.have_m*1000).toFixed(1)).join('; ')}`), x.baffles.length, x.over.map(o=>o.name))) : console.log(sh.error));
    console.log('   reserves', JSON.stringify(e.value.reserves)); console.log('   pickups', e.value.tanks.flatMap(t=>t.pickups.map(p=>JSON.stringify(p.plan))).join('\n     '));
  }
}
