import { describe, expect, it } from 'vitest';
import { ALLOYS } from '@/core/reference/alloys';
import { FLUIDS } from '@/core/reference/fluids';
import { LINE_SIZES } from '@/core/reference/lineSizes';
import { FITTINGS, ROUGHNESS } from '@/core/reference/losses';
import { GAUGE_TABLES } from '@/core/reference/sheetGauges';
import type { Sourced } from '@/core/reference/provenance';

const rows: readonly (readonly [string, Sourced])[] = [
  ...Object.values(ALLOYS).map((row) => [row.key, row] as const),
  ...Object.values(FITTINGS).map((row) => [row.key, row] as const),
  ...Object.entries(ROUGHNESS),
  ...LINE_SIZES.map((row) => [`${row.kind} ${row.name}`, row] as const),
  ...Object.entries(GAUGE_TABLES),
  ...Object.values(FLUIDS).flatMap((row) => [[`${row.key} density`, row.density], [`${row.key} viscosity`, row.viscosity], [`${row.key} vapour`, row.vapour]] as const),
];

describe('reference tables', () => {
  it.each(rows)('%s has a source and a status', (_, row) => {
    expect(row.source.length).toBeGreaterThan(5);
    expect(['published', 'derived', 'from memory', 'common practice']).toContain(row.status);
  });

  it.each(Object.entries(GAUGE_TABLES))('%s gauges thin as their number grows', (_, table) => {
    const entries = Object.entries(table.thickness_in).map(([gauge, inches]) => [Number(gauge), inches] as const).sort((a, b) => a[0] - b[0]);
    entries.slice(1).forEach(([, inches], i) => expect(inches).toBeLessThan(entries[i]![1]));
  });

  it('aluminium gauges by formula agree with the printed Brown & Sharpe table (from memory)', () => {
    for (const [gauge, inches] of [[10, 0.1019], [12, 0.0808], [14, 0.0641], [16, 0.0508], [18, 0.0403], [20, 0.032]] as const) expect(GAUGE_TABLES.aluminium.thickness_in[gauge]).toBeCloseTo(inches, 3);
  });

  it.each(['hose', 'tube', 'pipe'])('%s bores widen with their size and lie inside their wall', (kind) => {
    const sizes = LINE_SIZES.filter((size) => size.kind === kind);
    sizes.slice(1).forEach((size, i) => expect(size.bore_m).toBeGreaterThan(sizes[i]!.bore_m));
    for (const size of sizes) if (size.outside_m !== undefined) expect(size.bore_m).toBeLessThan(size.outside_m);
  });

  it("every fluid is valid over a range", () => {
    for (const row of Object.values(FLUIDS)) expect(row.validFrom_K).toBeLessThan(row.validTo_K);
  });
});
