'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import type { Path, SystemDocument, TankDocument } from '@/core/plan';
import type { TankDrawing } from '@/core/answers';
import { plateId, ruleScale, TANK_VIEWS, tankSheet } from '@/core/reports';
import { formatQuantity } from '@/core/units';
import { useNarrow } from '../parts/useNarrow';
import { viewWords } from '../parts/words';
import { useReader } from '../state/reader';
import { useDetails } from '../state/results';
import { usePlace } from '../workspace/goTo';
import type { StageKey } from '../workspace/stages';
import { DrawingView, type GripProps } from './DrawingView';
import { handlesFor, type Handle } from './handles';
import { Picture } from './Picture';
import { tankGrips } from './grips';
import { MM_A_PX, useRoom } from './useRoom';

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

const USUAL_PX = 800;
/** A whole tank is seen at one glance: so much of the window, and never less than this [px]. */
const SHARE_OF_WINDOW = 0.68;
const LEAST_TALL_PX = 420;
const shortName = ({ label }: Handle): string => label.replace(/, (pivot|probe)$/, '');

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
  const isNarrow = useNarrow();
  const [large, setLarge] = useState(false);
  const goTo = usePlace((place) => place.goTo);
  const [ref, width_mm] = useRoom(USUAL_PX);
  const { pitch_deg, roll_deg } = system.conditions;
  const tank = system.tanks[index]!;
  const size = (axis: 0 | 1 | 2): string =>
    formatQuantity(drawing.bounds.max[axis] - drawing.bounds.min[axis], 'tape', { reader }).text;
  const handles = handlesFor(drawing, system, index);
  const tall_px = typeof window === 'undefined' ? 0 : SHARE_OF_WINDOW * window.innerHeight;
  const sheet = tankSheet(drawing, {
    title: `${tank.name}: side, end and plan view to scale, liquid at the set conditions`,
    room: { width_mm, height_mm: Math.max(LEAST_TALL_PX, tall_px) * MM_A_PX },
    isNarrow,
    viewNames: viewWords(system.vehicle.kind),
    sizes: { length: size(0), width: size(1), height: size(2) },
    turns_deg: { side: pitch_deg + tank.mounting.pitch_deg.value, end: -(roll_deg + tank.mounting.roll_deg.value) },
    grips: handles.map((handle) => ({ id: handle.id, label: shortName(handle), at: handle.at })),
  });
  const grips = new Map([...plateGrips(tank, index, goTo), ...tankGrips(sheet, handles)]);
  const { width_mm: wide, height_mm: tall } = sheet.drawing;
  const paper = paperScale((wide / sheet.mmPerM) * 1000, (tall / sheet.mmPerM) * 1000);
  const paper_mm = (wide / sheet.mmPerM) * (1000 / paper);
  if (large) return <Picture index={index} large onToggle={() => setLarge(false)} />;
  return (
    <Box>
      <Box
        ref={ref}
        position="relative"
        css={{ '@media print': { '& svg': { width: `${paper_mm}mm !important`, maxHeight: 'none !important' } } }}
      >
        <DrawingView
          drawing={sheet.drawing}
          grips={grips}
          testId="tank-views"
          testIdOf={(of) => (of.startsWith('liquid:') ? 'liquid' : of.startsWith('plate:') ? 'plate' : undefined)}
        />
        {sheet.free && (
          <Box
            position="absolute"
            left={`${sheet.free.left * 100}%`}
            top={`${sheet.free.top * 100}%`}
            right="0"
            bottom="0"
          >
            <Picture index={index} onToggle={() => setLarge(true)} />
          </Box>
        )}
      </Box>
      {!sheet.free && (
        <Box height="280px" className="no-print">
          <Picture index={index} onToggle={() => setLarge(true)} />
        </Box>
      )}
      <Box display="none" _print={{ display: 'block' }} data-testid="print-scale">
        Drawn at 1 : {paper}. Print at 100 %: then this bar is 100 mm long.
        <Box mt="1" width="100mm" height="3mm" borderWidth="1px" borderColor="black" />
      </Box>
      <Box fontSize="sm" color="soft" className="no-print">
        All views to one scale; side and end are cut where the plan says. Drag the ringed handles, or focus one and use
        the arrow keys; press a baffle for its fields.
      </Box>
    </Box>
  );
}

/** A baffle pressed opens its fields; a key reaches it in the side view, or in the end view where it lies along. */
const plateGrips = (
  { plates }: TankDocument,
  index: number,
  goTo: (stage: StageKey, path: Path) => void,
): (readonly [string, GripProps])[] =>
  TANK_VIEWS.flatMap((view) =>
    plates.map(({ id, name, axis }, p) => {
      const open = (): void => goTo('tank', ['tanks', index, 'plates', p]);
      return [
        plateId(id, view),
        {
          'aria-label': `${name}: its fields`,
          'data-testid': `plate-${id}-${view}`,
          tabIndex: view === (axis === 'y' ? 'end' : 'side') ? 0 : -1,
          style: { cursor: 'pointer' },
          onClick: open,
          onKeyDown: (event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            open();
          },
        },
      ] as const;
    }),
  );

/** What A4 and Letter both leave inside their margins and the page's own [mm]. */
const PAPER_MM = { width: 170, height: 190 };

/** The largest scale of a rule at which a drawing fits the paper. */
const paperScale = (width_mm: number, height_mm: number): number =>
  ruleScale(Math.max(width_mm / PAPER_MM.width, height_mm / PAPER_MM.height));
