import { assumed, chosen, draftSystem, type SystemDocument } from '@/core/plan';
import { applied, BAFFLE, type Changes } from '../raisedSystems';

const draft = (answers: Parameters<typeof draftSystem>[0], changes: Changes): SystemDocument =>
  applied(draftSystem(answers), changes);
const T = 'tanks[0].';
const corners = (points: readonly (readonly [number, number])[]) => points.map(([u_m, v_m]) => ({ u_m, v_m }));

/** A deep V under a flat lid, seen along the boat. */
const V_BOTTOM = {
  kind: 'prism',
  axis: 'x',
  length_m: chosen(0.9),
  profile: corners([
    [0.25, 0],
    [0.5, 0.14],
    [0.5, 0.34],
    [0, 0.34],
    [0, 0.14],
  ]),
  profileOrigin: 'measured',
} as const;
/** Lower at one end. */
const TAPERED = {
  kind: 'loft',
  axis: 'x',
  length_m: chosen(0.6),
  near: corners([
    [0, 0],
    [0.4, 0],
    [0.4, 0.2],
    [0, 0.2],
  ]),
  far: corners([
    [0.05, 0.04],
    [0.35, 0.04],
    [0.35, 0.24],
    [0.05, 0.24],
  ]),
  profileOrigin: 'measured',
} as const;
const LYING = {
  kind: 'cylinder',
  axis: 'x',
  diameter_m: chosen(0.35),
  shell_m: chosen(0.7),
  nearEnd: 'torispherical',
  farEnd: 'flat',
} as const;
const STANDING = {
  kind: 'cylinder',
  axis: 'z',
  diameter_m: chosen(0.3),
  shell_m: chosen(0.4),
  nearEnd: 'flat',
  farEnd: 'elliptical',
} as const;
const FUNNEL = {
  kind: 'cone',
  axis: 'z',
  nearDiameter_m: chosen(0.15),
  farDiameter_m: chosen(0.3),
  length_m: chosen(0.35),
} as const;

/** Eight systems of kinds that the demo has not got, made of a start and a few changes. */
export function ownSystems(): { readonly name: string; readonly system: SystemDocument }[] {
  const box = { length_m: 0.5, width_m: 0.35, height_m: 0.25 };
  return [
    {
      name: 'boat, V bottom, baffled',
      system: draft(
        {
          name: 'V',
          vehicle: 'boat',
          consumer: 'diesel-engine',
          power_W: 60e3,
          holds_m3: 0.1,
          length_m: 0.9,
          width_m: 0.5,
          height_m: 0.34,
        },
        [
          [`${T}shape`, V_BOTTOM],
          [`${T}plates`, [{ ...BAFFLE, at_m: chosen(0.45) }]],
        ],
      ),
    },
    {
      name: 'road, lying drum, petrol injection',
      system: draft(
        { name: 'Drum', vehicle: 'road', consumer: 'petrol-injection', power_W: 90e3, holds_m3: 0.06, ...box },
        [[`${T}shape`, LYING]],
      ),
    },
    {
      name: 'snow, taper, carburettor',
      system: draft(
        {
          name: 'Taper',
          vehicle: 'snow',
          consumer: 'petrol-carburettor',
          power_W: 40e3,
          holds_m3: 0.04,
          length_m: 0.6,
          width_m: 0.4,
          height_m: 0.2,
        },
        [[`${T}shape`, TAPERED]],
      ),
    },
    {
      name: 'competition, a box within baffles',
      system: draft(
        { name: 'Race', vehicle: 'competition', consumer: 'petrol-injection', power_W: 250e3, holds_m3: 0.05, ...box },
        [
          [
            `${T}plates`,
            [
              { ...BAFFLE, at_m: chosen(0.2) },
              { ...BAFFLE, id: 'across', name: 'Across', axis: 'y', at_m: chosen(0.18) },
            ],
          ],
        ],
      ),
    },
    {
      name: 'trailer, upright drum, nozzle',
      system: draft(
        {
          name: 'Nozzle',
          vehicle: 'trailer',
          consumer: 'nozzle',
          power_W: 1e3,
          holds_m3: 0.03,
          length_m: 0.3,
          width_m: 0.3,
          height_m: 0.5,
        },
        [[`${T}shape`, STANDING]],
      ),
    },
    {
      name: 'bench, funnel, generator',
      system: draft(
        {
          name: 'Funnel',
          vehicle: 'bench',
          consumer: 'generator',
          power_W: 4e3,
          holds_m3: 0.012,
          length_m: 0.25,
          width_m: 0.25,
          height_m: 0.35,
        },
        [[`${T}shape`, FUNNEL]],
      ),
    },
    {
      name: 'boat, heater, tank askew',
      system: draft(
        {
          name: 'Askew',
          vehicle: 'boat',
          consumer: 'heater',
          power_W: 4e3,
          holds_m3: 0.02,
          length_m: 0.4,
          width_m: 0.3,
          height_m: 0.2,
        },
        [
          [`${T}mounting.pitch_deg`, chosen(7)],
          [`${T}mounting.yaw_deg`, assumed(90, 2)],
          [`${T}mounting.roll_deg`, chosen(-5)],
        ],
      ),
    },
    {
      name: 'road, cut corners, part added',
      system: draft(
        {
          name: 'Sump',
          vehicle: 'road',
          consumer: 'diesel-engine',
          power_W: 110e3,
          holds_m3: 0.07,
          length_m: 0.8,
          width_m: 0.4,
          height_m: 0.25,
        },
        [
          [
            `${T}parts`,
            [
              {
                id: 'sump',
                name: 'Sump',
                operation: 'add',
                shape: { kind: 'box', length_m: chosen(0.2), width_m: chosen(0.2), height_m: chosen(0.1) },
                x_m: chosen(0.3),
                y_m: chosen(0.1),
                z_m: chosen(-0.08),
              },
            ],
          ],
        ],
      ),
    },
  ];
}
