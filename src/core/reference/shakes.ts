import { sourced, type Sourced } from './provenance';

/** How fast each kind of vehicle shakes what is bolted to it. */
export type ShakeRow = Sourced & {
  readonly vehicle: 'boat' | 'road' | 'snow' | 'competition' | 'trailer' | 'bench';
  /** What comes over the ground or water, or from an engine. */ readonly from: 'way' | 'engine';
  readonly by: string;
  readonly from_Hz: number;
  readonly to_Hz: number;
};

/** A mount that swings by itself within such a band builds the shaking up. */
export const SHAKES: readonly ShakeRow[] = [
  {
    vehicle: 'boat',
    from: 'way',
    by: 'slamming into seas',
    from_Hz: 2,
    to_Hz: 8,
    ...sourced('common practice', 'bottoms of small craft ring at a few hertz when they slam'),
  },
  {
    vehicle: 'boat',
    from: 'engine',
    by: 'the engine, idle to full speed',
    from_Hz: 14,
    to_Hz: 90,
    ...sourced('common practice', 'two to four cylinders of four strokes at 800 to 2800 a minute'),
  },
  {
    vehicle: 'road',
    from: 'way',
    by: 'wheels that hop',
    from_Hz: 8,
    to_Hz: 15,
    ...sourced('from memory', 'handbooks of vehicle dynamics: axles hop at about 10 to 15 Hz, trucks from 8'),
  },
  {
    vehicle: 'road',
    from: 'engine',
    by: 'the engine, idle to full speed',
    from_Hz: 20,
    to_Hz: 200,
    ...sourced('common practice', 'four to six cylinders of four strokes at 650 to 4500 a minute'),
  },
  {
    vehicle: 'trailer',
    from: 'way',
    by: 'wheels that hop',
    from_Hz: 8,
    to_Hz: 18,
    ...sourced('common practice', 'stiff springs and small tyres hop faster than a car’s'),
  },
  {
    vehicle: 'snow',
    from: 'way',
    by: 'tracks running over their rollers',
    from_Hz: 15,
    to_Hz: 80,
    ...sourced('common practice', 'track pitch of 60 to 150 mm at 10 to 30 km/h'),
  },
  {
    vehicle: 'snow',
    from: 'engine',
    by: 'the engine, idle to full speed',
    from_Hz: 20,
    to_Hz: 200,
    ...sourced('common practice', 'four to six cylinders of four strokes at 650 to 4500 a minute'),
  },
  {
    vehicle: 'competition',
    from: 'way',
    by: 'wheels that hop',
    from_Hz: 10,
    to_Hz: 22,
    ...sourced('common practice', 'light wheels on stiff springs and low tyres'),
  },
  {
    vehicle: 'competition',
    from: 'engine',
    by: 'the engine, idle to full speed',
    from_Hz: 30,
    to_Hz: 400,
    ...sourced('common practice', 'four cylinders of four strokes at 1000 to 12000 a minute'),
  },
  {
    vehicle: 'bench',
    from: 'engine',
    by: 'a motor on the bench',
    from_Hz: 20,
    to_Hz: 60,
    ...sourced('common practice', 'two- and four-pole motors turn at 25 to 60 a second'),
  },
];
