import { readFileSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';
import type { Kernel } from '../src/core/network/kernel';

const FOLDER = path.resolve(import.meta.dirname, '../src/core/network/kernel');
/** Room for what tests and benchmarks solve; the compiled one grows as it must. */
const PAGES = 256;
const PAGE_BYTES = 65_536;
const HEAP_BASE = 1024;

/** What AssemblyScript has and JavaScript has not, over one buffer. */
const SHIM = `
const buffer = new ArrayBuffer(${PAGES * PAGE_BYTES});
const F = new Float64Array(buffer), I = new Int32Array(buffer), U = new Uint8Array(buffer);
const loadF = (at, on = 0) => F[(at + on) >> 3], storeF = (at, value) => { F[at >> 3] = value; };
const loadI = (at) => I[at >> 2];
const __heap_base = ${HEAP_BASE};
const memory = {
  size: () => ${PAGES}, grow: () => -1, buffer,
  copy: (to, from, bytes) => void U.copyWithin(to, from, from + bytes),
  fill: (at, value, bytes) => void U.fill(value, at, at + bytes),
};
export { memory };
let answer = () => undefined;
const law = (link, flow) => answer(link, flow);
export const answerWith = (one) => { answer = one; };
`;

/** AssemblyScript's source as plain TypeScript: the same statements, casts and loads written as JavaScript has them. */
const plain = (source: string): string =>
  source
    .replace(/^\/\/ @ts-ignore.*$/gm, '')
    .replace(/^@(inline|external\(.*\))$/gm, '')
    .replace(/^declare function law.*$/m, '')
    .replace(/load<f64>/g, 'loadF')
    .replace(/load<i32>/g, 'loadI')
    .replace(/store<f64>/g, 'storeF')
    .replace(/<(usize|i32|f64)>/g, '');

/**
 * The network's kernel from its own source without a compiler: what the
 * compiled one is measured against and checked by. Answers `law` as the door
 * does.
 */
export async function plainKernel(law: (link: number, flow_m3PerS: number) => void): Promise<Kernel> {
  const { outputFiles } = await build({
    entryPoints: [path.join(FOLDER, 'newton.kernel.ts')],
    bundle: true,
    format: 'esm',
    write: false,
    plugins: [
      {
        name: 'plain',
        setup: ({ onLoad }) => {
          onLoad({ filter: /\.kernel\.ts$/ }, ({ path: file }) => ({
            contents: (file.endsWith('newton.kernel.ts') ? SHIM : '') + plain(readFileSync(file, 'utf8')),
            loader: 'ts',
          }));
        },
      },
    ],
  });
  const url = `data:text/javascript;base64,${Buffer.from(outputFiles[0]!.text).toString('base64')}`;
  const made = (await import(/* @vite-ignore */ url)) as Record<string, unknown> & {
    answerWith: (one: typeof law) => void;
  };
  made.answerWith(law);
  // Numbers that change are read as those of the compiled one are: when they are asked for.
  return new Proxy(made, {
    get: (_, name: string) => {
      if (typeof made[name] !== 'number') return made[name];
      return {
        get value() {
          return made[name];
        },
      };
    },
  }) as unknown as Kernel;
}
