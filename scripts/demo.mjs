import { spawn } from 'node:child_process';
import path from 'node:path';
import { ensureBuilt, ensureInstalled, root, SERVER } from './setup.mjs';

/**
 * `npm run demo [-- --lan]`: installs, builds, then serves with the demo loaded; what the server says of its start is
 * passed on.
 */
await ensureInstalled();
if ((await ensureBuilt()) !== 0) process.exit(1);
const data = path.resolve(root, process.env.GASLINE_DATA ?? 'data');
const server = spawn(process.execPath, [path.join(root, SERVER), ...process.argv.slice(2)], {
  cwd: root,
  stdio: ['ignore', 'inherit', 'inherit'],
  env: { ...process.env, NODE_ENV: 'production', GASLINE_DEMO: '1', GASLINE_DATA: data, NEXT_TELEMETRY_DISABLED: '1' },
});
server.on('exit', (code) => process.exit(code ?? 1));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
