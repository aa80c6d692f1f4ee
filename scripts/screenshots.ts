import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';

/** Makes docs/screenshots anew from the demo data: `npm run build`, then `npm run screenshots [-- NAME …]`. */
const PORT = 3221;
const BASE = `http://127.0.0.1:${PORT}`;
const OUT = 'docs/screenshots';

type Shot = {
  readonly name: string;
  readonly path: string;
  readonly dark?: boolean;
  readonly phone?: boolean;
  readonly before?: (page: Page) => Promise<void>;
};

const tilt = async (page: Page): Promise<void> => {
  for (const [label, value] of [
    ['Pitch', '-6'],
    ['Roll', '9'],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press('Enter');
  }
};

const SHOTS: readonly Shot[] = [
  {
    name: 'systems',
    path: '/',
    before: async (page) => {
      for (const card of [0, 1, 2, 3])
        await page.getByTestId('card-state').nth(card).filter({ hasNotText: 'Looking' }).waitFor({ timeout: 90_000 });
    },
  },
  { name: 'new', path: '/new' },
  { name: 'fit', path: '/systems/forest-trailer?stage=fit', before: (page) => page.getByTestId('tightest').waitFor() },
  {
    name: 'ports',
    path: '/systems/snow-vehicle?stage=ports',
    before: (page) => page.locator('[data-testid="sheets-sum"]').waitFor(),
  },
  {
    name: 'lines',
    path: '/systems/hill-climb-car?stage=lines&task=schematic',
    before: (page) =>
      page
        .getByTestId('schematic')
        .getByRole('button', { name: /Rail regulator,/ })
        .waitFor(),
  },
  {
    name: 'vents',
    path: '/systems/snow-vehicle?stage=vents&task=time',
    before: async (page) => {
      await page.getByLabel('Scenario', { exact: true }).selectOption('run-dry');
      await page.getByTestId('moment-levels').waitFor();
      await page.getByTestId('events').getByRole('button', { name: 'Transfer pickup draws air' }).click();
      await page.evaluate(() => document.querySelector('[data-testid="moment"]')!.scrollIntoView());
      await page.mouse.wheel(0, -220);
    },
  },
  {
    name: 'gauge',
    path: '/systems/snow-vehicle?stage=gauge',
    before: (page) => page.getByTestId('gauge-chart').waitFor(),
  },
  {
    name: 'calibration',
    path: '/systems/crab-boat?stage=gauge&task=calibration',
    before: (page) => page.getByTestId('explained').waitFor(),
  },
  { name: 'range', path: '/systems/crab-boat?stage=range' },
  {
    name: 'mounts',
    path: '/systems/crab-boat?stage=mounts',
    before: async (page) => {
      await page.getByTestId('mount-picture').getByRole('button', { name: 'Fields of Strap 2' }).press('Enter');
    },
  },
  { name: 'findings', path: '/systems/forest-trailer?stage=findings' },
  { name: 'measure', path: '/systems/forest-trailer?stage=measure' },
  {
    name: 'history',
    path: '/systems/hill-climb-car?stage=tank',
    before: async (page) => {
      for (const [label, value] of [
        ['Fill limit', '92'],
        ['Inside height', '318'],
      ] as const) {
        await page.getByLabel(label, { exact: true }).fill(value);
        await page.getByLabel(label, { exact: true }).press('Enter');
        await page.waitForTimeout(1500);
      }
      await page.getByRole('button', { name: 'History: its earlier saves' }).click();
      await page.getByRole('button', { name: 'What changed' }).first().click();
      await page.getByTestId('save-changes').waitFor();
    },
  },
  {
    name: 'baffles',
    path: '/systems/crab-boat?stage=tank&task=baffles',
    before: (page) => page.getByTestId('baffles').waitFor(),
  },
  {
    name: 'compare',
    path: '/systems/snow-vehicle?stage=tank',
    before: async (page) => {
      await page.getByRole('button', { name: 'Fork a variant' }).click();
      await page.waitForURL((url) => !url.pathname.includes('snow-vehicle'));
      await page.getByLabel('Inside height', { exact: true }).fill('340');
      await page.getByLabel('Inside height', { exact: true }).press('Enter');
      await page.waitForTimeout(1500);
      await page.getByRole('button', { name: 'Compare with its variants' }).click();
      await page.getByTestId('differences').waitFor();
      // The figures of both, and their side views beside them.
      await page.getByTestId('figure-holds').waitFor();
      await page.getByRole('img', { name: 'Side view' }).nth(1).waitFor();
    },
  },
  {
    name: 'shape',
    path: '/systems/snow-vehicle?stage=tank',
    before: async (page) => {
      // Of bodies that are added or cut away there is a field of that name each.
      await page.getByTestId('sizes').getByLabel('Shape', { exact: true }).selectOption({ label: 'V-bottom' });
      await page.getByLabel('Deadrise', { exact: true }).fill('12');
      await page.getByLabel('Deadrise', { exact: true }).press('Enter');
      await page.evaluate(() => window.scrollTo(0, 190));
    },
  },
  {
    name: 'paper',
    path: '/systems/crab-boat?stage=paper&sheet=holes',
    before: (page) => page.locator('[data-testid=paper][data-fresh=true]').waitFor(),
  },
  { name: 'tank-phone', path: '/systems/crab-boat?stage=tank', phone: true },
  // Last, since the tilt is saved with the system.
  { name: 'tank', path: '/systems/crab-boat?stage=tank', before: tilt },
];

async function take(browser: Browser, shot: Shot): Promise<void> {
  const context = await browser.newContext({
    viewport: shot.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    colorScheme: shot.dark ? 'dark' : 'light',
  });
  const page = await context.newPage();
  await page.goto(BASE + shot.path, { waitUntil: 'networkidle' });
  await shot.before?.(page);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  if (/^\/systems\/[^/]+$/.test(new URL(page.url()).pathname))
    // The numbers that a page comes with look the same, while the rest is still on its way.
    await page.locator('[data-testid=number-findings][data-sure=true]').waitFor({ timeout: 90_000 });
  await page.waitForTimeout(2500); // spreads are the last to come
  await page.screenshot({ path: path.join(OUT, `${shot.name}.png`) });
  await context.close();
}

async function main(): Promise<void> {
  mkdirSync(OUT, { recursive: true });
  const executablePath =
    process.env.GASLINE_CHROMIUM ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);
  const server = spawn(process.execPath, ['.next/serve.mjs', '--port', String(PORT)], {
    stdio: 'ignore',
    env: {
      ...process.env,
      NODE_ENV: 'production',
      GASLINE_DEMO: '1',
      GASLINE_DATA: mkdtempSync(path.join(tmpdir(), 'gasline-shots-')),
    },
  });
  try {
    for (
      let tries = 0;
      tries < 100 &&
      !(await fetch(`${BASE}/api/systems`).then(
        (r) => r.ok,
        () => false,
      ));
      tries++
    )
      await new Promise((resolve) => setTimeout(resolve, 200));
    const browser = await chromium.launch({
      ...(executablePath ? { executablePath } : {}),
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--use-gl=angle',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
      ],
    });
    for (const shot of SHOTS.filter(({ name }) => process.argv.length < 3 || process.argv.includes(name)))
      await take(browser, shot);
    await browser.close();
  } finally {
    server.kill();
  }
}

void main();
