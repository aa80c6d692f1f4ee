import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { areaMark, circleMark, ofThing, textMark, type Drawing } from '@/core/drawings';
import { DrawingView } from './DrawingView';

const SQUARE = [
  [
    [0, 0],
    [50, 0],
    [50, 50],
  ],
] as const;
/** A grip whose name lies across the next view, which is drawn between the two. */
const DRAWING: Drawing = {
  title: 'Two views',
  width_mm: 100,
  height_mm: 50,
  marks: [
    ...ofThing('grip', [circleMark('chosen', [5, 5], 2, 'paper')]),
    areaMark('metal', SQUARE, 'sheet'),
    ...ofThing('grip', [textMark([10, 5], 'Vent with a long name', 3)]),
  ],
};

describe('a drawing on screen', () => {
  it('paints what takes hold of a thing, and its name, over what was drawn in between', () => {
    const svg = renderToStaticMarkup(
      createElement(DrawingView, { drawing: DRAWING, grips: new Map([['grip', { 'aria-label': 'Vent' }]]) }),
    );
    const [area, group, name] = ['<path', 'aria-label="Vent"', 'Vent with a long name'].map((text) =>
      svg.indexOf(text),
    ) as [number, number, number];
    expect(area).toBeGreaterThan(0);
    expect(group).toBeGreaterThan(area);
    expect(name).toBeGreaterThan(group);
    expect(svg.split('aria-label="Vent"')).toHaveLength(2);
    expect(svg.split('Vent with a long name')).toHaveLength(2);
  });
});
