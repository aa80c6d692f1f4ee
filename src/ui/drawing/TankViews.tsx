'use client';

import { Box } from '@chakra-ui/react';
import { useDeferredValue, useId } from 'react';
import type { TankDrawing } from '@/core/evaluate';
import { formatQuantity } from '@/core/units';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useShown } from '../state/results';
import { handlesFor } from './handles';
import { TankSection, type View } from './TankSection';

/** Side and end view of a tank, to one scale, with the liquid at the set conditions. */
export function TankViews({ index = 0 }: { readonly index?: number }) {
  const { results } = useShown();
  const evaluation = useDeferredValue(results?.ok ? results.evaluation : undefined);
  const drawing = evaluation?.tanks[index]?.drawing;
  return drawing ? <Drawn drawing={drawing} index={index} /> : <Box minH="260px" display="grid" placeItems="center" color="soft">Drawing…</Box>;
}

const GAP_MM = 60;
const MARGIN_MM = 90;

function Drawn({ drawing, index }: { readonly drawing: TankDrawing; readonly index: number }) {
  const system = useSystem();
  const reader = useReader();
  const titleId = useId();
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
  const margin = Math.max(MARGIN_MM, 0.16 * Math.max(...size));
  const width = sideReach.width + endReach.width + GAP_MM + margin * 2.4;
  const height = Math.max(sideReach.height, endReach.height) + margin * 1.9;
  const centreY = height / 2 - margin * 0.1;
  const sideX = margin + sideReach.width / 2;
  const endX = margin * 1.4 + sideReach.width + GAP_MM + endReach.width / 2;
  const handles = handlesFor(drawing, system, index);
  const scale = Math.max(width, height * 2) / 900;
  return (
    <Box>
      <svg
        viewBox={`0 0 ${width} ${height}`} role="group" aria-labelledby={titleId} data-testid="tank-views" style={{ width: '100%', maxHeight: '46vh', display: 'block', touchAction: 'none' }}
      >
        <title id={titleId}>{`${tank.name}: side and end view to scale, liquid at the set conditions`}</title>
        <TankSection drawing={drawing} view={side} centre={[sideX, centreY]} scale={scale} handles={handles} label={`${side.name} · ${formatQuantity(size[0] / 1000, 'tape', { reader }).text} long`} />
        <TankSection drawing={drawing} view={end} centre={[endX, centreY]} scale={scale} handles={handles} label={`${end.name} · ${formatQuantity(size[1] / 1000, 'tape', { reader }).text} × ${formatQuantity(size[2] / 1000, 'tape', { reader }).text} high`} />
      </svg>
      <Box fontSize="sm" color="soft" className="no-print">Both views to one scale, cut through the pickup. Drag the ringed handles, or focus one and use the arrow keys.</Box>
    </Box>
  );
}
