import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';

/** A server of a bench's own: its address, its folder, and its process. */
export type Served = { readonly url: string; readonly folder: string; readonly pid: number };

/** A port that nothing answers at. */
export const freePort = (): Promise<number> =>
  new Promise((done) => {
    const probe = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => done(port));
    });
  });

/** Runs the built app on a data folder of its own, with the demo in it where that is asked for. */
export async function served<T>(work: (server: Served) => Promise<T>, demo = false): Promise<T> {
  const port = await freePort();
  const folder = mkdtempSync(path.join(tmpdir(), 'gasline-bench-'));
  const server: ChildProcess = spawn(process.execPath, ['.next/serve.mjs', '--port', String(port)], {
    stdio: 'ignore',
    env: { ...process.env, NODE_ENV: 'production', GASLINE_DATA: folder, ...(demo ? { GASLINE_DEMO: '1' } : {}) },
  });
  const url = `http://127.0.0.1:${port}`;
  try {
    for (
      let tries = 0;
      tries < 100 &&
      !(await fetch(`${url}/api/systems`).then(
        (r) => r.ok,
        () => false,
      ));
      tries++
    )
      await new Promise((resolve) => setTimeout(resolve, 200));
    return await work({ url, folder, pid: server.pid! });
  } finally {
    server.kill();
  }
}

/** Works in a real browser. */
export async function browsed<T>(work: (page: Page) => Promise<T>): Promise<T> {
  const executablePath =
    process.env.GASLINE_CHROMIUM ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);
  const browser = await chromium.launch({
    ...(executablePath ? { executablePath } : {}),
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
  try {
    return await work(await browser.newPage({ viewport: { width: 1280, height: 800 } }));
  } finally {
    await browser.close();
  }
}

/** Memory that a process holds now [bytes]. */
export const memoryOf = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) * 1024;

/** Files a system and tells its id. */
export async function filed(url: string, document: unknown): Promise<string> {
  const made = await fetch(`${url}/api/systems`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(document),
  });
  if (made.status !== 201) throw new Error(`not filed: ${await made.text()}`);
  return ((await made.json()) as { id: string }).id;
}
