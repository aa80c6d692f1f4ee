import { describe, expect, it } from 'vitest';
import { ALLOYS } from '@/core/reference/alloys';
import {
  COMPATIBILITY,
  CONTACT_FLUIDS,
  CONTACT_OF_FLUID,
  compatibilityOf,
  MATERIAL_GROUPS,
  MATERIAL_OF_ALLOY,
  RATINGS,
} from '@/core/reference/compatibility';
import { BOLT_CLASS_ROWS, BOLTS, RIVET_NUTS } from '@/core/reference/bolts';
import { MOUNT_STOCKS, PAD_ROWS } from '@/core/reference/mountStock';
import { BULK } from '@/core/reference/bulk';
import { PANEL_STOCKS } from '@/core/reference/panelStock';
import { VENT_USUAL } from '@/core/reference/vents';
import { FACTORS, SHOCKS } from '@/core/reference/shocks';
import { SHAKES } from '@/core/reference/shakes';
import { WATER_ROWS } from '@/core/reference/waters';
import { EXCITATIONS } from '@/core/reference/excitation';
import { FOAM, FOAM_LETS } from '@/core/reference/foam';
import { MEASURING, STANDING } from '@/core/reference/standing';
import { GRIP, RATCHET, SPANNERS, TOOLS } from '@/core/reference/reachTools';
import { FLUIDS, HEAT_CAPACITY } from '@/core/reference/fluids';
import { LOOK_ALIKES } from '@/core/reference/lookAlikes';
import { VESSELS } from '@/core/reference/vessels';
import { POURED, SPOUTS, WRONG } from '@/core/reference/wrongFuel';
import { LINE_SIZES } from '@/core/reference/lineSizes';
import { ADAPTERS, JOINS } from '@/core/reference/joins';
import {
  GROMMETS,
  grommetFor,
  LINE_SERIES,
  LINE_STOCK,
  LINE_SUPPORTS,
  nearestStock,
  supportSpacing_m,
} from '@/core/reference/lineStock';
import { COPPER, FUSES, WIRES } from '@/core/reference/wires';
import { FITTINGS, ROUGHNESS } from '@/core/reference/losses';
import { GAUGE_TABLES } from '@/core/reference/sheetGauges';
import { HOLE_RULES, HOLE_TOOLS, PILOT, THREAD_DEPTH } from '@/core/reference/holeTools';
import { CUT_SPREAD, PICKUP_KEEP, PUMP_BODY, STRAINER_ROWS } from '@/core/reference/pickups';
import { PORT_PARTS } from '@/core/reference/portParts';
import { FLOAT_IMMERSION, POUR_SPREADS, SENDER_MAKE, SENDER_RANGES } from '@/core/reference/senders';
import { THREAD_SYSTEMS, THREADS } from '@/core/reference/threads';
import type { Sourced } from '@/core/reference/provenance';

const rows: readonly (readonly [string, Sourced])[] = [
  ...Object.values(ALLOYS).map((row) => [row.key, row] as const),
  ...Object.values(FITTINGS).map((row) => [row.key, row] as const),
  ...Object.entries(ROUGHNESS),
  ...Object.entries(BOLTS),
  ...Object.entries(BOLT_CLASS_ROWS),
  ...RIVET_NUTS.map((row) => [`rivet nut ${row.size}`, row] as const),
  ...Object.entries(MOUNT_STOCKS),
  ...Object.entries(PAD_ROWS),
  ...Object.entries(PANEL_STOCKS),
  ['what vents are made for', VENT_USUAL],
  ['how liquids give way', BULK],
  ...Object.entries(SHOCKS),
  ...Object.entries(FACTORS),
  ...Object.entries(WATER_ROWS),
  ...Object.entries(SHAKES),
  ...LINE_SIZES.map((row) => [`${row.kind} ${row.name}`, row] as const),
  ...Object.entries(GAUGE_TABLES),
  ...COMPATIBILITY.map((row) => [row.key, row] as const),
  ...STANDING.map((row) => [`what stands on a ${row.role}`, row] as const),
  ...MEASURING.map((row) => [row.name, row] as const),
  ...TOOLS.map((row) => [row.name, row] as const),
  ...SPANNERS.map((row) => [`spanner of ${row.acrossFlats * 1000} mm`, row] as const),
  ...THREADS.map((row) => [row.name, row] as const),
  ...Object.values(THREAD_SYSTEMS).map((row) => [row.name, row] as const),
  ...PORT_PARTS.map((row) => [row.key, row] as const),
  ...VESSELS.map((row) => [row.key, row] as const),
  ...SPOUTS.map((row) => [`spout of ${row.poured}`, row] as const),
  ...WRONG.map((row) => [`${row.wrong} for ${row.right}`, row] as const),
  ...LOOK_ALIKES.map((row) => [row.systems.join(' and '), row] as const),
  ...HOLE_TOOLS.map((row) => [row.name, row] as const),
  ...Object.entries(THREAD_DEPTH),
  ...Object.entries(HOLE_RULES).map(([key, row]) => [`hole to ${key}`, row] as const),
  ...STRAINER_ROWS.map((row) => [row.name, row] as const),
  ...SENDER_RANGES.map((row) => [row.name, row] as const),
  ...Object.values(POUR_SPREADS).map((row) => [row.name, row] as const),
  ['pilot drill', PILOT],
  ['pump in its holder', PUMP_BODY],
  ['cut of a tube', CUT_SPREAD],
  ['room round a pickup', PICKUP_KEEP],
  ['senders as made', SENDER_MAKE],
  ['how deep a float sits', FLOAT_IMMERSION],
  ['fingers about a handle', GRIP],
  ['ratchet', RATCHET],
  ...LINE_STOCK.map((row) => [row.key, row] as const),
  ...LINE_SERIES.map((row) => [row.name, row] as const),
  ...LINE_SUPPORTS.map((row) => [`${row.kind} up to ${row.upTo_m} m held`, row] as const),
  ...GROMMETS.map((row) => [`grommet ${row.name}`, row] as const),
  ...ADAPTERS.map((row) => [row.key, row] as const),
  ...Object.values(JOINS).map((row) => [row.name, row] as const),
  ...WIRES.map((row) => [row.name, row] as const),
  ['copper', COPPER],
  ['foam', FOAM],
  ['what foam lets through', FOAM_LETS],
  ['fuses', FUSES],
  ...Object.values(FITTINGS).flatMap(({ key, threeK }) => (threeK ? [[`${key}, three-K`, threeK] as const] : [])),
  ...EXCITATIONS.map((row) => [row.vehicle, row] as const),
  ...Object.entries(HEAT_CAPACITY).map(([key, row]) => [`heat of ${key}`, row] as const),
  ...Object.values(FLUIDS).flatMap(
    (row) =>
      [
        [`${row.key} density`, row.density],
        [`${row.key} viscosity`, row.viscosity],
        [`${row.key} vapour`, row.vapour],
      ] as const,
  ),
];

describe('reference tables', () => {
  it.each(rows)('%s has a source and a status', (_, row) => {
    expect(row.source.length).toBeGreaterThan(5);
    expect(['published', 'derived', 'from memory', 'common practice']).toContain(row.status);
  });

  it.each(Object.entries(GAUGE_TABLES))('%s gauges thin as their number grows', (_, table) => {
    const entries = Object.entries(table.thickness_in)
      .map(([gauge, inches]) => [Number(gauge), inches] as const)
      .sort((a, b) => a[0] - b[0]);
    entries.slice(1).forEach(([, inches], i) => expect(inches).toBeLessThan(entries[i]![1]));
  });

  it('aluminium gauges by formula agree with the printed Brown & Sharpe table (from memory)', () => {
    for (const [gauge, inches] of [
      [10, 0.1019],
      [12, 0.0808],
      [14, 0.0641],
      [16, 0.0508],
      [18, 0.0403],
      [20, 0.032],
    ] as const)
      expect(GAUGE_TABLES.aluminium.thickness_in[gauge]).toBeCloseTo(inches, 3);
  });

  it.each(['hose', 'tube', 'pipe'])('%s bores widen with their size and lie inside their wall', (kind) => {
    const sizes = LINE_SIZES.filter((size) => size.kind === kind);
    sizes.slice(1).forEach((size, i) => expect(size.bore_m).toBeGreaterThan(sizes[i]!.bore_m));
    for (const size of sizes) if (size.outside_m !== undefined) expect(size.bore_m).toBeLessThan(size.outside_m);
  });

  it.each(LINE_SERIES.map(({ key }) => key))(
    '%s: bores, outsides and bends grow with size, and a bend is wider than the line',
    (key) => {
      const sizes = LINE_STOCK.filter(({ series }) => series === key);
      expect(sizes.length).toBeGreaterThan(2);
      sizes.slice(1).forEach((size, i) => {
        expect(size.bore_m).toBeGreaterThan(sizes[i]!.bore_m);
        expect(size.outside_m).toBeGreaterThan(sizes[i]!.outside_m);
        expect(size.bend_m).toBeGreaterThanOrEqual(sizes[i]!.bend_m);
      });
      for (const size of sizes) {
        expect(size.outside_m).toBeGreaterThan(size.bore_m);
        expect(size.bend_m).toBeGreaterThan(size.outside_m);
        expect(COMPATIBILITY.some((row) => row.key === size.material)).toBe(true);
      }
      expect(nearestStock(key, sizes[1]!.bore_m)).toBe(sizes[1]);
    },
  );

  it('the grommet for a line is the smallest that takes it', () => {
    expect(grommetFor(0.0159)?.name).toBe('16 mm');
    expect(grommetFor(0.003)?.name).toBe('4 mm');
    expect(grommetFor(0.09)).toBeUndefined();
  });

  it('wires: AWG by its formula gives the printed areas and, within a few per cent, resistances of NEC chapter 9 table 8 (from memory)', () => {
    for (const [name, mm2, ohmPerKm] of [
      ['18 AWG', 0.823, 26.1],
      ['14 AWG', 2.08, 10.3],
      ['10 AWG', 5.26, 4.07],
      ['6 AWG', 13.3, 1.61],
    ] as const) {
      const row = WIRES.find((wire) => wire.name === name)!;
      expect((row.area_m2 * 1e6) / mm2).toBeCloseTo(1, 2);
      // Printed at 75 °C; brought to 20 °C.
      expect(Math.abs((row.resistance_ohmPerM * 1e3 * (1 + COPPER.rise_perK * 55)) / ohmPerKm - 1)).toBeLessThan(0.05);
    }
    for (const system of ['mm2', 'awg']) {
      const rows = WIRES.filter((wire) => wire.system === system);
      rows.slice(1).forEach((wire, i) => {
        expect(wire.resistance_ohmPerM).toBeLessThan(rows[i]!.resistance_ohmPerM);
        expect(wire.most_A).toBeGreaterThan(rows[i]!.most_A);
      });
    }
  });

  it('every fluid is valid over a range', () => {
    for (const row of Object.values(FLUIDS)) expect(row.validFrom_K).toBeLessThan(row.validTo_K);
  });

  it('compatibility: every fluid rated or said to be unknown, every group there, every metal and fluid of the app found', () => {
    for (const { key, ratings, note } of COMPATIBILITY) {
      expect(Object.keys(ratings), key).toEqual([...CONTACT_FLUIDS]);
      for (const rating of Object.values(ratings)) expect(RATINGS, key).toContain(rating);
      expect(note.length).toBeGreaterThan(5);
    }
    expect(new Set(COMPATIBILITY.map(({ group }) => group))).toEqual(new Set(MATERIAL_GROUPS));
    expect(new Set(COMPATIBILITY.map(({ key }) => key)).size).toBe(COMPATIBILITY.length);
    for (const material of Object.values(MATERIAL_OF_ALLOY))
      expect(['metal', 'plastic']).toContain(compatibilityOf(material).group);
    for (const fluid of Object.keys(FLUIDS))
      expect(CONTACT_FLUIDS).toContain(CONTACT_OF_FLUID[fluid as keyof typeof FLUIDS]);
  });

  it('compatibility: what the trade warns of is rated so', () => {
    const rated = (material: string, fluid: (typeof CONTACT_FLUIDS)[number]) =>
      compatibilityOf(material).ratings[fluid];
    expect(rated('galvanized', 'diesel')).toBe('bad'); // zinc soaps
    expect(rated('nylon-tie', 'petrol')).not.toBe('good'); // not plastic ties
    expect(rated('epdm', 'petrol')).toBe('bad');
    expect(rated('30r10', 'alcohol-blend')).toBe('good'); // submersible-rated hose
    expect(rated('stainless', 'alcohol-blend')).toBe('good'); // best with alcohol blends
  });

  it('bands of movement run upward', () => {
    for (const { from_Hz, to_Hz } of EXCITATIONS) expect(from_Hz).toBeLessThan(to_Hz);
  });
});

it('every line that can be bought has a spacing of holders, and a wider tube none closer than a thin one', () => {
  for (const { kind, outside_m, key } of LINE_STOCK) {
    expect(supportSpacing_m(kind, outside_m), key).toBeGreaterThanOrEqual(0.3);
    expect(supportSpacing_m(kind, outside_m), key).toBeLessThanOrEqual(2);
  }
  const tubes = LINE_STOCK.filter(({ kind }) => kind === 'tube').sort((a, b) => a.outside_m - b.outside_m);
  tubes
    .slice(1)
    .forEach(({ outside_m, key }, i) =>
      expect(supportSpacing_m('tube', outside_m), key).toBeGreaterThanOrEqual(
        supportSpacing_m('tube', tubes[i]!.outside_m),
      ),
    );
});

it('every fluid has a heat capacity: fuels between 1.8 and 2.6 kJ/(kg K), water the highest of all', () => {
  for (const key of Object.keys(FLUIDS) as (keyof typeof FLUIDS)[]) {
    const { heat_JPerKgK } = HEAT_CAPACITY[key];
    const watery = ['water', 'coolant', 'urea'].includes(key);
    expect(heat_JPerKgK, key).toBeGreaterThanOrEqual(watery ? 3000 : 1800);
    expect(heat_JPerKgK, key).toBeLessThanOrEqual(watery ? HEAT_CAPACITY.water.heat_JPerKgK : 2600);
  }
});

it('a grommet for a line is the smallest whose rubber takes it, and none takes what is wider than the widest', () => {
  for (const { outside_m, key } of LINE_STOCK) {
    const grommet = grommetFor(outside_m);
    const fits = GROMMETS.filter(({ holds_m }) => holds_m * 1.1 >= outside_m);
    expect(grommet?.holds_m, key).toBe(fits.length > 0 ? Math.min(...fits.map(({ holds_m }) => holds_m)) : undefined);
    if (grommet) expect(grommet.hole_m, key).toBeGreaterThan(outside_m);
  }
});

describe('what is poured in by mistake', () => {
  it('each liquid for each other, once', () => {
    const pairs = WRONG.map(({ wrong, right }) => `${wrong} ${right}`);
    expect(new Set(pairs).size).toBe(pairs.length);
    expect([...pairs].sort()).toEqual(
      POURED.flatMap((wrong) => POURED.filter((right) => right !== wrong).map((right) => `${wrong} ${right}`)).sort(),
    );
  });

  it('spouts do not overlap, and none is narrower at its widest', () => {
    const rows = [...SPOUTS].sort((a, b) => a.least_m - b.least_m);
    rows.forEach((row, i) => {
      expect(row.most_m).toBeGreaterThan(row.least_m);
      if (i > 0) expect(row.least_m).toBeGreaterThan(rows[i - 1]!.most_m);
    });
  });
});
