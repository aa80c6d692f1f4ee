import { describe, expect, it } from 'vitest';
import { entryText, formatQuantity, roleUnit, ROLES } from './format';
import { parseQuantity } from './parse';
import { apartOf, readerOf, systemOf, UNIT_GROUPS, UNIT_GROUP_KEYS, type Reader } from './reader';
import type { Role } from './role';
import { toSI, unitById } from './units';

const SYSTEMS = ['metric', 'us', 'imperial'] as const;
const every: readonly (readonly [string, string])[] = UNIT_GROUP_KEYS.flatMap((group) =>
  Object.keys(UNIT_GROUPS[group].choices).map((id) => [group, id] as const),
);

describe('kinds of quantity set apart', () => {
  it('every choice names units that there are, for the same roles as its neighbours', () => {
    for (const group of UNIT_GROUP_KEYS) {
      const choices = Object.values(UNIT_GROUPS[group].choices);
      for (const { units } of choices) {
        expect(Object.keys(units), group).toEqual(Object.keys(choices[0]!.units));
        for (const [role, id] of Object.entries(units)) {
          expect(unitById(ROLES[role as Role].kind, id), `${group} ${role}`).toBeDefined();
        }
      }
    }
  });

  it('no role is in two groups, and each system has its own unit among the choices', () => {
    const roles = UNIT_GROUP_KEYS.flatMap((group) =>
      Object.keys(Object.values(UNIT_GROUPS[group].choices)[0]!.units).map((role) => [group, role as Role] as const),
    );
    expect(new Set(roles.map(([, role]) => role)).size).toBe(roles.length);
    for (const [group, role] of roles) {
      const offered = Object.values(UNIT_GROUPS[group].choices).map(({ units }) => units[role]);
      for (const system of SYSTEMS) expect(offered, `${role} ${system}`).toContain(roleUnit(role, system));
    }
  });

  it.each(every)('%s in %s changes its own roles and no other', (group, id) => {
    for (const system of SYSTEMS) {
      const reader = readerOf({ system, apart: { [group]: id } });
      const { units } = UNIT_GROUPS[group as keyof typeof UNIT_GROUPS].choices[id]!;
      for (const role of Object.keys(ROLES) as Role[]) {
        expect(roleUnit(role, reader), role).toBe(units[role] ?? roleUnit(role, system));
      }
    }
  });

  it('what is typed in the unit set apart comes back as it was typed', () => {
    for (const [group, id] of every) {
      const reader = readerOf({ system: 'us', apart: { [group]: id } });
      for (const role of Object.keys(UNIT_GROUPS[group as keyof typeof UNIT_GROUPS].choices[id]!.units) as Role[]) {
        const kind = ROLES[role].kind;
        const unit = roleUnit(role, reader);
        const read = parseQuantity('1.25', { kind, unit, reader });
        expect(read.ok && read.value.si).toBeCloseTo(toSI(1.25, unitById(kind, unit)), 12);
        if (read.ok && unit !== 'in') expect(Number(entryText(read.value.si, role, reader)), role).toBeCloseTo(1.25, 9);
      }
    }
  });

  const pressure: Reader = { system: 'metric', apart: { pressure: 'psi', volumes: 'us_gal' } };
  it.each<[number, Role, Reader, string]>([
    [6894.757, 'pressure', pressure, '1.00 psi'],
    [0.0378541, 'tankVolume', pressure, '10.0 US gal'],
    [0.31, 'tape', pressure, '310 mm'],
    [0.313, 'tape', { system: 'us', apart: { sizes: 'cm' } }, '31.3 cm'],
    [30000, 'pressure', { system: 'us', apart: { pressure: 'bar' } }, '0.300 bar'],
    [1234, 'pressure', { system: 'us', apart: { pressure: 'mbar' } }, '12.3 mbar'],
    [293.15, 'temperature', { system: 'us', apart: { temperature: 'C' } }, '20 °C'],
    [12.375 * 0.0254, 'tape', { system: 'metric', apart: { sizes: 'in' } }, '12 3/8 in'],
    [840, 'density', { system: 'metric', apart: { density: 'kg_per_L' } }, '0.840 kg/L'],
  ])('%d as %s reads %s', (si, role, reader, text) => {
    expect(formatQuantity(si, role, { reader }).text).toBe(text);
  });

  it('a plain gallon is that of the volumes set apart, and none where they are litres', () => {
    const read = (reader: Reader) => parseQuantity('5 gal', { kind: 'volume', unit: 'L', reader });
    expect(read('metric')).toMatchObject({ ok: false, error: { code: 'ambiguous-unit' } });
    expect(read({ system: 'metric', apart: { volumes: 'us_gal' } })).toMatchObject({ ok: true });
    expect(read({ system: 'us', apart: { volumes: 'L' } })).toMatchObject({ ok: false });
    const imperial = read({ system: 'us', apart: { volumes: 'imp_gal' } });
    expect(imperial.ok && imperial.value.si).toBeCloseTo(5 * 4.54609e-3, 12);
  });

  it.each<[unknown, Reader]>([
    ['us', 'us'],
    [undefined, 'metric'],
    ['cubits', 'metric'],
    [{ system: 'imperial', apart: {} }, 'imperial'],
    [
      { system: 'us', apart: { pressure: 'bar', burn: 'barrels', gone: 'x' } },
      { system: 'us', apart: { pressure: 'bar' } },
    ],
    [
      { system: 7, apart: { mass: 'lb' } },
      { system: 'metric', apart: { mass: 'lb' } },
    ],
    [{ apart: { pressure: 'constructor' } }, 'metric'],
  ])('%j as it was kept is %j', (kept, reader) => {
    expect(readerOf(kept)).toEqual(reader);
    expect(systemOf(reader)).toBe(systemOf(readerOf(kept)));
    expect(apartOf(reader)).toEqual(apartOf(readerOf(kept)));
  });
});
