import { randomNetwork } from './networkFuzz';
import { faultsOf } from './networkLaws';
import { solveNetwork } from '../../src/core/network';
const N = Number(process.argv[2] ?? 2000), regs = Number(process.argv[3] ?? 0), from=Number(process.argv[4]??0);
let wrong=0; const codes: Record<string, number> = {}; const ex: string[]=[]; let its=0, most=0;
const t=Date.now();
for (let s=from;s<from+N;s++){ const net=randomNetwork(s,regs); const r=solveNetwork(net);
 if(!r.ok){codes[r.error.code]=(codes[r.error.code]??0)+1; if(ex.length<15 && !['pump-loop'].includes(r.error.code)) ex.push(`${s}: ${r.error.code} ${r.error.detail}`);continue;}
 its+=r.value.iterations; most=Math.max(most,r.value.iterations);
 const f=faultsOf(net,r.value); if(f.length){wrong++; if(wrong<8) console.log(s, r.value.iterations, f);} }
console.log({N,wrong,codes,its,most,ms:Date.now()-t}); console.log(ex.join('\n'));
