import { readdirSync, readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { SystemDocument } from '@/core/plan';
import { keyToFrame, openBare } from './bare';
import { percentile, type Bench } from './measure';
import { browsed, served } from './served';

type Kind = {
  readonly kind: string;
  readonly place: string;
  readonly paths: string;
  /** A value beside it, whose address opens what it stands in; nothing in a system that has none. */
  readonly beside?: (system: SystemDocument) => string | undefined;
};

/** Kinds of edits: at which task, and where its field is found; the first that a demo system has is taken. */
const KINDS: readonly Kind[] = [
  { kind: 'size', place: 'tank/shape', paths: 'shape\\.(length_m|diameter_m)$' },
  { kind: 'wall', place: 'tank/metal', paths: 'material\\.thickness_m$' },
  { kind: 'fill limit', place: 'tank/shape', paths: 'fillLimit_ratio$' },
  { kind: 'port moved', place: 'ports/list', paths: 'ports\\.\\d+\\.[xyz]_m$' },
  { kind: 'pickup height', place: 'ports/pickups', paths: 'heightOffFloor_m$' },
  { kind: 'envelope', place: 'tank/slopes', paths: '^envelope\\.' },
  { kind: 'line bore', place: 'lines/schematic', paths: '^lines\\.\\d+\\.bore_m$' },
  { kind: 'line length', place: 'lines/schematic', paths: '^lines\\.\\d+\\.length_m$' },
  {
    kind: 'pump curve',
    place: 'lines/schematic#pump',
    // Its last point: there the flow may grow without crossing another.
    paths: '^components\\.\\d+\\.curve\\.[1-9]\\d*$',
    beside: ({ components }) => {
      const pump = components.findIndex(({ kind }) => kind === 'pump');
      return pump < 0 ? undefined : `components.${pump}.output_ratio`;
    },
  },
  { kind: 'need', place: 'lines/delivery', paths: '^consumers\\.0\\.(neededFlow_m3PerS|burnFull_m3PerS)$' },
  { kind: 'sender', place: 'gauge/sender', paths: 'senders\\.0\\.(armLength_m|length_m)$' },
  { kind: 'reserve', place: 'range', paths: '^wishes\\.reserve_ratio$' },
  { kind: 'speed', place: 'range', paths: '^vehicle\\.speed_mPerS$' },
];
const EDITS = 6;
const WARM_UP = 1;
/** As somebody works who looks at what each key did. */
const PAUSE_MS = 600;
const GOAL = 2;

type Sample = { readonly system: string; readonly kind: string; readonly times: readonly number[] };

export const editToNumbers: Bench = {
  name: 'edit-to-numbers',
  async run() {
    const { bare, samples } = await served(({ url }) => measureAll(url), true);
    const all = samples.flatMap(({ times }) => times);
    const ratios = [0.5, 0.95].map((share) => percentile(all, share) / percentile(bare, share)) as [number, number];
    const value = Number(Math.max(...ratios).toFixed(2));
    return {
      name: 'edit-to-numbers',
      value,
      unit: '×',
      reference: `bare page; ${all.length} edits of ${new Set(samples.map(({ kind }) => kind)).size} kinds: median ${ms(all, 0.5)} (${ratios[0].toFixed(2)} ×), 95th percentile ${ms(all, 0.95)} (${ratios[1].toFixed(2)} ×); bare ${ms(bare, 0.5)} and ${ms(bare, 0.95)}; slowest: ${slowest(samples)}; no field found for: ${missing(samples)}`,
      ratio: value,
      goal: GOAL,
      met: value <= GOAL,
    };
  },
};

const ms = (times: readonly number[], share: number): string => `${percentile(times, share).toFixed(0)} ms`;

/** Kinds that no system has a field for where it is looked for: not measured, and told. */
const missing = (samples: readonly Sample[]): string =>
  KINDS.filter(({ kind }) => !samples.some((sample) => sample.kind === kind))
    .map(({ kind }) => kind)
    .join(', ') || 'none';

const slowest = (samples: readonly Sample[]): string =>
  [...samples]
    .sort((a, b) => percentile(b.times, 0.5) - percentile(a.times, 0.5))
    .slice(0, 12)
    .map(({ system, kind, times }) => `${system} ${kind} ${ms(times, 0.5)}`)
    .join(', ');

const measureAll = (base: string): Promise<{ bare: number[]; samples: Sample[] }> =>
  browsed(async (page) => {
    await openBare(page);
    const bare = await keyToFrame(page, 'main', { key: 'ArrowUp', presses: 60, pause_ms: PAUSE_MS });
    const samples: Sample[] = [];
    for (const file of readdirSync('demo').filter((name) => name.endsWith('.json'))) {
      const system = file.replace(/\.json$/, '');
      const document = JSON.parse(readFileSync(`demo/${file}`, 'utf8')) as SystemDocument;
      for (const place of new Set(KINDS.map((kind) => kind.place))) {
        const { beside } = KINDS.find((kind) => kind.place === place)!;
        const at = beside?.(document);
        if (beside && at === undefined) continue;
        const address = at === undefined ? `stage=${place.replace('/', '&task=')}` : `at=${at}`;
        await page.goto(`${base}/systems/${system}?${address}`);
        await page.locator('[data-testid=numbers][data-fresh=true]').waitFor();
        await page.waitForTimeout(3000);
        for (const { kind, paths } of KINDS.filter((one) => one.place === place)) {
          if (!(await focusFirst(page, paths))) continue;
          // Always onward: a value that was there before may be known still.
          const presses = { key: 'ArrowUp', presses: EDITS + WARM_UP, pause_ms: PAUSE_MS };
          const times = await keyToFrame(page, '[data-testid=numbers]', presses);
          samples.push({ system, kind, times: times.slice(WARM_UP) });
        }
      }
    }
    return { bare: bare.slice(10), samples };
  });

/** Puts the cursor into the first field whose path is of the kind; false where the stage has none. */
const focusFirst = (page: Page, paths: string): Promise<boolean> =>
  page.evaluate((source) => {
    const pattern = new RegExp(source);
    const field = [...document.querySelectorAll<HTMLElement>('[data-path]')].find(({ dataset }) =>
      pattern.test(dataset.path!),
    );
    const input = field?.querySelector('input');
    if (!input) return false;
    for (let at = input.closest('details'); at; at = at.parentElement?.closest('details') ?? null) at.open = true;
    input.focus();
    return true;
  }, paths);
