'use client';

import { Box } from '@chakra-ui/react';
import { LINES } from '@/core/drawings';
import type { SystemDocument } from '@/core/plan';
import { schematicDrawing } from '@/core/reports';
import { DrawingView, type GripProps } from '../drawing/DrawingView';
import { MM_A_PX, useRoom } from '../drawing/useRoom';
import { Panel } from '../parts/Panel';
import { useNarrow } from '../parts/useNarrow';
import { useSystem } from '../state/editor';
import { useChosenPart } from './chosenPart';
import { LEAST_SCALE } from './schematicLayout';
import { useSteadyFlows, useSchematic, type SteadyFlows } from './useSchematic';

/** What it is thought to have until that is known. */
const USUAL_PX = 960;

/** The whole system of circuits, laid out by the app: flow on every line, pressure at every part. */
export function SchematicPanel() {
  const system = useSystem();
  const flows = useSteadyFlows(system);
  if (system.lines.length === 0) return null;
  return (
    <Panel
      title="All circuits"
      testId="schematic"
      aside={
        <Box color="soft" fontSize="sm">
          laid out by itself; press a part or a line
        </Box>
      }
    >
      <Circuits system={system} flows={flows} />
    </Panel>
  );
}

/** Circuits as they are laid out, with what is told in them. */
export function Circuits({ system, flows }: { readonly system: SystemDocument; readonly flows: SteadyFlows }) {
  const isNarrow = useNarrow();
  const [ref, width_mm] = useRoom(USUAL_PX);
  const schematic = useSchematic(system, flows, isNarrow, width_mm / MM_A_PX);
  const { id: chosen, choose } = useChosenPart();
  const grips = new Map(
    [...(schematic?.words ?? [])].map(([id, words]): [string, GripProps] => [
      id,
      {
        'aria-label': words.filter((word) => word !== '').join(', '),
        style: { cursor: 'pointer' },
        onClick: () => choose(id),
        onKeyDown: (event) => (event.key === 'Enter' || event.key === ' ') && choose(id),
      },
    ]),
  );
  return (
    <>
      <Box ref={ref} overflowX="auto" minH="160px" opacity={schematic?.isFresh ? 1 : 0.5}>
        {schematic && (
          <DrawingView
            drawing={schematicDrawing(schematic.placed, 'Schematic of all circuits', chosen)}
            grips={grips}
            least={isNarrow ? 0 : LEAST_SCALE}
          />
        )}
      </Box>
      <Box display="flex" gap="5" flexWrap="wrap" fontSize="sm" color="soft" mt="2" aria-hidden>
        {[...new Set(system.lines.map(({ purpose }) => purpose))].map((purpose) => (
          <Box key={purpose} display="flex" alignItems="center" gap="2">
            <svg width="44" height="10">
              <line
                x1="0"
                y1="5"
                x2="44"
                y2="5"
                stroke="var(--chakra-colors-accent)"
                strokeWidth="3"
                strokeDasharray={LINES[purpose].dashes_mm.map((mm) => mm / MM_A_PX).join(' ')}
              />
            </svg>
            {purpose}
          </Box>
        ))}
      </Box>
    </>
  );
}
