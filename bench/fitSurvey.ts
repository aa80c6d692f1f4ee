import {
  chosen,
  draftSystem,
  measured,
  type Known,
  type MeasuredBayDocument,
  type SystemDocument,
} from '../src/core/plan';
import { fitOf } from '../src/core/answers';
import { seeded, type Chance } from '../src/core/fit';
import { loadKernel, placed, poseOf } from '../src/core/geometry';
import type { Bench } from './measure';

const WORLDS = 240;
const CLASSES = 3;
const GOAL = 0.1;

/** Outside sizes of the tank [m]; the true bay is ample but for its starboard side. */
const [LONG, WIDE, TALL] = [0.6, 0.4, 0.3];
const [TIGHT_M, AMPLE_M] = [0.006, 0.08];
const TAPE_M = 0.002;
const PLACE_M = 0.003;
/** How nearly a tank is set square by eye [rad]. */
const TURN_RAD = 0.01;
/** Places along each edge of the tank that are looked at. */
const ALONG = 12;
type Corner = readonly [number, number];

/**
 * The chance that a tank fits, from the tape to the answer: true bays are
 * drawn out of square, measured with errors of the stated spread, adjusted,
 * and the chance stated is compared with whether the tank goes into the true
 * bay. In every other world the tank stands a little turned as well, which
 * takes room whichever way it goes: the corner that comes nearest changes.
 */
export const fitSurvey: Bench = {
  name: 'fit-survey',
  async run() {
    await loadKernel();
    const chance = seeded(11);
    const classes = Array.from({ length: CLASSES }, () => ({ count: 0, stated: 0, fitted: 0 }));
    for (let world = 0; world < WORLDS; world++) {
      const truth = drawn(chance, world % 2 === 1);
      const fit = fitOf(taken(truth, chance, world % 2 === 1));
      if (!fit.ok) throw new Error(fit.error.detail);
      const stated = fit.value.tanks[0]!.chanceClear;
      const into = classes[Math.min(CLASSES - 1, Math.floor(stated * CLASSES))]!;
      into.count++;
      into.stated += stated;
      into.fitted += goesIn(truth) ? 1 : 0;
    }
    const worst = Math.max(
      ...classes
        .filter(({ count }) => count > 20)
        .map(({ count, stated, fitted }) => Math.abs(stated - fitted) / count),
    );
    const value = Number(worst.toFixed(3));
    return {
      name: 'fit-survey',
      value,
      unit: 'worst gap between stated chance and share that fitted, bay surveyed',
      ratio: null,
      goal: GOAL,
      met: value <= GOAL,
      reference: `${WORLDS} seeded bays: ${classes.map(({ count, stated, fitted }) => (count ? `${count} with ${(stated / count).toFixed(2)} said, ${(fitted / count).toFixed(2)} fitted` : '–')).join('; ')}`,
    };
  },
};

/**
 * A true bay: where its zero lies from the tank's corner, and its outlines,
 * out of square by a few millimetres. The starboard wall is as likely to be at
 * one place as at another, from well clear to well foul: a chance stated from
 * the measurement alone knows nothing of where bays usually end.
 */
type Truth = {
  readonly y_m: number;
  readonly z_m: number;
  readonly outlines: readonly (readonly Corner[])[];
  readonly yaw_rad: number;
  readonly roll_rad: number;
};

function drawn(chance: Chance, turned: boolean): Truth {
  const some = (): number => 0.003 * chance.normal();
  const outline = (): Corner[] => {
    const [w, h] = [WIDE + AMPLE_M + some(), TALL + AMPLE_M + some()];
    return [
      [0, 0],
      [w, 0],
      [w + some(), h],
      [some(), h + some()],
    ];
  };
  return {
    y_m: TIGHT_M * (2 * chance.uniform() - 1),
    z_m: -AMPLE_M / 2,
    outlines: [outline(), outline()],
    yaw_rad: turned ? (TURN_RAD / 2) * chance.normal() : 0,
    roll_rad: turned ? (TURN_RAD / 2) * chance.normal() : 0,
  };
}

/** The bay as someone with a tape finds it. */
function taken({ y_m, z_m, outlines }: Truth, chance: Chance, turned: boolean): SystemDocument {
  const read = (value: number, spread: number): Known => measured(value + (spread / 2) * chance.normal(), spread);
  const rough = (value: number): Known => ({ value: value + 0.005 * chance.normal(), spread: 0.01, origin: 'assumed' });
  const station = (id: string, at: number, corners: readonly Corner[]) => ({
    id,
    name: id,
    at_m: chosen(at),
    corners: corners.map(([across, up], i) => ({
      across_m: i === 0 ? chosen(0) : rough(across),
      up_m: i === 0 ? chosen(0) : i === 1 ? read(up, TAPE_M) : rough(up),
    })),
  });
  const measures = outlines.flatMap((corners, s) =>
    (
      [
        [0, 1],
        [1, 2],
        [2, 3],
        [3, 0],
        [0, 2],
        [1, 3],
      ] as const
    ).map(([a, b]) => ({
      id: `length-${s}-${a}-${b}`,
      from: { station: NAMES[s]!, corner: a },
      to: { station: NAMES[s]!, corner: b },
      how: 'straight' as const,
      length_m: read(Math.hypot(corners[a]![0] - corners[b]![0], corners[a]![1] - corners[b]![1]), TAPE_M),
    })),
  );
  const wall = (id: string) => ({ id, name: id, kind: 'wall' as const });
  const bay: MeasuredBayDocument = {
    kind: 'measured',
    axis: 'x',
    x_m: chosen(-0.05),
    y_m: read(y_m, PLACE_M),
    z_m: read(z_m, 0.001),
    sides: ['under', 'port', 'over', 'starboard'].map(wall),
    nearEnd: { name: 'Aft', kind: 'open' },
    farEnd: { name: 'Fore', kind: 'open' },
    stations: NAMES.map((id, s) => station(id, s * (LONG + 0.1), outlines[s]!)),
    measures,
    curves: [],
  };
  const level = measured(0, (180 / Math.PI) * TURN_RAD);
  const [tank] = SYSTEM.tanks;
  return {
    ...SYSTEM,
    fit: { ...SYSTEM.fit, bay },
    tanks: turned ? [{ ...tank!, mounting: { ...tank!.mounting, yaw_deg: level, roll_deg: level } }] : SYSTEM.tanks,
  };
}
const NAMES = ['aft-cut', 'fore-cut'] as const;

const DRAFT = draftSystem({
  name: 'Survey',
  vehicle: 'road',
  consumer: 'diesel-engine',
  power_W: 20e3,
  holds_m3: 0.06,
});
const none = chosen(0);
const SYSTEM: SystemDocument = {
  ...DRAFT,
  lines: [],
  mounts: [],
  tanks: [
    {
      ...DRAFT.tanks[0]!,
      dimensions: 'outside',
      shape: { kind: 'box', length_m: chosen(LONG), width_m: chosen(WIDE), height_m: chosen(TALL) },
      ports: [],
      pickups: [],
      senders: [],
      mounting: { x_m: none, y_m: none, z_m: none, yaw_deg: none, pitch_deg: none, roll_deg: none },
    },
  ],
};

/** Every edge of the tank as it stands lies within the true outline all along: on the inner side of each ruled wall. */
function goesIn({ y_m, z_m, outlines, yaw_rad, roll_rad }: Truth): boolean {
  const pose = poseOf([0, 0, 0], { yaw_rad, pitch_rad: 0, roll_rad });
  const section: Corner[] = [
    [0, 0],
    [WIDE, 0],
    [WIDE, TALL],
    [0, TALL],
  ];
  return Array.from({ length: ALONG + 1 }, (_, i) => (LONG * i) / ALONG).every((along) =>
    section.every(([across, up]) => {
      const [x, y, z] = placed(pose, [along, across, up]);
      const share = (0.05 + x) / (LONG + 0.1);
      const outline = outlines[0]!.map(([a, b], i): Corner => [
        y_m + a + share * (outlines[1]![i]![0] - a),
        z_m + b + share * (outlines[1]![i]![1] - b),
      ]);
      return outline.every(([a, b], i) => {
        const [c, d] = outline[(i + 1) % outline.length]!;
        return (c - a) * (z - b) - (d - b) * (y - a) >= 0;
      });
    }),
  );
}
