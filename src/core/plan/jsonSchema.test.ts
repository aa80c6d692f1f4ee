import { readdirSync, readFileSync } from 'node:fs';
import Ajv2020 from 'ajv/dist/2020';
import { describe, expect, it } from 'vitest';
import { CURRENT_VERSION, draftSystem, parseSystem, toPath, withValue } from './';
import { systemJsonSchema } from './jsonSchema';

const PUBLISHED: unknown = JSON.parse(readFileSync(`docs/format/system-v${CURRENT_VERSION}.schema.json`, 'utf8'));
const accepts = new Ajv2020({ strict: false, allErrors: true }).compile(PUBLISHED as object);
const DRAFT = draftSystem({ name: 'Test', vehicle: 'boat', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.1 });

describe('the published JSON Schema', () => {
  it('is what the validator says today (npm run schema writes it)', () => {
    expect(PUBLISHED).toEqual(JSON.parse(JSON.stringify(systemJsonSchema())));
  });

  it.each(readdirSync('demo'))('accepts demo/%s', (file) => {
    expect(accepts(JSON.parse(readFileSync(`demo/${file}`, 'utf8'))), JSON.stringify(accepts.errors)).toBe(true);
  });

  it.each<[string, unknown]>([
    ['tanks[0].shape.length_m.value', -1],
    ['tanks[0].shape.length_m', 3],
    ['tanks[0].shape.length_m', { value: 1, origin: 'assumed' }],
    ['tanks[0].shape.kind', 'torus'],
    ['tanks[0].colour', 'red'],
    ['components[0].kind', 'carousel'],
    ['lines', undefined],
    ['tanks', {}],
    ['version', 9],
    ['tanks[0].id', 'No Good'],
    ['lines[0].fittings[0].count', 1.5],
    ['constraints.nothingCut', 'no'],
    ['name', undefined],
  ])('and the validator both refuse %s = %j', (path, value) => {
    const bad: unknown = JSON.parse(JSON.stringify(withValue(DRAFT, toPath(path), value)));
    expect(accepts(bad)).toBe(false);
    expect(parseSystem(bad).ok).toBe(false);
  });
});
