import { readdirSync, readFileSync } from 'node:fs';
import { parseSystem, readCatalogueCsv, stlShape, textMesh, type SystemDocument } from '@/core/plan';
import { poursCsv, readPoursCsv, stlBytes, type PourLine } from '@/core/formats';
import { boxMesh, kernelVolume_m3, meshVolume, movedMesh, vesselMesh } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { seeded, type Chance } from '@/core/seeded';
import { crabBoat } from '../bench/largeSystem';
import { served } from '../bench/served';
import type { Drill } from './index';

const HANG_MS = 1000;

const pick = <T>(chance: Chance, list: readonly T[]): T => list[Math.floor(chance.uniform() * list.length)]!;
const below = (chance: Chance, most: number): number => Math.floor(chance.uniform() * most);

/** Bytes with something done to them that files suffer. */
function mutated(chance: Chance, source: Uint8Array): Uint8Array {
  const bytes = Uint8Array.from(source);
  for (let changes = 1 + below(chance, 4); changes > 0; changes--) {
    const at = below(chance, bytes.length);
    const kind = below(chance, 7);
    if (kind === 0) return bytes.subarray(0, at);
    if (kind === 1) bytes[at] = below(chance, 256);
    if (kind === 2) bytes.copyWithin(at, below(chance, bytes.length), below(chance, bytes.length));
    if (kind === 3) bytes.fill(below(chance, 256), at, at + below(chance, 64));
    if (kind === 4)
      return Uint8Array.of(...bytes.subarray(0, at), ...bytes.subarray(at - below(chance, Math.min(at, 400) || 1)));
    if (kind === 5) bytes[at] = pick(chance, [0x2d, 0x30, 0x39, 0x2e, 0x2c, 0x65, 0x22, 0x7b, 0x5d]);
    if (kind === 6)
      return new TextEncoder().encode(
        new TextDecoder('latin1')
          .decode(bytes)
          .replace(/-?\d+(\.\d+)?/g, (text) =>
            chance.uniform() < 0.02
              ? pick(chance, ['1e308', '-0', '1e-320', '999999999', '-1', 'NaN', '0x10', `${text}${text}`])
              : text,
          ),
      );
  }
  return bytes;
}

type Tally = { tried: number; taken: number; hangs: number; broken: number; nonsense: number; readonly odd: string[] };
export const tally = (): Tally => ({ tried: 0, taken: 0, hangs: 0, broken: 0, nonsense: 0, odd: [] });

/** Runs a reader on one file; what it takes must be what the rest of Gas Line takes. */
function tried(sum: Tally, what: string, read: () => string | undefined | false): void {
  const began = performance.now();
  sum.tried++;
  try {
    const found = read();
    if (found !== false) sum.taken++;
    if (typeof found === 'string') {
      sum.nonsense++;
      sum.odd.push(`${what}: ${found}`);
    }
  } catch (error) {
    sum.broken++;
    sum.odd.push(`${what}: ${String(error)}`);
  }
  if (performance.now() - began > HANG_MS) {
    sum.hangs++;
    sum.odd.push(`${what}: ${(performance.now() - began).toFixed(0)} ms`);
  }
}

const withPours = (boat: SystemDocument, lines: readonly PourLine[]): SystemDocument => {
  const [tank, ...others] = boat.tanks;
  const records = lines.map((line, i) => ({
    ...line,
    id: `pour-${i}`,
    recorded: line.at,
    kind: 'pour' as const,
    of: 'drilled',
  }));
  return {
    ...boat,
    records,
    tanks: [
      {
        ...tank!,
        calibrations: [
          {
            id: 'drilled',
            name: 'Drilled',
            of: tank!.senders[0]!.id,
            start_m3: 0,
            startSpread_m3: 0,
            pitch_deg: 0,
            roll_deg: 0,
          },
        ],
      },
      ...others,
    ],
  };
};

/** Logs and catalogues as CSV. */
export function csvs(chance: Chance, runs: number, sum: Tally): void {
  const boat = crabBoat();
  const line: PourLine = {
    at: '2026-05-03T14:30:00Z',
    way: 'can',
    added_m3: 0.005,
    spread_m3: 0.00005,
    reading: { kind: 'resistance', reading_ohm: 212.5 },
    note: 'first can, "full"',
    state: 'counts',
    simulated: false,
  };
  const log = poursCsv(
    Array.from({ length: 30 }, (_, i) => ({ ...line, added_m3: 0.001 * (i + 1), note: i % 3 === 0 ? '=1+1' : '' })),
  );
  const semicolons = log.replaceAll(',', ';').replaceAll('.', ',');
  const parts = 'kind,name,bore_m,does\r\ntee,Brass tee,0.008,\r\nvalve,Ball valve,0.01,\r\n';
  for (let i = 0; i < runs; i++) {
    const text = new TextDecoder().decode(mutated(chance, new TextEncoder().encode(pick(chance, [log, semicolons]))));
    tried(sum, 'a log', () => {
      const read = readPoursCsv(text);
      if (!read.ok) return read.error.detail.length < 4000 ? false : 'a message without an end';
      const parsed = parseSystem(withPours(boat, read.value.lines));
      return parsed.ok ? undefined : parsed.error.detail;
    });
    if (i % 4 > 0) continue;
    const catalogue = new TextDecoder().decode(mutated(chance, new TextEncoder().encode(parts)));
    tried(sum, 'a catalogue', () => {
      const read = readCatalogueCsv(catalogue);
      if (!read.ok) return read.error.detail.length < 8000 ? false : 'a message without an end';
      const parsed = parseSystem({
        ...boat,
        components: [...boat.components, ...read.value.map((part, p) => ({ ...part, id: `drilled-${p}` }))],
      });
      return parsed.ok ? undefined : parsed.error.detail;
    });
  }
}

/** Meshes, text and binary. */
export function stls(chance: Chance, runs: number, sum: Tally): void {
  const bodies = [
    boxMesh(0.6, 0.4, 0.3),
    unwrap(vesselMesh({ radius_m: 0.2, shell_m: 0.5, axis: 'x', nearEnd: 'flat', farEnd: 'elliptical' })),
  ];
  const files = bodies.map((body) => stlBytes(body, 'tank'));
  const asText = (bytes: Uint8Array): Uint8Array => {
    const view = new DataView(bytes.buffer, bytes.byteOffset);
    const facet = (i: number): string =>
      `facet normal 0 0 0\nouter loop\n${[0, 1, 2].map((c) => `vertex ${[0, 1, 2].map((k) => view.getFloat32(84 + 50 * i + 12 + 12 * c + 4 * k, true)).join(' ')}\n`).join('')}endloop\nendfacet\n`;
    return new TextEncoder().encode(
      `solid tank\n${Array.from({ length: view.getUint32(80, true) }, (_, i) => facet(i)).join('')}endsolid tank\n`,
    );
  };
  const twice = asText(stlBytes(bodies[0]!, 'a'));
  const beside = asText(stlBytes(movedMesh(bodies[0]!, [0.3, 0, 0]), 'b'));
  const sources = [...files, asText(files[0]!), Uint8Array.of(...twice, ...twice), Uint8Array.of(...twice, ...beside)];
  for (let i = 0; i < runs; i++) {
    const source = pick(chance, sources);
    const bytes = i % 20 === 0 ? source : mutated(chance, source);
    tried(sum, 'an STL', () => {
      const read = stlShape(bytes, pick(chance, ['mm', 'in', 'm'] as const), 'drilled.stl');
      if (!read.ok) return false;
      const held = textMesh(read.value.shape);
      if (!held.ok) return held.error.detail;
      const [mine, kernel] = [meshVolume(held.value), kernelVolume_m3(held.value)];
      return kernel !== undefined && Math.abs(kernel - mine) <= 1e-3 * mine
        ? undefined
        : `${mine} and ${String(kernel)} m³`;
    });
  }
}

/** Whole systems, at the server's door. */
async function systems(chance: Chance, runs: number, sum: Tally): Promise<void> {
  const sources = readdirSync('demo')
    .filter((name) => name.endsWith('.json'))
    .map((name) => readFileSync(`demo/${name}`));
  await served(async ({ url }) => {
    for (let i = 0; i < runs; i++) {
      const body = mutated(chance, pick(chance, sources)) as Uint8Array<ArrayBuffer>;
      const began = performance.now();
      const answer = await fetch(`${url}/api/systems`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
      });
      const said = (await answer.json()) as { id?: string; error?: { detail?: string } };
      sum.tried++;
      if (performance.now() - began > HANG_MS) sum.hangs++;
      if (answer.status >= 500) sum.broken++;
      if (answer.status === 201) {
        sum.taken++;
        const there = (await (await fetch(`${url}/api/systems/${said.id!}`)).json()) as { document: unknown };
        const parsed = parseSystem(there.document);
        if (!parsed.ok) sum.nonsense++;
        await fetch(`${url}/api/systems/${said.id!}`, { method: 'DELETE' });
      } else if (!said.error?.detail?.endsWith('.')) {
        sum.odd.push(`${answer.status} without a sentence`);
        sum.nonsense++;
      }
    }
  });
}

export const imports: Drill = {
  name: 'imports',
  async run(share, seed) {
    const chance = seeded(seed + 2);
    const sum = tally();
    csvs(chance, 2800 * share, sum);
    stls(chance, 2500 * share, sum);
    await systems(chance, 4000 * share, sum);
    for (const odd of sum.odd.slice(0, 10)) console.error(`  ${odd.slice(0, 300)}`);
    return {
      figures: `${sum.tried} mutated files (systems at the server, logs, catalogues, meshes): ${sum.taken} taken, ${sum.hangs} over ${HANG_MS / 1000} s, ${sum.broken} broke a reader or the server, ${sum.nonsense} nonsense taken`,
      passed: sum.hangs + sum.broken + sum.nonsense === 0,
    };
  },
};
