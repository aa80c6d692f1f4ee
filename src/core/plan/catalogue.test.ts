import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { unwrap } from '../outcome';
import { catalogueCsv, parsePart, readCatalogueCsv } from './catalogue';
import { newPart } from './circuitEdits';
import { COMPONENT_KINDS, parseSystemText, partOfVersion, type ComponentDocument } from './';

const BOX = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const all = (): ComponentDocument[] => COMPONENT_KINDS.map((kind) => newPart(BOX, kind, 0.008));
/** What a file keeps: values, without their origin and spread, and without the id. */
const values = (part: unknown): unknown =>
  JSON.parse(
    JSON.stringify(part, (key, value: unknown) =>
      key === 'id' || key === 'curveOrigin'
        ? undefined
        : typeof value === 'object' && value !== null && 'value' in value
          ? (value as { value: unknown }).value
          : value,
    ),
  );

describe('own parts as CSV', () => {
  it.each(all().map((part) => [part.kind, part] as const))('%s goes out and comes in as it was', (_, part) => {
    const made: ComponentDocument = {
      ...part,
      name: 'A, "part" of mine',
      ends: [{ end: 'in', system: 'npt', size: '1/4', side: 'female' }],
    };
    expect(unwrap(readCatalogueCsv(catalogueCsv([made]))).map(values)).toEqual([values(made)]);
  });

  it('a pump keeps its curve and its wires', () => {
    const pump = {
      ...newPart(BOX, 'pump', 0.008),
      wiring: {
        freeCurrent_A: { value: 2, origin: 'part' as const },
        shutOffCurrent_A: { value: 5, origin: 'part' as const },
        wire: 'mm2-1-5',
        length_m: { value: 3, origin: 'part' as const },
        fuse_A: 7.5,
        relay: true,
        battery_Ah: { value: 70, origin: 'part' as const },
      },
    } as ComponentDocument;
    expect(unwrap(readCatalogueCsv(catalogueCsv([pump]))).map(values)).toEqual([values(pump)]);
  });

  it('takes many kinds in one file, semicolons and decimal commas too', () => {
    expect(unwrap(readCatalogueCsv(catalogueCsv(all())))).toHaveLength(COMPONENT_KINDS.length);
    expect(unwrap(readCatalogueCsv('kind;name;bore_m\ntee;T-piece;0,008\n'))[0]).toMatchObject({
      kind: 'tee',
      bore_m: { value: 0.008, origin: 'part' },
    });
  });

  it.each([
    ['', 'empty', /no rows/],
    ['a,b\n1,2\n', 'no-columns', /kind and name/],
    ['kind,name\ncarousel,X\n', 'bad-rows', /Row 2: "carousel" is no kind/],
    ['kind,name,bore_m\ntee,X,9\n', 'bad-rows', /Row 2: bore_m.value must be a number from/],
    ['kind,name,bore_m\ntee,Fine,0.008\ntee,,0.008\n', 'bad-rows', /Row 3: name/],
    ['kind,name,bore_m,ends\ntee,X,0.008,in somewhere\n', 'bad-rows', /ends wants entries/],
    ['kind,name,curve\npump,X,fast\n', 'bad-rows', /curve wants pairs/],
  ])('%j is refused whole: %s', (text, code, detail) => {
    const read = readCatalogueCsv(text);
    expect(read).toMatchObject({ ok: false, error: { code } });
    expect(read.ok ? '' : read.error.detail).toMatch(detail);
  });

  it('a formula in a name is written as text and comes back', () => {
    const part = { ...newPart(BOX, 'tee', 0.008), name: '=1+1' };
    expect(catalogueCsv([part])).toContain("'=1+1");
    expect(unwrap(readCatalogueCsv(catalogueCsv([part])))[0]!.name).toBe('=1+1');
  });
});

it('a catalogue and a part of before version 7 say what a filter does, and are read as its type', () => {
  const filter = newPart(BOX, 'filter', 0.008);
  if (filter.kind !== 'filter') throw new Error('a filter was asked for');
  const separator = { ...filter, type: 'separator' as const };
  const old = catalogueCsv([separator]).replace(',type,', ',does,');
  expect(old).toContain(',does,');
  expect(unwrap(readCatalogueCsv(old))[0]).toMatchObject({ kind: 'filter', type: 'separator' });
  const { type, ...rest } = separator;
  expect(unwrap(partOfVersion({ ...rest, does: type }, 6))).toEqual(separator);
});

it('a part is checked as the document would', () => {
  expect(parsePart({ ...newPart(BOX, 'tee', 0.008), colour: 'red' })).toMatchObject({
    ok: false,
    error: { code: 'invalid' },
  });
  expect(parsePart(null)).toMatchObject({ ok: false });
  expect(parsePart(newPart(BOX, 'valve', 0.008)).ok).toBe(true);
});
