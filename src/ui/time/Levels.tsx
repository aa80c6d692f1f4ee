'use client';

import { Box } from '@chakra-ui/react';
import { useMemo } from 'react';
import type { Sample } from '@/core/answers';
import type { SystemDocument } from '@/core/plan';
import { levelsDrawing, type Turns } from '@/core/reports';
import { DrawingView } from '../drawing/DrawingView';
import { useRoom } from '../drawing/useRoom';

/** What it is thought to have until that is known. */
const USUAL_PX = 600;
const TALL_MM = 62;
/** A tenth of a degree is drawn, less is not. */
const LEANS_DEG = 0.1;

/** What is drawn of an angle. */
export const roundedLean = (angle_deg: number): number => Math.round(angle_deg / LEANS_DEG) * LEANS_DEG;

type Drawings = readonly Parameters<typeof levelsDrawing>[0][number]['drawing'][];

/** All tanks side by side to one scale; of the end too where the course rolls. */
export function Levels({
  of,
  samples,
  now,
  drawings,
  fresh,
}: {
  readonly of: SystemDocument;
  readonly samples: readonly Sample[];
  readonly now: Sample;
  readonly drawings: Drawings | undefined;
  readonly fresh: boolean;
}) {
  const [ref, width_mm] = useRoom(USUAL_PX);
  const most = useMemo(() => {
    const of_ = (value: (sample: Sample) => number): number =>
      Math.max(...samples.map((sample) => Math.abs(value(sample))));
    return { pitch: of_(({ pitch_deg }) => pitch_deg), roll: of_(({ roll_deg }) => roll_deg) };
  }, [samples]);
  if (!drawings || drawings.length !== of.tanks.length)
    return (
      <Box ref={ref} minH="200px" display="grid" placeItems="center" color="soft">
        Drawing…
      </Box>
    );
  const turns = (pitch: number, roll: number, t: number): Turns => {
    const { mounting } = of.tanks[t]!;
    return { side: pitch + mounting.pitch_deg.value, end: -(roll + mounting.roll_deg.value) };
  };
  const drawing = levelsDrawing(
    drawings.map((each, t) => {
      const furthest = turns(most.pitch, most.roll, t);
      return {
        name: of.tanks[t]!.name,
        drawing: each,
        turns_deg: turns(now.pitch_deg, now.roll_deg, t),
        most_deg: furthest,
      };
    }),
    {
      title: 'The tanks at this moment, to one scale, with what is in them',
      room: { width_mm, height_mm: TALL_MM },
      views: most.roll > LEANS_DEG ? ['side', 'end'] : ['side'],
      viewNames: { side: 'side', end: 'end' },
    },
  );
  return (
    <Box ref={ref} opacity={fresh ? 1 : 0.7}>
      <DrawingView drawing={drawing} testId="moment-levels" />
    </Box>
  );
}
