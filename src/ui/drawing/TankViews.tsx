'use client';

import { Box } from '@chakra-ui/react';
import { useId } from 'react';
import type { SystemDocument } from '@/core/document';
import type { TankDrawing } from '@/core/evaluate';
import { formatQuantity } from '@/core/units';
import { useNarrow } from '../parts/useNarrow';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';
import { handlesFor } from './handles';
import { TankSection, type View } from './TankSection';

/** Side and end view of a tank, to one scale, with the liquid at the set conditions. */
export function TankViews({ index = 0 }: { readonly index?: number }) {
  const { results, system } = useDetails();
  const evaluation = results?.ok ? results.evaluation : undefined;
  const drawing = evaluation?.tanks[index]?.drawing;
  return drawing && system ? <Drawn drawing={drawing} system={system} index={index} /> : <Box minH="260px" display="grid" placeItems="center" color="soft">Drawing…</Box>;
}

type Reach = { readonly width: number; readonly height: number };
/** Where the views' centres lie, in drawing millimetres, and how many of them make one screen pixel at the usual width. */
type Layout = Reach & { readonly scale: number; readonly side: readonly [number, number]; readonly end: readonly [number, number] };

const USUAL_PX = 800;
const NARROW_PX = 350;
/** Room above and below a view for labels [px]. */
const LABELS_PX = 124;
/** Room between and around the views for labels, as shares of the wider one. */
const GAP = 0.12;
const MARGIN = 0.07;

function Drawn({ drawing, system, index }: { readonly drawing: TankDrawing; readonly system: SystemDocument; readonly index: number }) {
  const reader = useReader();
  const titleId = useId();
  const narrow = useNarrow();
  const size = drawing.bounds.max.map((value, axis) => (value - drawing.bounds.min[axis]!) * 1000) as [number, number, number];
  const { pitch_deg, roll_deg } = system.conditions;
  const tank = system.tanks[index]!;
  const side: View = { axis: 1, mirror: 1, turn_deg: pitch_deg + tank.mounting.pitch_deg.value, name: 'Side, from starboard' };
  const end: View = { axis: 0, mirror: -1, turn_deg: -(roll_deg + tank.mounting.roll_deg.value), name: 'End, looking forward' };
  const reach = (width: number, turn_deg: number): { width: number; height: number } => {
    const turn = Math.abs((turn_deg * Math.PI) / 180);
    return { width: width * Math.cos(turn) + size[2] * Math.sin(turn), height: size[2] * Math.cos(turn) + width * Math.sin(turn) };
  };
  const [sideReach, endReach] = [reach(size[0], side.turn_deg), reach(size[1], end.turn_deg)];
  const layout = narrow ? stacked(sideReach, endReach) : abreast(sideReach, endReach);
  const { width, height, scale } = layout;
  const handles = handlesFor(drawing, system, index);
  return (
    <Box>
      <svg
        viewBox={`0 0 ${width} ${height}`} role="group" aria-labelledby={titleId} data-testid="tank-views" style={{ width: '100%', maxHeight: narrow ? undefined : '46vh', display: 'block', touchAction: 'pan-y' }}
      >
        <title id={titleId}>{`${tank.name}: side and end view to scale, liquid at the set conditions`}</title>
        <TankSection drawing={drawing} view={side} centre={layout.side} scale={scale} handles={handles} label={[side.name, `${formatQuantity(size[0] / 1000, 'tape', { reader }).text} long`]} />
        <TankSection drawing={drawing} view={end} centre={layout.end} scale={scale} handles={handles} label={[end.name, `${formatQuantity(size[1] / 1000, 'tape', { reader }).text} × ${formatQuantity(size[2] / 1000, 'tape', { reader }).text} high`]} />
      </svg>
      <Box fontSize="sm" color="soft" className="no-print">Both views to one scale, cut through the pickup. Drag the ringed handles, or focus one and use the arrow keys.</Box>
    </Box>
  );
}

function abreast(side: Reach, end: Reach): Layout {
  const across = side.width + end.width;
  const width = across * (1 + GAP + 2 * MARGIN);
  const scale = width / USUAL_PX;
  const height = Math.max(side.height, end.height) + LABELS_PX * scale;
  const middle = height / 2 + 2 * scale;
  return { width, height, scale, side: [MARGIN * across + side.width / 2, middle], end: [(MARGIN + GAP) * across + side.width + end.width / 2, middle] };
}

function stacked(side: Reach, end: Reach): Layout {
  const width = Math.max(side.width, end.width) * (1 + 2 * MARGIN);
  const scale = width / NARROW_PX;
  const tall = (reach: Reach): number => reach.height + LABELS_PX * scale;
  return { width, scale, height: tall(side) + tall(end), side: [width / 2, tall(side) / 2 + 2 * scale], end: [width / 2, tall(side) + tall(end) / 2 + 2 * scale] };
}
