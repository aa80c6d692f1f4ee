import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { gzipSync } from 'fflate';
import { meshText, type SystemDocument } from '@/core/plan';
import { revolvedMesh } from '@/core/geometry';
import { crabBoat, largeSystem } from './largeSystem';
import { percentile, type Bench } from './measure';
import { browsed, filed, memoryOf, served } from './served';

const SYSTEMS = 500;
const LOADS = 12;
const HOME_RATIO = 3;
const HOME_BYTES = 100_000;
const SERVER_BYTES = 250e6;
const DEMO = ['crab-boat', 'snow-vehicle', 'hill-climb-car', 'forest-trailer'];

/** From the request for the first page to its first systems on screen, or to what stands in their place [ms]. */
async function homeLoads(page: Page, url: string): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < LOADS + 2; i++) {
    const began = performance.now();
    await page.goto(url, { waitUntil: 'domcontentloaded' });
    await page.getByTestId('system-card').or(page.getByText('None yet.')).first().waitFor();
    if (i > 1) times.push(performance.now() - began);
    await page.goto('about:blank');
  }
  return times;
}

export const home500: Bench = {
  name: 'home-500',
  run: () =>
    browsed(async (page) => {
      const empty = await served(({ url }) => homeLoads(page, url));
      return served(async ({ url, pid }) => {
        for (let i = 0; i < SYSTEMS; i++)
          await filed(url, {
            ...(JSON.parse(readFileSync(`demo/${DEMO[i % DEMO.length]!}.json`, 'utf8')) as object),
            name: `System ${i}`,
          });
        const full = await homeLoads(page, url);
        const bytes = (await (await fetch(url)).arrayBuffer()).byteLength;
        const memory = memoryOf(pid);
        const ratio = Number((percentile(full, 0.5) / percentile(empty, 0.5)).toFixed(2));
        return {
          name: 'home-500',
          value: ratio,
          unit: '×',
          ratio,
          goal: HOME_RATIO,
          met: ratio <= HOME_RATIO && bytes <= HOME_BYTES && memory <= SERVER_BYTES,
          reference: `median of ${LOADS} loads with ${SYSTEMS} systems, ${percentile(full, 0.5).toFixed(0)} ms, over those with none, ${percentile(empty, 0.5).toFixed(0)} ms; the page ${(bytes / 1e3).toFixed(0)} kB of at most ${HOME_BYTES / 1e3}, the server ${(memory / 1e6).toFixed(0)} MB of at most ${SERVER_BYTES / 1e6}`,
        };
      });
    }),
};

/** The crab boat with scans in it, a megabyte and a half in all. */
function scannedBoat(): SystemDocument {
  const boat = crabBoat();
  const meridian = Array.from({ length: 151 }, (_, i) => [i / 150, i === 0 || i === 150 ? 0 : 0.2] as const);
  const shape = { kind: 'mesh' as const, file: 'scan.stl', ...meshText(revolvedMesh(meridian, 'x', 48)) };
  const obstacle = boat.fit.obstacles[0]!;
  return {
    ...boat,
    fit: {
      ...boat.fit,
      obstacles: [
        ...boat.fit.obstacles,
        ...Array.from({ length: 4 }, (_, i) => ({
          ...obstacle,
          id: `scan-${i}`,
          name: `Scan ${i}`,
          bodies: [{ ...obstacle.bodies[0]!, shape }],
          motions: [],
        })),
      ],
    },
  };
}

const SAVES = 15;
/** Within one step of typing and looking up [ms]. */
const SAVE_MS = 500;

/** From a save's sending to its answer, packed as the page packs it [ms]. */
async function saves(url: string, document: SystemDocument): Promise<number[]> {
  const id = await filed(url, document);
  const times: number[] = [];
  for (let i = 1; i <= SAVES; i++) {
    const body = gzipSync(
      new TextEncoder().encode(JSON.stringify({ ...document, description: `Save ${i}` })),
    ) as Uint8Array<ArrayBuffer>;
    const began = performance.now();
    const answer = await fetch(`${url}/api/systems/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'content-encoding': 'gzip', 'if-match': String(i) },
      body,
    });
    await answer.arrayBuffer();
    if (!answer.ok) throw new Error(`not saved: ${answer.status}`);
    if (i > 2) times.push(performance.now() - began);
  }
  return times;
}

export const save1500k: Bench = {
  name: 'save-1500k',
  run: () =>
    served(async ({ url }) => {
      const large = scannedBoat();
      const [small, big] = [percentile(await saves(url, crabBoat()), 0.5), percentile(await saves(url, large), 0.5)];
      const ratio = Number((big / small).toFixed(1));
      return {
        name: 'save-1500k',
        value: Number(big.toFixed(0)),
        unit: 'ms',
        ratio,
        goal: SAVE_MS,
        met: big <= SAVE_MS,
        reference: `median of ${SAVES - 2} saves of ${(JSON.stringify(large).length / 1e3).toFixed(0)} kB, on the disk when answered; ${ratio} × the ${small.toFixed(0)} ms of ${(JSON.stringify(crabBoat()).length / 1e3).toFixed(0)} kB`,
      };
    }),
};

const OPENS = 5;
const OPEN_RATIO = 3;

/** From the request for a system's page to numbers that belong to it [ms]. */
async function opens(page: Page, url: string, id: string): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i <= OPENS; i++) {
    const began = performance.now();
    await page.goto(`${url}/systems/${id}`);
    await page.locator('[data-testid=numbers][data-fresh=true]').waitFor();
    if (i > 0) times.push(performance.now() - began);
    await page.goto('about:blank');
  }
  return percentile(times, 0.5);
}

export const openLarge: Bench = {
  name: 'open-large',
  run: () =>
    browsed((page) =>
      served(async ({ url }) => {
        const boat = await opens(page, url, await filed(url, crabBoat()));
        const large = await opens(page, url, await filed(url, largeSystem()));
        const ratio = Number((large / boat).toFixed(2));
        return {
          name: 'open-large',
          value: ratio,
          unit: '×',
          ratio,
          goal: OPEN_RATIO,
          met: ratio <= OPEN_RATIO,
          reference: `12 tanks, 120 lines, open to numbers: median of ${OPENS}, ${large.toFixed(0)} ms, over the crab boat's ${boat.toFixed(0)} ms`,
        };
      }),
    ),
};

const CHECK_RATIO = 6;

export const checkLarge: Bench = {
  name: 'check-large',
  run: () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'gasline-bench-'));
    const seconds = (document: SystemDocument, name: string): number => {
      const file = path.join(folder, `${name}.json`);
      writeFileSync(file, JSON.stringify(document));
      const began = performance.now();
      const { status, stderr } = spawnSync(process.execPath, ['scripts/gasline.mjs', 'check', file], {
        encoding: 'utf8',
        maxBuffer: 1e8,
      });
      if (status !== 0) throw new Error(`check failed: ${stderr}`);
      return (performance.now() - began) / 1000;
    };
    const boat = Math.min(seconds(crabBoat(), 'boat'), seconds(crabBoat(), 'boat'));
    const large = Math.min(seconds(largeSystem(), 'large'), seconds(largeSystem(), 'large'));
    const ratio = Number((large / boat).toFixed(2));
    return Promise.resolve({
      name: 'check-large',
      value: ratio,
      unit: '×',
      ratio,
      goal: CHECK_RATIO,
      met: ratio <= CHECK_RATIO,
      reference: `"check" of 12 tanks and 120 lines, ${large.toFixed(1)} s, over the crab boat's ${boat.toFixed(1)} s; the faster of two each`,
    });
  },
};
