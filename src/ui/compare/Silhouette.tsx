'use client';

import { Box } from '@chakra-ui/react';
import type { Compared } from './compared';

type Loops = readonly (readonly (readonly [number, number])[])[];
const path = (loops: Loops): string =>
  loops.map((loop) => `M${loop.map(([u, v]) => `${u},${-v}`).join('L')}Z`).join('');

/** The first tank from starboard with its liquid, drawn to the scale of the largest of all. */
export function Silhouette({
  compared,
  all,
}: {
  readonly compared: Compared | undefined;
  readonly all: readonly (Compared | undefined)[];
}) {
  const drawings = all.flatMap((other) => (other?.ok ? (other.evaluation.tanks[0]?.drawing ?? []) : []));
  const drawing = compared?.ok ? compared.evaluation.tanks[0]?.drawing : undefined;
  if (!drawing) return <Box />;
  const reach = (axis: 0 | 2): number =>
    Math.max(...drawings.map(({ bounds }) => bounds.max[axis] - bounds.min[axis])) * 1.08;
  const [width, height] = [reach(0), reach(2)];
  const { min, max } = drawing.bounds;
  return (
    <svg
      viewBox={`${(min[0] + max[0] - width) / 2} ${-(min[2] + max[2] + height) / 2} ${width} ${height}`}
      role="img"
      aria-label="Side view"
      style={{ width: '100%', maxHeight: 150 }}
    >
      <path d={path(drawing.side.liquid)} fillRule="evenodd" fill="var(--chakra-colors-fuel)" fillOpacity="0.55" />
      <path d={path(drawing.side.outline)} fill="none" stroke="var(--chakra-colors-metal)" strokeWidth={width / 90} />
      {drawing.side.plates.map(({ line: [from, to] }, i) => (
        <line
          key={i}
          x1={from[0]}
          y1={-from[1]}
          x2={to[0]}
          y2={-to[1]}
          stroke="var(--chakra-colors-metal)"
          strokeWidth={width / 130}
        />
      ))}
    </svg>
  );
}
