import { readFileSync } from 'node:fs';
import path from 'node:path';

const shared = globalThis as typeof globalThis & { gaslineBuild?: string };

/** Which build of Gas Line this is: what another worked out is worked out anew. */
export function buildId(): string {
  return (shared.gaslineBuild ??= read());
}

function read(): string {
  try {
    return readFileSync(path.join(/*turbopackIgnore: true*/ process.cwd(), '.next/BUILD_ID'), 'utf8').trim();
  } catch {
    return 'development';
  }
}
