import { readFileSync } from 'node:fs';
import { draftSystem, chosen, withValue, toPath } from '../src/core/document';
import { reachOf } from '../src/core/evaluate';
import { loadKernel } from '../src/core/geometry';
await loadKernel();
const s = draftSystem({ name: 'Sound', vehicle: 'road', consumer: 'diesel-engine', power_W: 20e3, holds_m3: 0.015, length_m: 0.3, width_m: 0.25, height_m: 0.22 });
console.log(s.tanks[0]!.ports.map(p=>[p.id,p.face,p.x_m?.value,p.y_m?.value,p.bore_m.value]));
const r = reachOf(s); if (r.ok) for (const a of r.value) console.log('  ', a.tank, a.name, a.job, a.when, a.names.join(' | '), a.at?.key, a.at?.arc_deg.toFixed(0), a.acrossFlats_m);
