import { INCH_M, roleUnit, type Reader } from '@/core/units';
import { useReaderStore } from '../state/reader';

/** The marks of a tape that places are set to: what an arrow key moves by, and with shift [m]. */
export type TapeSteps = { readonly step_m: number; readonly large_m: number };

export const tapeSteps = (reader: Reader): TapeSteps =>
  roleUnit('tape', reader) !== 'in' ? { step_m: 0.001, large_m: 0.01 } : { step_m: INCH_M / 16, large_m: INCH_M / 2 };

/** Those of the reader at work, for what happens on a key or a pointer. */
export const stepsNow = (): TapeSteps => tapeSteps(useReaderStore.getState().reader);

/** The nearest mark [m], without the rounding of the division. */
export const onTape = (value_m: number, { step_m }: TapeSteps): number =>
  Number((Math.round(value_m / step_m) * step_m).toPrecision(12));
