'use client';

import { Box } from '@chakra-ui/react';
import { useMemo } from 'react';
import type { FitDrawing, FitGap, FitViewKey } from '@/core/answers';
import { convexHull, type Vec3 } from '@/core/geometry';
import { spaceDrawing, VIEW_AXES, withRoomFor, type Moving } from '@/core/reports';
import { formatQuantity } from '@/core/units';
import { DrawingView, type GripProps } from '../drawing/DrawingView';
import { MM_A_PX, useRoom } from '../drawing/useRoom';
import { viewWords } from '../parts/words';
import { useNarrow } from '../parts/useNarrow';
import { useValue } from '../state/editor';
import { useAnswer } from '../state/answers';
import { useReader } from '../state/reader';
import { useTank } from '../state/tankChoice';

export type { Moving } from '@/core/reports';

/** Solids as they are seen from three sides, each drawn by its hull. */
export function movingOf(id: string, solids: readonly (readonly Vec3[])[]): Moving {
  const seen = (view: FitViewKey) => {
    const [u, v] = VIEW_AXES[view];
    return solids.map((points) => convexHull(points.map((point) => [point[u], point[v]] as const)));
  };
  return { id, outlines: { side: seen('side'), end: seen('end'), plan: seen('plan') } };
}

/** The space with everything in it, from three sides to one scale, the gap that is looked at dimensioned. */
export function FitViews({
  gap,
  moving,
  tool,
}: {
  readonly gap?: FitGap | undefined;
  readonly moving?: Moving | undefined;
  /** Stands beside everything else, and has its room in the drawing. */ readonly tool?: Moving | undefined;
}) {
  const t = useTank();
  const { value: drawing, standing, reason } = useAnswer('fitDrawing', t);
  if (!drawing && reason === undefined)
    return (
      <Box minH="240px" display="grid" placeItems="center" color="soft">
        Drawing…
      </Box>
    );
  if (!drawing?.ok)
    return (
      <Box color="stop" fontWeight="600">
        The space cannot be drawn: {reason ?? 'see the findings of this stage'}.
      </Box>
    );
  return (
    <Box opacity={standing === 'fresh' ? 1 : 0.6}>
      <Drawn seen={tool ? withRoomFor(drawing.value, tool) : drawing.value} gap={gap} moving={moving ?? tool} />
    </Box>
  );
}

const VIEWS = ['side', 'end', 'plan'] as const;
/** By the keyboard each is reached once, in the first view. */
const pressOnly = ({ onClick, onPointerDown, style }: GripProps): GripProps => ({
  ...(onClick ? { onClick } : {}),
  ...(onPointerDown ? { onPointerDown } : {}),
  ...(style ? { style } : {}),
});

const USUAL_PX = 820;
/** Views one under the other are no taller than this together, so that they are seen at one glance [px]. */
const TALL_PX = 520;

/** What is seen from three sides, with the numbers' names beside; what is named may be taken hold of. */
export function Drawn({
  seen,
  gap,
  moving,
  title,
  gripOf,
  chosen,
}: {
  readonly seen: FitDrawing;
  readonly gap: FitGap | undefined;
  readonly moving: Moving | undefined;
  readonly title?: string;
  /** Nothing for what is not pressed: that lies over nothing then. */
  readonly gripOf?: (id: string, name: string, view: FitViewKey, mmPerM: number) => GripProps | undefined;
  readonly chosen?: string | undefined;
}) {
  const reader = useReader();
  const vehicle = useValue((system) => system.vehicle.kind);
  const isNarrow = useNarrow();
  const [ref, width_mm] = useRoom(USUAL_PX);
  const { drawing, mmPerM, numbered, legend } = useMemo(
    () =>
      spaceDrawing(seen, {
        title:
          title ??
          `Side, end and plan of the space to one scale${gap ? `; ${gap.pieceName} to ${gap.name} dimensioned` : ''}`,
        room: { width_mm, height_mm: TALL_PX * MM_A_PX },
        isNarrow,
        viewNames: viewWords(vehicle),
        length: (value) => formatQuantity(value, 'tape', { reader }).text,
        gap,
        moving,
        chosen,
      }),
    [seen, width_mm, isNarrow, reader, gap, moving, vehicle, title, chosen],
  );
  const grips =
    gripOf &&
    new Map(
      numbered.flatMap(({ id, name }) => {
        return VIEWS.flatMap((view) => {
          const grip = gripOf(id, name, view, mmPerM);
          return grip ? [[`${view}:${id}`, view === 'side' ? grip : pressOnly(grip)] as const] : [];
        });
      }),
    );
  return (
    <Box position="relative" ref={ref}>
      <DrawingView
        drawing={drawing}
        {...(grips ? { grips } : {})}
        testId="fit-views"
        testIdOf={(of) => (of === 'moving' ? 'moving-part' : undefined)}
      />
      <Box
        position={legend ? 'absolute' : 'static'}
        left={legend && `${(legend[0] / drawing.width_mm) * 100}%`}
        top={legend && `${(legend[1] / drawing.height_mm) * 100}%`}
        right="0"
        fontSize="sm"
        display="grid"
        gridTemplateColumns="repeat(auto-fill, minmax(170px, 1fr))"
        columnGap="3"
        alignContent="start"
      >
        {numbered.map(({ id, name }, i) => (
          <Box key={id} opacity={moving?.id === id ? 0.5 : 1} fontWeight={chosen === id ? 700 : undefined}>
            <b>{i + 1}</b> {name}
          </Box>
        ))}
        {!gripOf && (
          <Box color="soft" gridColumn="1 / -1" mt="1">
            Dashed thin: over its travel. Long dashes: can be taken off.
          </Box>
        )}
      </Box>
    </Box>
  );
}
