import { sourced, type Sourced } from './provenance';

/** How fast each kind of vehicle shakes its tank to and fro in its usual movements. */
export type ExcitationRow = Sourced & {
  readonly vehicle: 'boat' | 'road' | 'snow' | 'competition' | 'trailer' | 'bench';
  readonly from_Hz: number;
  readonly to_Hz: number;
  readonly by: string;
};

export const EXCITATIONS: readonly ExcitationRow[] = [
  {
    vehicle: 'boat',
    from_Hz: 0.25,
    to_Hz: 0.7,
    by: 'rolling and pitching in short seas',
    ...sourced('common practice', 'small craft roll with periods of about 1.5 to 4 s'),
  },
  {
    vehicle: 'road',
    from_Hz: 0.2,
    to_Hz: 0.6,
    by: 'lane changes and pumped brakes',
    ...sourced('common practice', 'drivers steer to and fro at up to about 0.5 Hz'),
  },
  {
    vehicle: 'snow',
    from_Hz: 0.4,
    to_Hz: 1.2,
    by: 'pitching over moguls',
    ...sourced('common practice', 'tracked vehicles pitch at about 1 Hz'),
  },
  {
    vehicle: 'competition',
    from_Hz: 0.4,
    to_Hz: 1,
    by: 'turn after turn',
    ...sourced('common practice', 'slalom and hairpin sequences change side within 1 to 2 s'),
  },
  {
    vehicle: 'trailer',
    from_Hz: 0.3,
    to_Hz: 0.8,
    by: 'snaking and rough tracks',
    ...sourced('common practice', 'drawn trailers sway at about half a hertz'),
  },
];

/** Movement and sloshing this near to each other build up, as a share either way. */
export const RESONANCE_REL = 0.15;
