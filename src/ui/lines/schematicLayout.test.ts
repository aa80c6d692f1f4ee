import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseSystemText, type SystemDocument } from '@/core/document';
import { unwrap } from '@/core/outcome';
import { placedSchematic, schematicGraph, wrapped } from './schematicLayout';

const demo = (file: string): SystemDocument => unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8')));

describe('every demo’s schematic', () => {
  it.each(readdirSync('demo').flatMap((file) => [[file, false] as const, [file, true] as const]))('%s, narrow %s: no two boxes overlap, every line has a route between its own parts', async (file, narrow) => {
    const system = demo(file);
    const graph = schematicGraph(system);
    const placed = await placedSchematic(graph, narrow);
    const boxes = graph.boxes.map(({ id }) => placed.boxes.get(id)!);
    boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => {
      const apart = a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
      expect(apart).toBe(true);
    }));
    expect([...placed.lines.keys()].sort()).toEqual(system.lines.map(({ id }) => id).sort());
    const owner = (end: string): string => graph.boxes.find(({ ends }) => ends.some(({ id }) => id === end))!.id;
    for (const { id, from, to } of graph.lines) {
      const points = placed.lines.get(id)!;
      expect(points.length).toBeGreaterThan(1);
      for (const [end, point] of [[from, points[0]!], [to, points.at(-1)!]] as const) {
        const box = placed.boxes.get(owner(end))!;
        expect(point[0]).toBeGreaterThanOrEqual(box.x - 2);
        expect(point[0]).toBeLessThanOrEqual(box.x + box.width + 2);
        expect(point[1]).toBeGreaterThanOrEqual(box.y - 2);
        expect(point[1]).toBeLessThanOrEqual(box.y + box.height + 2);
      }
    }
  });
});

it('draws what lines touch, and no more', () => {
  const boat = demo('crab-boat.json');
  const cut = schematicGraph({ ...boat, lines: boat.lines.slice(0, 2) });
  expect(cut.boxes.map(({ id }) => id).sort()).toEqual(['filter', 'main', 'tank-cock']);
});

it('names break into lines that fit a box', () => {
  expect(wrapped('Pump')).toEqual(['Pump']);
  expect(wrapped('Coolant recovery bottle, aft')).toEqual(['Coolant recovery', 'bottle, aft']);
});
