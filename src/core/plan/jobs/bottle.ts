import { assumed, chosen, fromPart } from '../../schema/known';
import { draftConsumer } from '../draft';
import type { SystemDocument } from '../schema';
import { emptySystem } from './emptySystem';
import { boxTank, filterFor, lengthFor, lidPort, linesOfRun, pickupIn, sizesFor, toMm, valveOf } from './kit';
import { NEEDS } from './needs';

export type Bottle = {
  readonly name: string;
  readonly holds_m3: number;
  readonly power_W: number;
  /** Its foot over the carburettor's inlet. */ readonly above_m: number;
};

const BORE_M = 0.006;
/** Common practice: what a float needle asks for at its seat. */
const NEEDLE_PA = 2e3;
/** Common practice: small inline filters are rated for some 60 L/h. */
const LEAST_FILTER_M3_PER_S = 30e-3 / 3600;
/** Common practice: a filter on gravity is an open mesh. */
const GRAVITY_DROP_PA = 1e3;
const UPRIGHT = [1, 1, 2] as const;

/** A litre or so hung above a carburettor on the bench: outlet at the foot, shut-off, hose; gravity does the rest. */
export function benchBottle(asked: Bottle): SystemDocument {
  const kind = 'petrol-carburettor';
  const need = NEEDS[kind];
  const empty = emptySystem(asked.name, 'bench', need.fluid);
  const sizes = sizesFor(asked.holds_m3, {}, UPRIGHT);
  const consumer = {
    ...draftConsumer({ consumer: kind, power_W: asked.power_W }, need),
    name: 'Carburettor',
    neededPressure_Pa: assumed(NEEDLE_PA, 1e3),
  };
  const system: SystemDocument = {
    ...empty,
    practice: { ...empty.practice, vent: 'vented-cap', outlet: 'bottom-outlet', transferBy: 'gravity' },
    wishes: { ...empty.wishes, holds_m3: chosen(asked.holds_m3), reserve_ratio: chosen(0) },
    conditions: { ...empty.conditions, fills: [{ tank: 'bottle', fill_ratio: 0.9 }] },
    tanks: [
      boxTank({
        id: 'bottle',
        name: 'Bottle',
        fluid: 'fuel',
        sizes,
        ports: [
          lidPort(sizes, 'filler', 'Cap', 'filler', [0.5, 0.5], {
            bore_m: assumed(0.025, 0.005),
            length_m: assumed(0.01, 0.005),
          }),
          lidPort(sizes, 'vent', 'Hole in the cap', 'vent', [0.75, 0.75], {
            bore_m: assumed(0.002, 0.0005),
            length_m: assumed(0.002, 0.001),
          }),
          {
            id: 'outlet',
            name: 'Foot',
            role: 'feed',
            face: 'floor',
            x_m: chosen(toMm(sizes.length.value / 2)),
            y_m: chosen(toMm(sizes.width.value / 2)),
            bore_m: fromPart(BORE_M),
            length_m: chosen(0),
          },
        ],
        pickups: [pickupIn('outlet', 'spigot', 'Spigot', 'bottom-outlet', 0, BORE_M)],
      }),
    ],
    components: [
      valveOf('cock', 'Shut-off', BORE_M),
      filterFor(
        'filter',
        'Filter',
        Math.max(consumer.neededFlow_m3PerS.value, LEAST_FILTER_M3_PER_S),
        need.fluid,
        GRAVITY_DROP_PA,
      ),
    ],
    consumers: [consumer],
  };
  return {
    ...system,
    lines: linesOfRun(system, {
      purpose: 'feed',
      stops: [
        { item: 'spigot', name: 'Spigot' },
        { item: 'cock', name: 'Shut-off' },
        { item: 'filter', name: 'Filter' },
        { item: consumer.id, name: consumer.name },
      ],
      bore_m: BORE_M,
      length: lengthFor(undefined, undefined, asked.above_m + 0.3),
      rise_m: -asked.above_m,
    }),
  };
}
