'use client';

import { Box } from '@chakra-ui/react';
import { useId, useState } from 'react';
import type { SystemDocument } from '@/core/document';
import type { TankDrawing } from '@/core/evaluate';
import { formatQuantity } from '@/core/units';
import { useNarrow } from '../parts/useNarrow';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';
import { handlesFor } from './handles';
import { Picture } from './Picture';
import { TankSection, type View } from './TankSection';

/**
 * Side, end and plan view of a tank to one scale, and the tank in three dimensions, with the liquid at the set
 * conditions.
 */
export function TankViews({ index = 0 }: { readonly index?: number }) {
  const { results, system } = useDetails();
  const evaluation = results?.ok ? results.evaluation : undefined;
  const drawing = evaluation?.tanks[index]?.drawing;
  return drawing && system ? (
    <Drawn drawing={drawing} system={system} index={index} />
  ) : (
    <Box minH="260px" display="grid" placeItems="center" color="soft">
      Drawing…
    </Box>
  );
}

type Reach = { readonly width: number; readonly height: number };
/**
 * Where the views' centres lie, in drawing millimetres, and how many of them make one screen pixel at the usual width.
 */
type Layout = Reach & {
  readonly scale: number;
  readonly side: readonly [number, number];
  readonly end: readonly [number, number];
  readonly plan: readonly [number, number];
  /** Room left for the picture, as shares of the page; none where it stands below. */
  readonly free?: { readonly left: number; readonly top: number };
};

const USUAL_PX = 800;
const NARROW_PX = 350;
/** Room above and below a view for labels [px]. */
const LABELS_PX = 124;
/** Room below the plan [px]. */
const PLAN_LABELS_PX = 60;
/** Room between and around the views for labels, as shares of the wider one. */
const GAP = 0.12;
const MARGIN = 0.07;

function Drawn({
  drawing,
  system,
  index,
}: {
  readonly drawing: TankDrawing;
  readonly system: SystemDocument;
  readonly index: number;
}) {
  const reader = useReader();
  const titleId = useId();
  const narrow = useNarrow();
  const [large, setLarge] = useState(false);
  const size = drawing.bounds.max.map((value, axis) => (value - drawing.bounds.min[axis]!) * 1000) as [
    number,
    number,
    number,
  ];
  const { pitch_deg, roll_deg } = system.conditions;
  const tank = system.tanks[index]!;
  const side: View = {
    axis: 1,
    mirror: 1,
    turn_deg: pitch_deg + tank.mounting.pitch_deg.value,
    name: 'Side, from starboard',
  };
  const end: View = {
    axis: 0,
    mirror: -1,
    turn_deg: -(roll_deg + tank.mounting.roll_deg.value),
    name: 'End, looking forward',
  };
  const reach = (width: number, turn_deg: number): { width: number; height: number } => {
    const turn = Math.abs((turn_deg * Math.PI) / 180);
    return {
      width: width * Math.cos(turn) + size[2] * Math.sin(turn),
      height: size[2] * Math.cos(turn) + width * Math.sin(turn),
    };
  };
  const [sideReach, endReach] = [reach(size[0], side.turn_deg), reach(size[1], end.turn_deg)];
  const planReach = { width: size[0], height: size[1] };
  const layout = narrow ? stacked(sideReach, endReach, planReach) : abreast(sideReach, endReach, planReach);
  const { width, height, scale } = layout;
  const handles = handlesFor(drawing, system, index);
  const dimension = (axis: 0 | 1 | 2): string => formatQuantity(size[axis] / 1000, 'tape', { reader }).text;
  const shared = { drawing, scale, handles };
  const paper = paperScale(width, height);
  if (large) return <Picture index={index} large onToggle={() => setLarge(false)} />;
  return (
    <Box>
      <Box
        position="relative"
        css={{ '@media print': { '& svg': { width: `${width / paper}mm !important`, maxHeight: 'none !important' } } }}
      >
        <svg
          viewBox={`0 0 ${width} ${height}`}
          role="group"
          aria-labelledby={titleId}
          data-testid="tank-views"
          style={{ width: '100%', maxHeight: narrow ? undefined : '68vh', display: 'block', touchAction: 'pan-y' }}
        >
          <title id={titleId}>{`${tank.name}: side, end and plan view to scale, liquid at the set conditions`}</title>
          <TankSection {...shared} view={side} centre={layout.side} label={[side.name, `${dimension(0)} long`]} />
          <TankSection
            {...shared}
            view={end}
            centre={layout.end}
            label={[end.name, `${dimension(1)} × ${dimension(2)} high`]}
          />
          <TankSection
            {...shared}
            view={PLAN}
            centre={layout.plan}
            label={[PLAN.name, `${dimension(0)} × ${dimension(1)}`]}
          />
        </svg>
        {layout.free && (
          <Box
            position="absolute"
            left={`${layout.free.left * 100}%`}
            top={`${layout.free.top * 100}%`}
            right="0"
            bottom="0"
          >
            <Picture index={index} onToggle={() => setLarge(true)} />
          </Box>
        )}
      </Box>
      {!layout.free && (
        <Box height="280px" className="no-print">
          <Picture index={index} onToggle={() => setLarge(true)} />
        </Box>
      )}
      <Box display="none" _print={{ display: 'block' }} data-testid="print-scale">
        Drawn at 1 : {paper}. Print at 100 %: then this bar is 100 mm long.
        <Box mt="1" width="100mm" height="3mm" borderWidth="1px" borderColor="black" />
      </Box>
      <Box fontSize="sm" color="soft" className="no-print">
        All views to one scale; side and end are cut through the pickup. Drag the ringed handles, or focus one and use
        the arrow keys.
      </Box>
    </Box>
  );
}

/** Scales that a scale rule has. */
const PAPER_SCALES = [1, 2, 5, 10, 20, 50, 100] as const;
/** What A4 and Letter both leave inside their margins and the page's own [mm]. */
const PAPER_MM = { width: 170, height: 190 };

/** The largest of the usual scales at which a drawing fits the paper. */
const paperScale = (width_mm: number, height_mm: number): number =>
  PAPER_SCALES.find((scale) => width_mm / scale <= PAPER_MM.width && height_mm / scale <= PAPER_MM.height) ??
  PAPER_SCALES.at(-1)!;

/** From above, forward to the right; the vehicle's lean is not drawn. */
const PLAN: View = { axis: 2, mirror: 1, turn_deg: 0, name: 'Plan, from above' };

/** The plan stands under the side view; what is left under the end view is for the picture. */
function abreast(side: Reach, end: Reach, plan: Reach): Layout {
  const left = Math.max(side.width, plan.width);
  const across = left + end.width;
  const width = across * (1 + GAP + 2 * MARGIN);
  const scale = width / USUAL_PX;
  const upper = Math.max(side.height, end.height) + LABELS_PX * scale;
  const height = upper + plan.height + PLAN_LABELS_PX * scale;
  const middle = upper / 2 + 2 * scale;
  const column = MARGIN * across + left / 2;
  const split = (MARGIN + GAP / 2) * across + left;
  return {
    width,
    height,
    scale,
    side: [column, middle],
    end: [(MARGIN + GAP) * across + left + end.width / 2, middle],
    plan: [column, upper + plan.height / 2 + 6 * scale],
    free: { left: split / width, top: upper / height },
  };
}

function stacked(side: Reach, end: Reach, plan: Reach): Layout {
  const width = Math.max(side.width, end.width, plan.width) * (1 + 2 * MARGIN);
  const scale = width / NARROW_PX;
  const tall = (reach: Reach): number => reach.height + LABELS_PX * scale;
  return {
    width,
    scale,
    height: tall(side) + tall(end) + tall(plan),
    side: [width / 2, tall(side) / 2 + 2 * scale],
    end: [width / 2, tall(side) + tall(end) / 2 + 2 * scale],
    plan: [width / 2, tall(side) + tall(end) + tall(plan) / 2],
  };
}
