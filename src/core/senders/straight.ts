import type { Probe } from '../gauge';
import { OUTWARD, type Vec3 } from '../geometry';
import { assumed, fromPart, known, type Known } from '../schema/known';

/** What a straight probe measures over: its length under the sheet, less what is dead at either end. */
export const probe = () => ({
  length_m: known(0.02, 5, 'length under the lid', 'tape'),
  lowDead_m: known(0, 1, 'dead at its foot', 'tape'),
  highDead_m: known(0, 1, 'dead at its head', 'tape'),
});
/** The field of a tube's width [m]. */
export const tubeWidth = () => known(0.004, 0.1, 'width of the tube', 'tape');

type Straight = Readonly<Record<'length_m' | 'lowDead_m' | 'highDead_m' | 'tubeDiameter_m', Known>>;

/** A new probe reaches to a centimetre over the floor. */
export const probeStart = (depth_m: number) => ({
  length_m: assumed(Math.max(0.03, Math.round((depth_m - 0.01) * 1000) / 1000), 0.003),
  lowDead_m: fromPart(0.02),
  highDead_m: fromPart(0.03),
});

/** What tubes and capacitive probes have in common, hanging straight down from their port. */
export const straightProbe = (document: Straight, port_m: Vec3): Omit<Probe, 'kind'> => ({
  top_m: port_m,
  down: OUTWARD.floor,
  length_m: document.length_m.value,
  lowDead_m: document.lowDead_m.value,
  highDead_m: document.highDead_m.value,
  tubeRadius_m: document.tubeDiameter_m.value / 2,
  floatRadius_m: 0,
  floatRise_m: 0,
  step_m: 0,
});

export const PROBE_SIZES = ['length_m', 'lowDead_m', 'highDead_m'] as const;
