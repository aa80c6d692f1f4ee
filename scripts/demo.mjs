import { spawn } from 'node:child_process';
import net from 'node:net';
import path from 'node:path';
import { ensureBuilt, ensureInstalled, root } from './setup.mjs';

/** `npm run demo`: installs, builds, migrates, loads the demo once, serves. */
const HOST = '127.0.0.1';
const port = Number(process.env.PORT ?? 3000);

await ensureInstalled();
if (ensureBuilt() !== 0) process.exit(1);
if (!(await isFree(port))) {
  console.error(`Port ${port} is taken, perhaps by a Gas Line that already runs: http://${HOST}:${port}. Set PORT to use another.`);
  process.exit(1);
}
const data = path.resolve(root, process.env.GASLINE_DATA ?? 'data');
const server = spawn(process.execPath, [path.join(root, 'node_modules/next/dist/bin/next'), 'start', '-H', HOST, '-p', String(port)], {
  cwd: root, stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, NODE_ENV: 'production', GASLINE_DEMO: '1', GASLINE_DATA: data, NEXT_TELEMETRY_DISABLED: '1' },
});
server.on('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
await answers(`http://${HOST}:${port}/api/systems`);
console.log(`Gas Line runs at http://${HOST}:${port} (Ctrl+C stops it). Your data: ${data}`);

function isFree(wanted) {
  return new Promise((resolve) => {
    const probe = net.createServer().once('error', () => resolve(false)).once('listening', () => probe.close(() => resolve(true)));
    probe.listen(wanted, HOST);
  });
}

async function answers(url) {
  for (let tries = 0; tries < 150; tries++) {
    try {
      if ((await fetch(url)).ok) return;
    } catch {
      // Not up yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  console.error('The server did not answer within 30 seconds.');
  server.kill();
  process.exit(1);
}
