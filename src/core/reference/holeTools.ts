import { sourced, type Sourced } from './provenance';

export type HoleToolKind = 'twist-drill' | 'step-drill' | 'hole-saw' | 'jigsaw';

/** A kind of tool that makes a hole in sheet, and the sizes in which it comes [m]. */
export type HoleToolRow = Sourced & {
  readonly kind: HoleToolKind;
  readonly name: string;
  readonly sizes: readonly number[];
  /** Thickest sheet that it cuts well. */
  readonly mostSheet: number;
};

const MM = 1e-3;
const run = (from: number, to: number, step: number): number[] =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => (Math.round((from + i * step) * 10) / 10) * MM);

export const HOLE_TOOLS: readonly HoleToolRow[] = [
  {
    kind: 'twist-drill',
    name: 'twist drill',
    sizes: run(1, 13, 0.1),
    mostSheet: 0.03,
    ...sourced('from memory', 'ISO 235: jobber drills in tenths up to 14 mm; a hand drill takes 13'),
  },
  {
    kind: 'step-drill',
    name: 'step drill',
    sizes: run(4, 38, 1),
    mostSheet: 0.004,
    ...sourced('common practice', 'cones with steps of 1 or 2 mm up to 38; each step is 4 to 5 mm tall'),
  },
  {
    kind: 'hole-saw',
    name: 'hole saw',
    sizes: [
      14, 16, 17, 19, 20, 21, 22, 24, 25, 27, 29, 30, 32, 33, 35, 37, 38, 40, 41, 43, 44, 46, 48, 51, 52, 54, 56, 57,
      59, 60, 64, 65, 67, 68, 70, 73, 76, 79, 83, 86, 89, 92, 95, 98, 102, 105, 108, 111, 114, 121, 127, 133, 140, 146,
      152,
    ].map((size) => size * MM),
    mostSheet: 0.025,
    ...sourced('common practice', 'bimetal saws of the usual racks; they cut some tenths over their size'),
  },
  {
    kind: 'jigsaw',
    name: 'jigsaw or router to a scribed line',
    sizes: [],
    mostSheet: 0.02,
    ...sourced('common practice', 'for holes that no saw is made for'),
  },
];

/** Marked, then drilled so small before anything larger [m]. Common practice. */
export const PILOT = {
  twist: 0.003,
  saw: 0.0064,
  ...sourced('common practice', 'the pilot drill of a hole saw is a quarter inch; small drills do not wander'),
};

/** Full threads that a screw needs, as a multiple of its diameter, by what is tapped. */
export const THREAD_DEPTH: Readonly<Record<'soft' | 'hard', Sourced & { readonly diameters: number }>> = {
  soft: { diameters: 1.5, ...sourced('common practice', 'aluminium and plastic: one and a half diameters') },
  hard: { diameters: 1, ...sourced('common practice', 'steel: one diameter, as deep as a nut') },
};

/** What a hole must keep away from, as common practice has it. */
export const HOLE_RULES = {
  /**
   * Rim of a hole to a bend's tangent, in sheet thicknesses, beside the bend's inside radius taken as two thicknesses.
   */
  bend: {
    thicknesses: 4,
    ...sourced(
      'common practice',
      'nearer than two thicknesses beyond the bend radius a hole pulls out of round; radius taken as two thicknesses',
    ),
  },
  /** Toe of a boss's weld to another seam [m]. */
  weld: {
    least: 0.01,
    ...sourced(
      'common practice',
      'seams about 10 mm apart, so that the second does not open the first; and a torch goes between',
    ),
  },
  /** Rim of a hole to a free edge, in diameters of the hole. */
  edge: { diameters: 0.5, ...sourced('common practice', 'half a diameter of metal beside a hole') },
  /** Between the covers of two parts [m]. */
  neighbour: {
    least: 0.003,
    ...sourced('common practice', 'a bead of weld or a washer that is not quite in the middle'),
  },
} as const;
