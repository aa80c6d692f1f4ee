import type { AirState } from '../fluids';
import type { Vec3 } from '../geometry';
import { filterLaw, seriesLaw, ventLaw, type LinkElement, type LossLaw } from '../network';
import type { PortDocument } from '../plan/schema';
import { degrees } from '../units';
import type { FlowInputs } from './networkParts';

/** Of air at 20 °C, in which losses of screens and filters are rated [Pa s]. @source Sutherland's law */
const RATED_VISCOSITY_PAS = 1.813e-5;

type Vent = Pick<PortDocument, 'bore_m' | 'length_m' | 'shutOff' | 'screen'>;

/** What air meets in a vent: its bore and length, and the screen, filter or silencer in it. */
export const ventElements = ({ bore_m, length_m, screen }: Vent, air: AirState): LinkElement[] => [
  { kind: 'vent', bore_m: bore_m.value, length_m: length_m.value, air },
  ...screenElements({ screen }),
];

/** The screen, filter or silencer of a vent alone; nothing where there is none. */
export const screenElements = ({ screen }: Pick<Vent, 'screen'>): LinkElement[] =>
  screen
    ? [
        {
          kind: 'filter',
          ratedFlow_m3PerS: screen.flow_m3PerS.value,
          ratedDrop_Pa: screen.loss_Pa.value,
          ratedViscosity_PaS: RATED_VISCOSITY_PAS,
          dirtFactor: 1,
        },
      ]
    : [];

/** What a vent loses, at other sizes than its own where those are given, with its own screen. */
export function ventLossLaw(
  vent: Vent,
  air: AirState,
  bore_m = vent.bore_m.value,
  length_m = vent.length_m.value,
): LossLaw {
  const hole = ventLaw(bore_m, length_m, air);
  const { screen } = vent;
  if (!screen) return hole;
  const { flow_m3PerS, loss_Pa } = screen;
  return seriesLaw([hole, filterLaw(flow_m3PerS.value, loss_Pa.value, RATED_VISCOSITY_PAS, 1, air.viscosity_PaS)]);
}

/** How far something leans from upright [rad]. @param up unit vector against effective gravity, in its own frame */
export const leanOf_rad = (up: Vec3): number => Math.acos(Math.min(1, Math.max(-1, up[2])));

/** Whether a vent's valve is shut by how far the vehicle leans. @param up against effective gravity, vehicle frame */
export const isShutByLean = ({ shutOff }: Pick<Vent, 'shutOff'>, up: Vec3): boolean =>
  shutOff?.lean_deg !== undefined && degrees(leanOf_rad(up)) > shutOff.lean_deg.value;

/** Whether liquid that comes to a vent shuts it. */
export const isShutByFloat = ({ shutOff }: Pick<Vent, 'shutOff'>): boolean => shutOff?.float === true;

/** Whether a vent stands shut as a vehicle leans, its valve free to move. */
export const standsShut = (
  vent: Vent & { readonly id: string },
  { state, stuck }: Pick<FlowInputs, 'state' | 'stuck'>,
): boolean => stuck?.has(vent.id) !== true && isShutByLean(vent, state.gravity.up);
