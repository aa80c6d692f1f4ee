import { sourced, type Sourced } from './provenance';

/** How liquids give way to being pressed. */
export const BULK: Sourced & { /** Pressure over the share by which it shrinks [Pa]. */ readonly modulus_Pa: number } =
  { modulus_Pa: 1.3e9, ...sourced('from memory', 'petrol, diesel and paraffin at low pressure: 1.1 to 1.5 GPa') };
