import { existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

/**
 * `npm run -s gasline`: the command line, compiled the first time and whenever
 * something that it is made of is newer. What a verb does not need is not loaded.
 */
const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..');
const kept = path.join(root, 'node_modules/.cache/gasline');
const MADE_OF = ['src/cli', 'src/core', 'src/db', 'package-lock.json', 'scripts/gasline.mjs'];

const newest = (file) => {
  const stat = statSync(file);
  return stat.isDirectory()
    ? Math.max(stat.mtimeMs, ...readdirSync(file).map((name) => newest(path.join(file, name))))
    : stat.mtimeMs;
};

/** Compiled beside and then put in its place whole: two that are started at once do not meet a half of it. */
async function compile(folder) {
  const { build } = await import('esbuild');
  const beside = `${folder}-${process.pid}`;
  await build({
    entryPoints: [path.join(root, 'src/cli/gasline.ts')],
    bundle: true,
    splitting: true,
    minify: true,
    platform: 'node',
    format: 'esm',
    outdir: beside,
    outExtension: { '.js': '.mjs' },
    // What has native code or files of its own stays where it is.
    external: ['better-sqlite3', 'manifold-3d'],
    banner: {
      js: "import{createRequire as gaslineRequire}from'node:module';const require=gaslineRequire(import.meta.url);",
    },
    logLevel: 'warning',
  });
  try {
    renameSync(beside, folder);
  } catch (error) {
    // The other was first.
    if (!existsSync(folder)) throw error;
    rmSync(beside, { recursive: true, force: true });
  }
  for (const name of readdirSync(kept))
    if (/^\d+$/.test(name) && name !== path.basename(folder))
      rmSync(path.join(kept, name), { recursive: true, force: true });
}

const stamp = Math.ceil(Math.max(...MADE_OF.map((name) => newest(path.join(root, name)))));
const folder = path.join(kept, String(stamp));
if (!existsSync(folder)) await compile(folder);
await import(pathToFileURL(path.join(folder, 'gasline.mjs')).href);
