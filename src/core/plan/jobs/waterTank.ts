import { assumed, chosen, fromPart } from '../../schema/known';
import type { SystemDocument } from '../schema';
import { emptySystem } from './emptySystem';
import { boxTank, lengthFor, lidPort, linesOfRun, pickupIn, pumpFor, sizesFor } from './kit';

export type WaterTank = {
  readonly name: string;
  readonly vehicle: SystemDocument['vehicle']['kind'];
  readonly fluid: 'water' | 'urea';
  readonly holds_m3: number;
  readonly run_m?: number | undefined;
};

const BORE_M = 0.012;
/** Common practice: a galley pump gives some seven litres a minute, and shuts off at two bar. */
const TAP_M3_PER_S = 7e-3 / 60;
const SHUT_OFF_PA = 2e5;

/** Plain water or urea: tank, pump and line to where it is drawn, an open end. */
export function waterTank(asked: WaterTank): SystemDocument {
  const empty = emptySystem(asked.name, asked.vehicle, asked.fluid);
  const sizes = sizesFor(asked.holds_m3);
  const pump = pumpFor('pump', 'Pump', TAP_M3_PER_S, SHUT_OFF_PA, { checkBuiltIn: true });
  const system: SystemDocument = {
    ...empty,
    wishes: { ...empty.wishes, holds_m3: chosen(asked.holds_m3), reserve_ratio: chosen(0) },
    conditions: { ...empty.conditions, fills: [{ tank: 'tank', fill_ratio: 0.8 }] },
    tanks: [
      boxTank({
        id: 'tank',
        name: asked.fluid === 'water' ? 'Water tank' : 'Urea tank',
        fluid: 'fuel',
        sizes,
        ports: [
          lidPort(sizes, 'filler', 'Filler', 'filler', [0.85, 0.2], {
            bore_m: assumed(0.038, 0.003),
            length_m: assumed(0.3, 0.1),
          }),
          lidPort(sizes, 'vent', 'Vent', 'vent', [0.7, 0.6], {
            bore_m: assumed(0.016, 0.002),
            length_m: assumed(1, 0.5),
          }),
          lidPort(sizes, 'outlet', 'Outlet', 'feed', [0.25, 0.5], { bore_m: fromPart(BORE_M), length_m: chosen(0) }),
        ],
        pickups: [pickupIn('outlet', 'pickup', 'Pickup', 'top-tube', Math.min(0.015, sizes.height.value / 6), BORE_M)],
      }),
    ],
    components: [pump, { id: 'tap', name: 'Tap', ends: [], kind: 'outlet' }],
  };
  return {
    ...system,
    lines: linesOfRun(system, {
      purpose: 'transfer',
      stops: [
        { item: 'pickup', name: 'Pickup' },
        { item: 'pump', name: 'Pump' },
        { item: 'tap', name: 'Tap' },
      ],
      bore_m: BORE_M,
      length: lengthFor(undefined, asked.run_m, 3),
      rise_m: 0.6,
    }),
  };
}
