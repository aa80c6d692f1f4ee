import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { boxMesh, meshVolume, posedMesh, shiftBy } from '../geometry';
import { drawnBay, surveyedBay, type BayPlan, type Measurement } from '.';

const at = (value_m: number, sigma_m = 0.0005): Measurement => ({ value_m, sigma_m, assumed: false });
const corners = (...points: readonly (readonly [number, number])[]) =>
  points.map(([across, up]) => ({ across: at(across), up: at(up) }));
const SQUARE = [
  [0, 0],
  [0.6, 0],
  [0.6, 0.4],
  [0, 0.4],
] as const;
const PLAN: BayPlan = {
  axis: 'x',
  origin_m: [1, 2, 3],
  sides: ['floor', 'port', 'top', 'starboard'].map((id) => ({ id, name: id, kind: 'wall' })),
  nearEnd: { name: 'Aft', kind: 'wall' },
  farEnd: { name: 'Fore', kind: 'open' },
  stations: [
    { id: 'a', name: 'Aft cut', at: at(0), corners: corners(...SQUARE) },
    { id: 'b', name: 'Fore cut', at: at(0.8), corners: corners(...SQUARE) },
  ],
  measures: [],
  curves: [],
};
const volume = (plan: BayPlan): number => meshVolume(unwrap(surveyedBay(plan)).space);

describe('a bay from its outlines', () => {
  it('a box: its volume, and every side’s way in', () => {
    const bay = unwrap(surveyedBay(PLAN));
    expectClose(meshVolume(bay.space), 0.8 * 0.6 * 0.4, { rel: 1e-9, why: 'box' });
    expect(bay.panels.map(({ name }) => name)).toEqual(['floor', 'port', 'top', 'starboard', 'Aft', 'Fore']);
    expect(bay.panels.map(({ inward }) => inward.map((value) => Math.round(value) + 0))).toEqual([
      [0, 0, 1],
      [0, -1, 0],
      [0, 0, -1],
      [0, 1, 0],
      [1, 0, 0],
      [-1, 0, 0],
    ]);
  });

  it('out of parallel, with a floor and a ceiling that slope: the prismoidal rule', () => {
    const fore = [
      [0, 0.02],
      [0.5, 0.04],
      [0.52, 0.36],
      [-0.01, 0.34],
    ] as const;
    const area = (list: readonly (readonly [number, number])[]): number =>
      list.reduce((sum, [u, v], i) => sum + u * list[(i + 1) % 4]![1] - v * list[(i + 1) % 4]![0], 0) / 2;
    const middle = SQUARE.map(([u, v], i) => [(u + fore[i]![0]) / 2, (v + fore[i]![1]) / 2] as const);
    const plan = { ...PLAN, stations: [PLAN.stations[0]!, { ...PLAN.stations[1]!, corners: corners(...fore) }] };
    expectClose(volume(plan), (0.8 / 6) * (area(SQUARE) + 4 * area(middle) + area(fore)), {
      rel: 1e-9,
      why: 'prismoidal rule',
    });
  });

  it('stations that follow each other to port give the same space turned', () => {
    const bay = unwrap(surveyedBay({ ...PLAN, axis: 'y' }));
    expectClose(meshVolume(bay.space), 0.8 * 0.6 * 0.4, { rel: 1e-9, why: 'box' });
    expect(bay.panels[4]!.inward.map((value) => Math.round(value) + 0)).toEqual([0, 1, 0]);
  });

  it('a curved side by offsets from a straight edge: behind it adds, before it takes', () => {
    const curve = (behind_m: number) => [
      { station: 0, side: 1, points: [{ along_m: 0.2, behind_m }] },
      { station: 1, side: 1, points: [{ along_m: 0.2, behind_m }] },
    ];
    expectClose(volume({ ...PLAN, curves: curve(0.03) }) - volume(PLAN), (0.8 * 0.4 * 0.03) / 2, {
      rel: 1e-9,
      why: 'triangle over the edge',
    });
    expectClose(volume({ ...PLAN, curves: curve(-0.03) }) - volume(PLAN), (-0.8 * 0.4 * 0.03) / 2, {
      rel: 1e-9,
      why: 'triangle under it',
    });
  });

  it('curved at one station and straight at the other, it still closes', () => {
    const plan = {
      ...PLAN,
      curves: [{ station: 0, side: 1, points: [0.1, 0.2, 0.3].map((along_m) => ({ along_m, behind_m: 0.02 })) }],
    };
    expect(volume(plan)).toBeGreaterThan(volume(PLAN));
  });

  it('a measured length moves the corners that were only guessed', () => {
    const guessed = PLAN.stations.map((station) => ({
      ...station,
      corners: station.corners.map((corner, i) =>
        i === 0
          ? corner
          : {
              across: { ...corner.across, sigma_m: 0.005, assumed: true },
              up: { ...corner.up, sigma_m: 0.005, assumed: true },
            },
      ),
    }));
    const bay = unwrap(
      surveyedBay({
        ...PLAN,
        stations: guessed,
        measures: [
          {
            id: 'floor',
            from: { station: 0, corner: 0 },
            to: { station: 0, corner: 1 },
            how: 'straight',
            length: at(0.63),
          },
        ],
      }),
    );
    expectClose(bay.survey!.corners_m[0]![1]![1], 2 + 0.63, { abs: 1e-6, why: 'the tape decides' });
    expectClose(bay.survey!.corners_m[1]![1]![1], 2 + 0.6, { abs: 1e-6, why: 'nobody measured there' });
  });

  it.each<[string, Partial<BayPlan>, string]>([
    [
      'an outline that crosses itself',
      {
        stations: [
          PLAN.stations[0]!,
          { ...PLAN.stations[1]!, corners: corners([0, 0], [0.6, 0], [0, 0.4], [0.6, 0.4]) },
        ],
      },
      'crosses-itself',
    ],
    [
      'an outline the wrong way round',
      {
        stations: [
          PLAN.stations[0]!,
          { ...PLAN.stations[1]!, corners: corners([0, 0], [0, 0.4], [0.6, 0.4], [0.6, 0]) },
        ],
      },
      'crosses-itself',
    ],
    [
      'two corners in one place',
      {
        stations: [PLAN.stations[0]!, { ...PLAN.stations[1]!, corners: corners([0, 0], [0.6, 0], [0.6, 0], [0, 0.4]) }],
      },
      'crosses-itself',
    ],
    [
      'stations out of order',
      { stations: [PLAN.stations[0]!, { ...PLAN.stations[1]!, at: at(-0.1) }] },
      'out-of-order',
    ],
    ['one outline alone', { stations: [PLAN.stations[0]!] }, 'no-stations'],
  ])('%s is refused by name', (_, change, code) => {
    expect(surveyedBay({ ...PLAN, ...change })).toMatchObject({ ok: false, error: { code } });
  });
});

describe('a bay from a closed mesh', () => {
  it('has six sides by the way they face, each as it is said to be', () => {
    const bay = drawnBay(posedMesh(boxMesh(1, 2, 3), shiftBy([0, 0, 1])), {
      fore: 'open',
      aft: 'wall',
      port: 'wall',
      starboard: 'removable',
      top: 'open',
      floor: 'wall',
    });
    expect(bay.panels.map(({ id, kind }) => `${id} ${kind}`)).toEqual([
      'bay-fore open',
      'bay-aft wall',
      'bay-port wall',
      'bay-starboard removable',
      'bay-top open',
      'bay-floor wall',
    ]);
  });
});
