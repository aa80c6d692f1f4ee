'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import type { SystemDocument } from '@/core/plan';
import { shapeSpan } from '@/core/model';
import { Button } from '../parts/Button';
import { applyEdit, useValue } from '../state/editor';
import { openTank, useTank } from '../state/tankChoice';
import { withSpare } from './portEdits';

/** One more port, on the lid. */
export function AddPort() {
  return (
    <Button onClick={() => applyEdit('add a port', (current) => withSpare(current, openTank()))}>
      <Plus size={18} aria-hidden />
      Add a port
    </Button>
  );
}

/** A plugged spare beside the feed, where there is none yet. */
export function OfferSpare() {
  const t = useTank();
  const tank = useValue((system) => system.tanks[t]!);
  if (tank.pickups.length === 0 || tank.ports.some(({ role }) => role === 'spare')) return null;
  return (
    <Box mb="3" display="flex" gap="3" alignItems="center" flexWrap="wrap" data-testid="offer-spare">
      <Box flex="1 1 260px">
        A second tank, a heater or a return is likely to be added one day, and by then the tank has held fuel.
      </Box>
      <Button
        onClick={() =>
          applyEdit('add a plugged spare', (current) => withSpare(current, openTank(), besideFeed(current, openTank())))
        }
      >
        Add a plugged spare beside the feed
      </Button>
    </Box>
  );
}

/** Two covers further along the lid than the port that feeds, towards the middle. */
function besideFeed(system: SystemDocument, t: number): { readonly x_m: number; readonly y_m: number } | undefined {
  const { ports, pickups, shape } = system.tanks[t]!;
  const feed = ports.find(({ id, face }) => face === 'lid' && pickups.some(({ port }) => port === id));
  if (!feed?.x_m || !feed.y_m) return undefined;
  const [, width] = shapeSpan(shape);
  return { x_m: feed.x_m.value, y_m: feed.y_m.value + (feed.y_m.value < width / 2 ? BESIDE_M : -BESIDE_M) };
}
/** Room for both hose ends and a spanner. */
const BESIDE_M = 0.07;
