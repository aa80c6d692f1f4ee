'use client';

import { Box } from '@chakra-ui/react';
import { silhouetteDrawing } from '@/core/reports';
import { DrawingView } from '../drawing/DrawingView';
import type { Compared } from './compared';

const ROOM = { width_mm: 81, height_mm: 40 } as const;

/** The first tank from its side with its liquid, drawn to the scale of the largest of all. */
export function Silhouette({
  compared,
  all,
}: {
  readonly compared: Compared | undefined;
  readonly all: readonly (Compared | undefined)[];
}) {
  const drawingOf = (of: Compared | undefined) => (of?.ok ? of.evaluation.tanks[0]?.drawing : undefined);
  if (!compared) return <Box color="soft">Being worked out…</Box>;
  const tank = drawingOf(compared);
  if (!tank) return <Box />;
  const tanks = all.flatMap((other) => drawingOf(other) ?? []);
  return <DrawingView drawing={silhouetteDrawing('Side view', tank, tanks, ROOM)} />;
}
