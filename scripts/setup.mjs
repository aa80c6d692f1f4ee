import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** What both commands of the README need before anything of ours can run. Plain Node, no packages. */
export const root = path.resolve(import.meta.dirname, '..');

/** Runs a command with its output shown; returns its exit code. */
export function run(command, args, options = {}) {
  const { env, ...rest } = options;
  const result = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    ...rest,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
  });
  if (result.error) console.error(`${command} could not be started: ${result.error.message}`);
  return result.status ?? 1;
}

/** The same without waiting; its output is given back when it ends. */
export const runQuietly = (command, args, env = {}) =>
  new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr])
      stream.setEncoding('utf8').on('data', (text) => {
        output += text;
      });
    child.on('error', (error) => done({ code: 1, output: `${command} could not be started: ${error.message}` }));
    child.on('close', (code) => done({ code: code ?? 1, output }));
  });

const sha = (text) => createHash('sha256').update(text).digest('hex');

/**
 * Brings in the packages from the lock file, unless what is there came from it
 * already. What comes back ends when what must be compiled for this machine is
 * done, which takes longer than all the rest: whoever does not need the
 * database may begin before.
 */
export function ensureInstalled() {
  checkNode();
  const wanted = sha(readFileSync(path.join(root, 'package-lock.json')) + process.version);
  const stamp = path.join(root, 'node_modules', '.gasline-installed');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return Promise.resolve();
  console.log('Installing from the lock file (a few minutes the first time) …');
  if (
    run('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error', '--include=dev'], {
      env: { NODE_ENV: 'development' },
    }) !== 0
  ) {
    console.error('The installation failed. It needs the npm registry.');
    process.exit(1);
  }
  // better-sqlite3 compiles where no ready-made binary can be had, and then wants Node's own headers.
  const headers = existsSync('/usr/include/node/node.h') ? { npm_config_nodedir: '/usr' } : {};
  return runQuietly('npm', ['rebuild', '--loglevel=error'], { ...headers, NODE_ENV: 'development' }).then(
    ({ code, output }) => {
      if (code !== 0) {
        console.error(
          `${output}\nThe installation failed. Where better-sqlite3 must be compiled it needs python3, make and g++.`,
        );
        process.exit(1);
      }
      writeFileSync(stamp, wanted);
    },
  );
}

function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 9)) return;
  console.error(`Gas Line needs Node.js 20.9 or newer; this is ${process.version}.`);
  process.exit(1);
}

const BUILT_FROM = ['src', 'next.config.ts', 'tsconfig.json', 'package-lock.json'];

/** Fingerprint of everything a build depends on. */
function sourcePrint() {
  const hash = createHash('sha256');
  const visit = (file) => {
    if (statSync(file).isDirectory())
      readdirSync(file)
        .sort()
        .forEach((name) => visit(path.join(file, name)));
    else hash.update(path.relative(root, file)).update(readFileSync(file));
  };
  BUILT_FROM.map((name) => path.join(root, name))
    .filter(existsSync)
    .forEach(visit);
  return hash.digest('hex');
}

/** Builds, unless the last build was of the same sources. Comes back with the exit code. */
export async function ensureBuilt() {
  const stamp = path.join(root, '.next', '.gasline-built');
  const wanted = sourcePrint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return 0;
  console.log('Building …');
  const code = run('npx', ['next', 'build']);
  if (code !== 0) return code;
  await bundleServer();
  mkdirSync(path.dirname(stamp), { recursive: true });
  writeFileSync(stamp, wanted);
  return 0;
}

/** The server that `npm run demo` and `npm start` run, as one file: it starts at once and takes half the memory. */
const bundleServer = () => bundled('src/server/serve.ts', SERVER);

/**
 * One file out of a program of ours and all of ours that it needs; packages stay where they are. Comes back with its
 * path.
 */
export async function bundled(entry, out) {
  const { build } = await import('esbuild');
  const outfile = path.join(root, out);
  await build({
    entryPoints: [path.join(root, entry)],
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'warning',
    outfile,
  });
  return outfile;
}
/** Where that file lies. */
export const SERVER = '.next/serve.mjs';
