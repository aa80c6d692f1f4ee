import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import asc from 'assemblyscript/asc';

const FOLDER = path.resolve(import.meta.dirname, '../src/core/network/kernel');
const FLAGS = ['--optimizeLevel', '3', '--shrinkLevel', '0', '--noAssert', '--runtime', 'stub', '--use', 'abort='];

/** Compiles the network's kernel; gives back the text of the module that holds it. */
export async function compiledKernel(): Promise<string> {
  let bytes: Uint8Array | undefined;
  const { error, stderr } = await asc.main(['newton.kernel.ts', '--outFile', 'kernel.wasm', ...FLAGS], {
    readFile: (name) =>
      name.endsWith('.kernel.ts') ? readFileSync(path.join(FOLDER, path.basename(name)), 'utf8') : null,
    writeFile: (name, contents) => {
      if (name.endsWith('.wasm')) bytes = contents as Uint8Array;
    },
    listFiles: () => [],
  });
  if (error || !bytes) throw new Error(`The kernel does not compile: ${stderr.toString()}`);
  return `/** Made by \`npm run kernel\` from newton.kernel.ts and friction.kernel.ts; not to be edited. */\nexport const KERNEL = '${Buffer.from(bytes).toString('base64')}';\n`;
}

/** `npm run kernel` */
if (process.argv[1] === import.meta.filename) writeFileSync(path.join(FOLDER, 'bytes.ts'), await compiledKernel());
