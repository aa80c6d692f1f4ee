import type { AlloyKey } from './alloys';
import { sourced, type Sourced } from './provenance';

/** What a flat wall of a sheet bears and how it bends; beside its welds, where it is clamped. */
export type PanelStockRow = Sourced & {
  readonly yield_Pa: number;
  readonly modulus_Pa: number;
  readonly poisson: number;
};

const [MPA, GPA] = [1e6, 1e9];
const ADM = 'Aluminum Design Manual: annealed beside a weld';

/** By what tanks are made of; what is not here is not known well enough to judge a wall by. */
export const PANEL_STOCKS: Readonly<Partial<Record<AlloyKey, PanelStockRow>>> = {
  'al-5052': { yield_Pa: 65 * MPA, modulus_Pa: 70 * GPA, poisson: 0.33, ...sourced('from memory', ADM) },
  'al-3003': { yield_Pa: 34 * MPA, modulus_Pa: 69 * GPA, poisson: 0.33, ...sourced('from memory', ADM) },
  'al-6061': { yield_Pa: 105 * MPA, modulus_Pa: 69 * GPA, poisson: 0.33, ...sourced('from memory', ADM) },
  'mild-steel': {
    yield_Pa: 235 * MPA,
    modulus_Pa: 210 * GPA,
    poisson: 0.3,
    ...sourced('from memory', 'EN 10025-2, S235'),
  },
  'stainless-304': {
    yield_Pa: 210 * MPA,
    modulus_Pa: 200 * GPA,
    poisson: 0.3,
    ...sourced('from memory', 'EN 10088, 1.4301, annealed'),
  },
  'stainless-316': {
    yield_Pa: 220 * MPA,
    modulus_Pa: 200 * GPA,
    poisson: 0.3,
    ...sourced('from memory', 'EN 10088, 1.4401, annealed'),
  },
};
