import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { chosen, draftSystem, withValue, type PartDocument, type PlateDocument, type SystemDocument } from '../../plan';
import { signedArea_m2, type Point2 } from '../../geometry';
import { unwrap } from '../../outcome';
import { evaluateSystem, workingOf, type SectionDrawing } from '..';

const DRAFT = draftSystem({
  name: 'Drawn',
  vehicle: 'road',
  consumer: 'diesel-engine',
  power_W: 40e3,
  holds_m3: 0.06,
  length_m: 0.8,
  width_m: 0.4,
  height_m: 0.25,
});
const TANK = ['tanks', 0] as const;
const LEVEL = withValue(
  withValue(DRAFT, [...TANK, 'mounting', 'pitch_deg'], chosen(0)),
  ['conditions', 'fills', 0, 'fill_ratio'],
  0.4,
);
const plate = (axis: PlateDocument['axis'], at_m: number, more: Partial<PlateDocument> = {}): PlateDocument => ({
  id: `plate-${axis}`,
  name: 'Plate',
  axis,
  at_m: chosen(at_m),
  thickness_m: chosen(0.003),
  cornerCut_m: chosen(0),
  topGap_m: chosen(0.03),
  holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(0.1) },
  ...more,
});
const BLOCK: PartDocument = {
  id: 'block',
  name: 'Block',
  operation: 'displace',
  shape: { kind: 'box', length_m: chosen(0.3), width_m: chosen(0.3), height_m: chosen(0.05) },
  x_m: chosen(0.1),
  y_m: chosen(0.05),
  z_m: chosen(0.02),
};
const drawingOf = (system: SystemDocument) => unwrap(evaluateSystem(system, 'full', 'without-fit')).tanks[0]!.drawing!;
const with_ = (key: 'plates' | 'parts', ...entries: unknown[]): SystemDocument =>
  withValue(LEVEL, [...TANK, key], entries);
/** Area painted under the even-odd rule: outer loops less those inside them. */
const painted = (loops: readonly (readonly Point2[])[]): number => {
  const areas = loops.map((loop) => Math.abs(signedArea_m2(loop))).sort((a, b) => b - a);
  return areas.reduce((sum, area, i) => sum + (i === 0 ? area : -area), 0);
};
const rounded = (section: SectionDrawing) =>
  section.plates.map(({ line }) => line.map((point) => point.map((value) => Number(value.toFixed(6)))));

describe('the three views', () => {
  it('of a box are its faces, wet to the level', () => {
    const { side, end, plan, bounds } = drawingOf(LEVEL);
    expect(bounds).toEqual({ min: [0, 0, 0], max: [0.8, 0.4, 0.25] });
    expectClose(painted(side.outline), 0.8 * 0.25, { rel: 1e-6, why: 'length by height' });
    expectClose(painted(end.outline), 0.4 * 0.25, { rel: 1e-6, why: 'width by height' });
    expectClose(painted(plan.outline), 0.8 * 0.4, { rel: 1e-6, why: 'length by width' });
    expectClose(painted(side.liquid), 0.4 * 0.8 * 0.25, { rel: 1e-6, why: 'four tenths full' });
    expectClose(painted(plan.liquid), 0.8 * 0.4, { rel: 1e-6, why: 'cut below the level' });
  });

  it('of a block inside is left dry', () => {
    const { side, end } = drawingOf(withValue(with_('parts', BLOCK), [...TANK, 'shape', 'kind'], 'box'));
    expectClose(painted(side.outline), 0.8 * 0.25 - 0.3 * 0.05, { rel: 1e-6, why: 'through the block' });
    expectClose(painted(end.outline), 0.4 * 0.25 - 0.3 * 0.05, { rel: 1e-6, why: 'through the block' });
  });

  it('cut a baffle where it stands, up to its air gap, and not in the view that looks at it', () => {
    const { side, end, plan } = drawingOf(with_('plates', plate('x', 0.5)));
    expect(rounded(side)).toEqual([
      [
        [0.5, 0],
        [0.5, 0.22],
      ],
    ]);
    expect(rounded(plan)).toEqual([
      [
        [0.5, 0],
        [0.5, 0.4],
      ],
    ]);
    expect(end.plates).toEqual([]);
  });

  it('of one that stands fore and aft, over a part only, or level', () => {
    const across = drawingOf(with_('plates', plate('y', 0.1, { from_m: chosen(0.3), to_m: chosen(0.6) })));
    expect(across.side.plates).toEqual([]);
    expect(rounded(across.plan)).toEqual([
      [
        [0.3, 0.1],
        [0.6, 0.1],
      ],
    ]);
    // The end view is cut through the pickup at a quarter of the length, where this baffle is not.
    expect(across.end.plates).toEqual([]);
    const level = drawingOf(with_('plates', plate('z', 0.1)));
    expect(rounded(level.side)).toEqual([
      [
        [0, 0.1],
        [0.8, 0.1],
      ],
    ]);
    expect(rounded(level.end)).toEqual([
      [
        [0, 0.1],
        [0.4, 0.1],
      ],
    ]);
  });
});

describe('the working of Holds', () => {
  const terms = (system: SystemDocument) =>
    workingOf('holds', system, unwrap(evaluateSystem(system, 'full', 'without-fit'))).steps[0]!;

  it('names the sizes by the side they are measured on', () => {
    const words = (system: SystemDocument) => JSON.stringify(terms(system));
    expect(words(LEVEL)).toContain('inside length');
    expect(words(withValue(LEVEL, [...TANK, 'dimensions'], 'outside'))).toContain('outside length');
  });

  it('lists every part with what it adds or costs: together with the first shape they are the room for liquid', () => {
    const sump: PartDocument = { ...BLOCK, id: 'sump', name: 'Sump', operation: 'add', z_m: chosen(-0.05) };
    const system = with_('parts', BLOCK, sump);
    const step = terms(system);
    const text = JSON.stringify(step);
    expect(text).toContain('Sump');
    expect(text).toContain('Block');
    expect(step.formula).toContain('what is added');
    const { changes, gross_m3 } = unwrap(evaluateSystem(system, 'full', 'without-fit')).tanks[0]!;
    expectClose(0.8 * 0.4 * 0.25 + Object.values(changes).reduce((sum, change) => sum + change, 0), gross_m3, {
      rel: 1e-9,
      why: 'nothing is left out',
    });
  });

  it('says when foam takes some', () => {
    expect(JSON.stringify(terms(withValue(LEVEL, [...TANK, 'foam_ratio'], chosen(0.03))))).toContain('taken by foam');
  });
});
