import type { JoinSystem } from './joins';
import { sourced, type Sourced } from './provenance';

/** Two ends that screw or push together by hand, or nearly, and do not seal. */
export type LookAlikeRow = Sourced & {
  readonly systems: readonly [JoinSystem, JoinSystem];
  /** Sizes of each that are taken for one another; equal sizes where left out. */
  readonly sizes?: readonly (readonly [string, string])[];
  readonly tells: string;
};

export const LOOK_ALIKES: readonly LookAlikeRow[] = [
  {
    systems: ['flare-37', 'o-ring-boss'],
    tells: 'The same straight thread: the flare has a cone at its nose, the boss fitting a ring under its hexagon.',
    ...sourced('from memory', 'SAE J514: both have the threads of their dash size'),
  },
  {
    systems: ['npt', 'bsp-taper'],
    tells: 'Pitch and flank differ but for 1/2 and 3/4, which even start: read the pitch with a gauge.',
    ...sourced('from memory', 'ASME B1.20.1 against ISO 7-1'),
  },
  {
    systems: ['npt', 'bsp-parallel'],
    tells: 'A taper in a parallel thread bites on one turn: read pitch and taper.',
    ...sourced('from memory', 'ASME B1.20.1 against ISO 228-1'),
  },
  {
    systems: ['bsp-taper', 'bsp-parallel'],
    tells:
      'A parallel male in a taper socket never seals on its thread: one seals by a washer, the other by its taper.',
    ...sourced('from memory', 'ISO 7-1 against ISO 228-1'),
  },
  {
    systems: ['bsp-parallel', 'metric'],
    sizes: [['1/8', 'M10 x 1']],
    tells: '9.73 mm against 10 mm, 28 threads an inch against 1 mm: they start, and strip.',
    ...sourced('from memory', 'ISO 228-1 against ISO 261'),
  },
];
