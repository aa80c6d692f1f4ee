import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { evaluateSystem } from '../answers';
import { loadKernel } from '../geometry';
import { unwrap } from '../outcome';
import { parseSystemText } from '../plan';
import { tankSheet } from '.';

const LOOK = {
  title: 'Tank',
  room: { width_mm: 200, height_mm: 160 },
  isNarrow: false,
  viewNames: { side: 'Side', end: 'End', plan: 'Plan' },
  sizes: { length: '1120 mm', width: '520 mm', height: '310 mm' },
  turns_deg: { side: 0, end: 0 },
  grips: [],
};

beforeAll(loadKernel);

describe('where the views are cut', () => {
  it.each(['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle'])(
    '%s: the plan’s lines stand where end and side are cut, over its outline and with a letter at both ends',
    (name) => {
      const system = unwrap(parseSystemText(readFileSync(`demo/${name}.json`, 'utf8')));
      for (const { drawing: tank, pickups } of unwrap(evaluateSystem(system, 'full', 'without-fit')).tanks) {
        const { drawing, frames, mmPerM } = tankSheet(tank!, LOOK);
        const { min, max } = tank!.bounds;
        const lines = drawing.marks.flatMap((mark) =>
          mark.kind === 'line' && mark.line === 'centre' ? [mark.points] : [],
        );
        const [along, across] = [lines.find(([a, b]) => a![1] === b![1])!, lines.find(([a, b]) => a![0] === b![0])!];
        const back = (mm: number, k: 0 | 1): number =>
          (min[k] + max[k]) / 2 + ((k === 0 ? 1 : -1) * (mm - frames.plan.centre[k])) / mmPerM;
        expectClose(back(across[0]![0], 0), tank!.cuts_m[0], { abs: 1e-9, why: 'the end view’s length' });
        expectClose(back(along[0]![1], 1), tank!.cuts_m[1], { abs: 1e-9, why: 'the side view’s width' });
        for (const [line, k] of [
          [along, 0],
          [across, 1],
        ] as const)
          expect(Math.abs(line[1]![k] - line[0]![k])).toBeGreaterThan((max[k] - min[k]) * mmPerM);
        // Cut through the first pickup where there is one, by what the numbers know of it.
        const inlet = tank!.pickups[0]?.inlet;
        if (pickups.length > 0) expect(tank!.cuts_m.slice(0, 2)).toEqual([inlet![0], inlet![1]]);
        const texts = drawing.marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
        for (const letter of ['A', 'B']) expect(texts.filter((text) => text === letter)).toHaveLength(2);
        expect(texts).toContain('Side, A–A');
        expect(texts).toContain('End, B–B');
        // The section itself reaches no further than the tank does there.
        const reach = tank!.end.outline.flat().map(([y]) => y);
        expect(Math.min(...reach)).toBeGreaterThanOrEqual(min[1] - 1e-9);
        expect(Math.max(...reach)).toBeLessThanOrEqual(max[1] + 1e-9);
      }
    },
  );
});
