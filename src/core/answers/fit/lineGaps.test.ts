import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { chosen, parseSystemText, type SystemDocument } from '../../plan';
import { partPositions } from '../../model/networkParts';
import { stockOf } from '../../plan/circuits';
import { boxMesh, loadKernel, posedMesh, shiftBy, type Vec3 } from '../../geometry';
import type { Obstacle } from '../../fit';
import { unwrap } from '../../outcome';
import { flowInputsOf } from '../flow/flowInputs';
import { lineGaps } from './lineGaps';

await loadKernel();
const BOX = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const straight: SystemDocument = {
  ...BOX,
  lines: BOX.lines.map((line) => ({
    ...line,
    toPort_m: chosen(0),
    rise_m: chosen(0),
    forward_m: chosen(-0.5),
    length_m: chosen(0.5),
  })),
};
const { levels } = flowInputsOf(straight, straight.consumers[0])!;
const start = partPositions(straight, levels).get('pickup')!;
const block = (at: Vec3, more: Partial<Obstacle> = {}): Obstacle => ({
  id: 'block',
  name: 'Block',
  role: 'heat',
  surface: posedMesh(boxMesh(0.1, 0.1, 0.1), shiftBy(at)),
  motions: [],
  keep_m: 0.1,
  removable: false,
  ...more,
});

it('measures from the outside of the line to the obstacle', () => {
  const gap = lineGaps(straight, [block([start[0] - 0.3, start[1] + 0.2, start[2] - 0.05])]).find(
    ({ line }) => line === 'line-1',
  )!;
  const radius = stockOf(straight.lines[0]!)!.outside_m / 2;
  // The line is taken as a rod of eight sides that encloses it.
  expectClose(gap.distance_m, 0.2 - radius, { abs: 0.09 * radius, why: 'flat or corner of the rod' });
  expect(gap.kind).toBe('heat');
});

it('follows what moves over its whole travel, and looks past what neither moves nor is hot', () => {
  const slides = block([start[0] - 0.3, start[1] + 0.3, start[2] - 0.05], {
    role: 'obstacle',
    motions: [{ kind: 'slide', way: [0, -1, 0], from_m: 0, to_m: 0.25 }],
  });
  const gap = lineGaps(straight, [slides]).find(({ line }) => line === 'line-1')!;
  expect(gap.kind).toBe('moving');
  expect(gap.distance_m).toBeLessThan(0.05);
  expect(lineGaps(straight, [block([0, 0, 0], { role: 'obstacle' })])).toEqual([]);
});

it('a line that passes through says so', () => {
  expect(
    lineGaps(straight, [block([start[0] - 0.3, start[1] - 0.05, start[2] - 0.05])])[0]!.distance_m,
  ).toBeLessThanOrEqual(0);
});
