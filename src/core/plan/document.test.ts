import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { allKnown, evaluateSystem } from '../answers';
import { unwrap } from '../outcome';
import { findingsOf } from '../rules';
import {
  assumed,
  CONSUMER_KINDS,
  draftSystem,
  freshId,
  limitsAt,
  MAX_DOCUMENT_BYTES,
  migrate,
  parseSystem,
  parseSystemText,
  toPath,
  valueAt,
  VEHICLES,
  withAdded,
  withoutEntry,
  withValue,
  type SystemDocument,
} from './';
import { ADDED_KEYS } from './addedKeys';
import { CURRENT_VERSION } from './schema';

const DRAFT = draftSystem({ name: 'Test', vehicle: 'boat', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.1 });
const copy = (): SystemDocument => structuredClone(DRAFT);
const changed = (path: string, value: unknown): unknown => withValue(copy(), toPath(path), value);

function faultsOf(raw: unknown): { code: string; paths: string[]; detail: string } {
  const parsed = parseSystem(raw);
  if (parsed.ok) throw new Error('was accepted');
  return {
    code: parsed.error.code,
    paths: parsed.error.faults.map((fault) => fault.path),
    detail: parsed.error.detail,
  };
}

describe('what is accepted', () => {
  it.each(readdirSync('demo').filter((file) => file.endsWith('.json')))('demo/%s', (file) => {
    const parsed = parseSystemText(readFileSync(`demo/${file}`, 'utf8'));
    expect(parsed).toMatchObject({ ok: true });
  });

  it('a document goes through its text unchanged', () => {
    const parsed = parseSystemText(JSON.stringify(DRAFT));
    expect(parsed).toEqual({ ok: true, value: DRAFT });
  });

  it('a byte-order mark before the text', () => {
    expect(parseSystemText(`\uFEFF${JSON.stringify(DRAFT)}`).ok).toBe(true);
  });
});

describe('what is refused, with the path of the fault', () => {
  it.each<[string, unknown, string, string]>([
    ['a negative size', changed('tanks[0].shape.length_m.value', -1), 'invalid', 'tanks[0].shape.length_m.value'],
    ['a size of nothing', changed('tanks[0].shape.length_m.value', 0), 'invalid', 'tanks[0].shape.length_m.value'],
    [
      'an endless number',
      changed('tanks[0].shape.length_m.value', Number.POSITIVE_INFINITY),
      'invalid',
      'tanks[0].shape.length_m.value',
    ],
    ['not a number', changed('tanks[0].shape.length_m.value', Number.NaN), 'invalid', 'tanks[0].shape.length_m.value'],
    ['null for a number', changed('tanks[0].shape.length_m.value', null), 'invalid', 'tanks[0].shape.length_m.value'],
    ['text for a number', changed('tanks[0].shape.length_m.value', '1.2'), 'invalid', 'tanks[0].shape.length_m.value'],
    ['a bare number for a known', changed('tanks[0].shape.length_m', 1.2), 'invalid', 'tanks[0].shape.length_m'],
    [
      'an assumption without spread',
      changed('tanks[0].shape.length_m', { value: 1, origin: 'assumed' }),
      'invalid',
      'tanks[0].shape.length_m.spread',
    ],
    [
      'an origin unheard of',
      changed('tanks[0].shape.length_m.origin', 'guessed'),
      'invalid',
      'tanks[0].shape.length_m.origin',
    ],
    ['a key unheard of', changed('tanks[0].colour', 'red'), 'invalid', 'tanks[0]'],
    ['a shape unheard of', changed('tanks[0].shape', { kind: 'torus' }), 'invalid', 'tanks[0].shape.kind'],
    ['a component unheard of', changed('components[0].kind', 'carousel'), 'invalid', 'components[0].kind'],
    ['a component of an inherited name', changed('components[0].kind', 'constructor'), 'invalid', 'components[0].kind'],
    ['a list that is an object', changed('tanks', {}), 'invalid', 'tanks'],
    ['a missing list', changed('lines', undefined), 'invalid', 'lines'],
    ['a line from nowhere', changed('lines[0].from.item', 'ghost'), 'invalid', 'lines[0].from.item'],
    ['a fluid that is not there', changed('tanks[0].fluid', 'ghost'), 'invalid', 'tanks[0].fluid'],
    ['a pickup without its port', changed('tanks[0].pickups[0].port', 'ghost'), 'invalid', 'tanks[0].pickups[0].port'],
    ['a sender without its port', changed('tanks[0].senders[0].port', 'ghost'), 'invalid', 'tanks[0].senders[0].port'],
    ['a filling of no tank', changed('conditions.fills[0].tank', 'ghost'), 'invalid', 'conditions.fills[0].tank'],
    ['an id used twice', changed('components[1].id', 'filter'), 'invalid', 'components[1].id'],
    ['a port without its place', changed('tanks[0].ports[0].x_m', undefined), 'invalid', 'tanks[0].ports[0].x_m'],
    [
      'a port with a place across its face',
      changed('tanks[0].ports[0].z_m', assumed(0.1, 0.1)),
      'invalid',
      'tanks[0].ports[0].z_m',
    ],
    ['another format', changed('format', 'drawing'), 'wrong-format', 'format'],
    ['a newer version', changed('version', 99), 'wrong-version', 'version'],
    ['half a version', changed('version', 0.5), 'wrong-version', 'version'],
    ['a list', [], 'wrong-format', 'file'],
    ['nothing', null, 'wrong-format', 'file'],
  ])('%s', (_, raw, code, path) => {
    const found = faultsOf(raw);
    expect(found.code).toBe(code);
    expect(found.paths).toContain(path);
    expect(found.detail.length).toBeGreaterThan(10);
  });

  it('says what would be accepted', () => {
    expect(faultsOf(changed('tanks[0].shape.length_m.value', -1)).detail).toContain('from 0.02 to 20');
    expect(faultsOf(changed('tanks[0].fluid', 'ghost')).detail).toContain('fuel');
  });

  it('a polluting key is just an unknown key', () => {
    const raw: unknown = JSON.parse(JSON.stringify(DRAFT).replace('"vehicle":{', '"vehicle":{"__proto__":{"x":1},'));
    expect(faultsOf(raw).code).toBe('invalid');
    expect(({} as { x?: number }).x).toBeUndefined();
  });

  it('all faults at once, not the first only', () => {
    const raw = withValue(withValue(copy(), ['name'], ''), ['rulebook'], 'x');
    expect(faultsOf(raw).paths.sort()).toEqual(['name', 'rulebook']);
  });

  it('text that is not JSON, and text without end', () => {
    expect(parseSystemText('{"format": NaN}')).toMatchObject({ ok: false, error: { code: 'not-json' } });
    expect(parseSystemText('')).toMatchObject({ ok: false, error: { code: 'not-json' } });
    expect(parseSystemText('x'.repeat(MAX_DOCUMENT_BYTES + 1))).toMatchObject({
      ok: false,
      error: { code: 'too-large' },
    });
  });
});

describe('migrations', () => {
  it('go step by step to the current version', () => {
    const steps = {
      1: (d: Record<string, unknown>) => ({ ...d, a: 1 }),
      2: (d: Record<string, unknown>) => ({ ...d, b: Number(d.a) + 1 }),
    };
    expect(migrate({ version: 1 }, steps, 3)).toEqual({ ok: true, value: { version: 3, a: 1, b: 2 } });
  });

  it('a file of version 1 opens as today’s, inside sizes and all that is new at its default', () => {
    const old = readFileSync('tests/fixtures/box-boat-v1.json', 'utf8');
    expect((JSON.parse(old) as { version: number }).version).toBe(1);
    const read = parseSystemText(old);
    if (!read.ok) throw new Error(read.error.detail);
    expect(read.value.tanks[0]).toMatchObject({ dimensions: 'inside', parts: [], slices: [], plates: [] });
    expect(read.value.limits.surgeCompartment_m3).toEqual({ value: 0.038, origin: 'chosen' });
    expect(read.value.envelope.cornering_mPerS2).toMatchObject({ value: 3, origin: 'assumed' });
  });

  it.each([1, 2, 3, 4, 5, 6])(
    'a file of version %d comes up to today’s whole, whatever new systems begin with today',
    (version) => {
      const old = JSON.parse(readFileSync(`tests/fixtures/box-boat-v${version}.json`, 'utf8')) as Record<
        string,
        unknown
      >;
      expect(old.version).toBe(version);
      expect(unwrap(migrate(old))).toEqual(JSON.parse(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
    },
  );

  it('keys that each version brought are those of the published schemas', () => {
    type Schema = {
      readonly properties?: Record<string, Schema>;
      readonly items?: Schema;
      readonly anyOf?: Schema[];
      readonly oneOf?: Schema[];
    };
    const pathsOf = (schema: Schema, at: string): string[] => [
      ...[...(schema.anyOf ?? []), ...(schema.oneOf ?? [])].flatMap((one) => pathsOf(one, at)),
      ...Object.entries(schema.properties ?? {}).flatMap(([key, of]) => {
        const path = at === '' ? key : `${at}.${key}`;
        return [path, ...pathsOf(of, path)];
      }),
      ...(schema.items ? pathsOf(schema.items, `${at}[]`) : []),
    ];
    const published = (version: number): Set<string> =>
      new Set(pathsOf(JSON.parse(readFileSync(`docs/format/system-v${version}.schema.json`, 'utf8')) as Schema, ''));
    for (let version = 2; version <= CURRENT_VERSION; version++) {
      const before = published(version - 1);
      const added = [...published(version)].filter((path) => !before.has(path));
      expect(added.length).toBeGreaterThan(0);
      const tops = added.filter(
        (path) =>
          !added.some((other) => path !== other && path.startsWith(other) && '.['.includes(path[other.length]!)),
      );
      expect([...ADDED_KEYS[version]!].sort(), `version ${version}`).toEqual(tops.sort());
    }
  });

  it.each(Object.entries(ADDED_KEYS).flatMap(([version, keys]) => keys.map((key) => [key, Number(version)] as const)))(
    '%s in a file labelled older than version %d is refused, not lost',
    (key, version) => {
      const withKey = key.split('.').reduceRight<unknown>((inner, step) => {
        const depth = step.split('[]').length - 1;
        return { [step.replaceAll('[]', '')]: Array.from({ length: depth }).reduce((at) => [at], inner) };
      }, 0);
      const answer = migrate({ format: 'gasline-system', version: version - 1, ...(withKey as object) });
      expect(answer).toMatchObject({ ok: false, error: { code: 'wrong-version', at: key.replaceAll('[]', '[0]') } });
      if (!answer.ok) expect(answer.error.detail).toContain(`version ${version}`);
      expect(parseSystem({ format: 'gasline-system', version: version - 1, ...(withKey as object) })).toMatchObject({
        ok: false,
      });
    },
  );

  it('today’s demos labelled as older are refused, one and all', () => {
    for (const demo of ['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle']) {
      const today = JSON.parse(readFileSync(`demo/${demo}.json`, 'utf8')) as Record<string, unknown>;
      for (let version = 1; version < CURRENT_VERSION; version++)
        expect(parseSystem({ ...today, version }), `${demo} as ${version}`).toMatchObject({
          ok: false,
          error: { code: 'wrong-version' },
        });
    }
  });

  it('of something that is not a document leaves the validator to say so', () => {
    expect(parseSystem({ format: 'gasline-system', version: 1, tanks: 7 })).toMatchObject({
      ok: false,
      error: { code: 'invalid' },
    });
  });

  it('a gap in the chain is said', () => {
    expect(migrate({ version: 1 }, {}, 2)).toMatchObject({ ok: false, error: { code: 'wrong-version' } });
  });
});

describe('edits', () => {
  it('replace one value and share the rest', () => {
    const after = withValue(DRAFT, toPath('tanks[0].shape.length_m.value'), 2);
    expect(valueAt(after, toPath('tanks[0].shape.length_m.value'))).toBe(2);
    expect(after.components).toBe(DRAFT.components);
    expect(valueAt(DRAFT, toPath('tanks[0].shape.length_m.value'))).not.toBe(2);
  });

  it('add to and take from lists', () => {
    const more = withAdded(DRAFT, ['lines', 0, 'fittings'], { fitting: 'elbow-45', count: 1 });
    expect(more.lines[0]!.fittings).toHaveLength(DRAFT.lines[0]!.fittings.length + 1);
    expect(withoutEntry(more, ['lines', 0, 'fittings'], 0).lines[0]!.fittings).toHaveLength(
      DRAFT.lines[0]!.fittings.length,
    );
  });

  it('know the validator’s limits of any number', () => {
    expect(limitsAt(DRAFT, toPath('tanks[0].shape.length_m'))).toEqual({ min: 0.02, max: 20 });
    expect(limitsAt(DRAFT, toPath('components[1].curve[0].rise_Pa'))).toEqual({ min: 0, max: 5e6 });
    expect(limitsAt(DRAFT, toPath('conditions.fills[0].fill_ratio'))).toEqual({ min: 0, max: 1 });
    for (const { path } of allKnown(DRAFT))
      expect(limitsAt(DRAFT, path).max).toBeGreaterThan(limitsAt(DRAFT, path).min);
    expect(() => limitsAt(DRAFT, ['nothing'])).toThrow();
  });

  it('find a fresh id and a value', () => {
    expect(freshId(DRAFT, 'vent')).toBe('vent-2');
    expect(freshId(DRAFT, 'spare')).toBe('spare');
    expect(valueAt(DRAFT, toPath('tanks.0.ports.0.id'))).toBe('filler');
    expect(valueAt(DRAFT, toPath('nothing.here'))).toBeUndefined();
  });
});

describe('a drafted system', () => {
  const answers = VEHICLES.flatMap((vehicle) => CONSUMER_KINDS.map((consumer) => [vehicle, consumer] as const));
  it.each(answers)('%s with %s is valid, computes whole, and holds what was asked', (vehicle, consumer) => {
    const system = draftSystem({ name: 'x', vehicle, consumer, power_W: 30e3, holds_m3: 0.08 });
    expect(parseSystem(JSON.parse(JSON.stringify(system)))).toMatchObject({ ok: true });
    const evaluation = evaluateSystem(system);
    if (!evaluation.ok) throw new Error(evaluation.error.detail);
    expect(Math.abs(evaluation.value.tanks[0]!.holds_m3 / 0.08 - 1)).toBeLessThan(0.01);
    for (const part of [...evaluation.value.flows, ...evaluation.value.gauges, evaluation.value.usable])
      expect(part).toMatchObject({ ok: true });
    // A nozzle burns nothing, so that it has no range to tell.
    expect(evaluation.value.range).toMatchObject(
      consumer === 'nozzle' ? { ok: false, error: { code: 'no-burn' } } : { ok: true },
    );
  });

  it.each(answers)('%s with %s stops at nothing of its own assuming', (vehicle, consumer) => {
    const system = draftSystem({
      name: 'x',
      vehicle,
      consumer,
      power_W: consumer === 'heater' ? 4e3 : 40e3,
      holds_m3: 0.08,
    });
    const stops = findingsOf(system, unwrap(evaluateSystem(system))).filter((finding) => finding.severity === 'stop');
    expect(stops.map((finding) => finding.id)).toEqual([]);
  });

  it.each([
    [0.0002, 200],
    [5, 2e6],
  ])('also at the ends of what may be asked: %d m³, %d W', (holds_m3, power_W) => {
    for (const consumer of CONSUMER_KINDS) {
      const system = draftSystem({ name: 'x', vehicle: 'bench', consumer, power_W, holds_m3 });
      expect(parseSystem(JSON.parse(JSON.stringify(system))), `${consumer} ${holds_m3}`).toMatchObject({ ok: true });
      expect(evaluateSystem(system)).toMatchObject({ ok: true });
    }
  });

  it('keeps sizes that were told as measured and finds the missing one', () => {
    const system = draftSystem({
      name: 'x',
      vehicle: 'road',
      consumer: 'heater',
      power_W: 3e3,
      holds_m3: 0.019,
      length_m: 0.5,
      width_m: 0.2,
    });
    const shape = system.tanks[0]!.shape as { length_m: unknown; height_m: unknown };
    expect(shape.length_m).toMatchObject({ value: 0.5, origin: 'measured' });
    expect(shape.height_m).toMatchObject({ origin: 'assumed', value: 0.2 });
  });

  it('states a spread for every assumption', () => {
    const open = allKnown(DRAFT).filter(({ known }) => known.origin === 'assumed');
    expect(open.length).toBeGreaterThan(15);
    for (const { known } of open) expect(known.spread).toBeGreaterThan(0);
  });
});
