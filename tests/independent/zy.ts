import { randomNetwork } from './networkFuzz';
import { solveNetwork } from '../../src/core/network';
for (const s of process.argv.slice(2).map(Number)) { const net=randomNetwork(s,0); const r=solveNetwork(net); console.log(s, JSON.stringify(r).slice(0,300));
 for(const l of net.links) console.log(l.id,l.from,l.to,JSON.stringify(l.elements)); console.log(JSON.stringify(net.nodes)); }
