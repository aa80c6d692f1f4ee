import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  chosen,
  COMPONENT_KINDS,
  CURRENT_VERSION,
  draftSystem,
  firstEntry,
  newCap,
  newPart,
  quiet,
  TIMED,
  VEHICLES,
  withPartIn,
  withTimed,
  type SystemDocument,
} from '@/core/plan';
import {
  builtResult,
  calibrationResult,
  checkedWay,
  documentAt,
  evaluateSystem,
  influencesOf,
  jointsOf,
  linesList,
  mountRows,
  shocksFrom,
  simulate,
  sizeTable,
} from '@/core/answers';
import { loadKernel } from '@/core/geometry';
import { withoutMemory } from '@/core/memo';
import { unwrap } from '@/core/outcome';
import { findingKeys, judge } from '@/core/rules';
import { allSteps } from '@/core/steps';
import { asNamed, NAMED_SHAPES } from '@/core/shapes';
import {
  AFLOAT,
  applied,
  inBay,
  OBSTACLE,
  ofJob,
  ON_AXLES,
  ON_TRAILER,
  PROBE,
  RAISED_BY,
  SOUND,
  square,
  T,
  type Changes,
} from './raisedSystems';

/** Every leaf of the published schema, by key, lists as `[]`; a value with its origin and spread is one leaf. */
type Schema = {
  readonly properties?: Record<string, Schema>;
  readonly items?: Schema;
  readonly anyOf?: Schema[];
  readonly oneOf?: Schema[];
};
function leavesOf(schema: Schema, at: string): string[] {
  const choices = [...(schema.anyOf ?? []), ...(schema.oneOf ?? [])];
  if (choices.length > 0) return choices.flatMap((one) => leavesOf(one, at));
  if (schema.properties?.value && schema.properties.origin) return [at];
  if (schema.properties)
    return Object.entries(schema.properties).flatMap(([key, of]) => leavesOf(of, at === '' ? key : `${at}.${key}`));
  return schema.items ? leavesOf(schema.items, `${at}[]`) : [at];
}

/** The document as seen by what reads it: each leaf that is looked at is noted. Writing it out whole is no reading. */
function watched<T extends object>(root: T, at: string, seen: Set<string>): T {
  const wrapped = new WeakMap<object, object>();
  return new Proxy(root, {
    get(target, key, receiver) {
      if (key === 'toJSON') return () => target;
      const value: unknown = Reflect.get(target, key, receiver);
      if (typeof key === 'symbol' || typeof value === 'function') return value;
      const path = Array.isArray(target)
        ? /^\d+$/.test(key)
          ? `${at}[]`
          : undefined
        : at === ''
          ? key
          : `${at}.${key}`;
      if (path === undefined) return value;
      seen.add(shared(path));
      if (typeof value !== 'object' || value === null) return value;
      if (!wrapped.has(value)) wrapped.set(value, watched(value, path, seen));
      return wrapped.get(value);
    },
  });
}

/** Labels, how a pour was measured, what files are filed by and bodies came from: read where they are shown. */
const LABELS =
  /(^|\.)(id|name|note|file|fromName|toName)$|records\[\]\.(way|recorded|kind)$|^(format|version|description)$/;
/** Shapes are read by one and the same code wherever they stand. */
const shared = (path: string): string =>
  path.replace(/^(tanks\[\]\.(parts\[\]\.)?|fit\.bay\.|fit\.obstacles\[\]\.bodies\[\]\.)shape\./, 'shape.');

/** A system with a scenario in which everything is set that may be. */
function playing(system: SystemDocument): SystemDocument {
  const scenario = TIMED.reduce(
    (made, list) => {
      const entry = firstEntry(list, system, 1);
      return entry ? withTimed(made, list, entry) : made;
    },
    quiet('All', 4),
  );
  const selector = system.components.find(({ kind }) => kind === 'selector');
  const pump = system.components.find(({ kind }) => kind === 'pump');
  const tank = system.tanks[0]!.id;
  return {
    ...system,
    scenarios: [
      {
        ...scenario,
        fills: [{ tank, fill_ratio: 0.5 }],
        slopes: [...scenario.slopes, { at_s: 2, pitch_deg: 1, roll_deg: 1, evenly: true }],
        sets: [...scenario.sets, ...(selector ? [{ at_s: 2, part: selector.id, position: 'all' as const }] : [])],
        switches: pump ? [{ pump: pump.id, tank, stopsAt_ratio: 0.9, startsAt_ratio: 0.2 }] : [],
      },
    ],
  };
}

/** Leaves that stand in a document. */
const leavesIn = (value: unknown, at: string): string[] => {
  if (typeof value !== 'object' || value === null) return [shared(at)];
  if ('value' in value && 'origin' in value) return [shared(at)];
  return Array.isArray(value)
    ? value.flatMap((entry) => leavesIn(entry, `${at}[]`))
    : Object.entries(value).flatMap(([key, entry]) => leavesIn(entry, at === '' ? key : `${at}.${key}`));
};

const read = (file: string): SystemDocument => JSON.parse(readFileSync(`${file}.json`, 'utf8')) as SystemDocument;
const cone = {
  kind: 'cone',
  axis: 'x',
  nearDiameter_m: chosen(0.2),
  farDiameter_m: chosen(0.3),
  length_m: chosen(0.4),
};
const voltage = { kind: 'voltage', empty_V: chosen(0.5), full_V: chosen(4.5) };
const ohms = { kind: 'resistance', empty_ohm: chosen(10), full_ohm: chosen(180) };
const pourOf = (reading: object) => ({
  id: `p-${JSON.stringify(reading).length}`,
  recorded: '',
  kind: 'pour',
  of: 'log',
  at: '',
  way: 'can',
  added_m3: 0.002,
  spread_m3: 1e-5,
  reading,
  note: '',
  state: 'counts',
  simulated: false,
});
/** A calibration with one pour, the second correcting the first. */
const logOf = (of: string, reading: object): Changes => [
  [`${T}calibrations`, [{ id: 'log', name: 'Log', of, start_m3: 0, startSpread_m3: 1e-6, pitch_deg: 0, roll_deg: 0 }]],
  [
    'records',
    [
      { ...pourOf(reading), id: 'first' },
      { ...pourOf(reading), corrects: 'first' },
    ],
  ],
];
const bench = read('tests/fixtures/box-boat');

const CORNERS = applied(SOUND, [
  [
    `${T}shape`,
    {
      kind: 'prism',
      axis: 'x',
      length_m: chosen(0.3),
      profile: square(0.25),
      profileOrigin: 'measured',
      profileSpread_m: 0.003,
    },
  ],
]);

const BOX = { kind: 'box', length_m: chosen(0.3), width_m: chosen(0.25), height_m: chosen(0.25) } as const;
const LOFTED = ['near', 'far'].map((end) =>
  applied(SOUND, [
    [
      `${T}shape`,
      {
        kind: 'loft',
        axis: 'x',
        length_m: chosen(0.3),
        near: square(0.25),
        far: square(0.2),
        profileOrigin: 'measured',
        [end]: square(0.22).map((point) => ({ ...point, origin: 'assumed', spread_m: 0.01 })),
      },
    ],
  ]),
);

/** Systems with corners known to within a spread, all alike or by themselves. */
const WITH_CORNERS: readonly SystemDocument[] = [
  CORNERS,
  applied(CORNERS, [[`${T}shape.profile[1]`, { ...square(0.25)[1]!, origin: 'assumed', spread_m: 0.01 }]]),
  ...LOFTED,
];

/** Entries that no demo has and no rule asks for. */
const OTHERS: readonly SystemDocument[] = [
  applied(SOUND, [[`${T}shape`, cone]]),
  ...WITH_CORNERS,
  ...NAMED_SHAPES.map((name) => applied(SOUND, [[`${T}shape`, asNamed(BOX, name, [0.3, 0.25, 0.25])]])),
  inBay(SOUND, {
    obstacles: [
      { ...OBSTACLE, bodies: [...OBSTACLE.bodies, { ...OBSTACLE.bodies[0]!, operation: 'cut', z_m: chosen(0.05) }] },
    ],
  }),
  applied(SOUND, [['components[0].inTank', true]]),
  applied(SOUND, [[`${T}slices`, [{ axis: 'x', at_m: chosen(0.1), width_m: chosen(0.02) }]]]),
  applied(SOUND, [
    [`${T}senders[0].output`, voltage],
    [
      `${T}senders[0].gauge`,
      {
        kind: 'calibrated',
        mostPoints: 4,
        tolerance_ratio: chosen(0.02),
        points: {
          kind: 'voltage',
          at: [
            { reading_V: 0.5, shown_ratio: 0 },
            { reading_V: 4.5, shown_ratio: 1 },
          ],
        },
      },
    ],
    ...logOf('sender', { kind: 'voltage', reading_V: 1 }),
  ]),
  applied(SOUND, [
    [`${T}senders[0].output`, ohms],
    [
      `${T}senders[0].gauge`,
      {
        kind: 'calibrated',
        mostPoints: 4,
        tolerance_ratio: chosen(0.02),
        points: {
          kind: 'resistance',
          at: [
            { reading_ohm: 10, shown_ratio: 0 },
            { reading_ohm: 180, shown_ratio: 1 },
          ],
        },
      },
    ],
    ...logOf('sender', { kind: 'needle', shown_ratio: 0.3 }),
  ]),
  applied(SOUND, [[`${T}senders[0].bend`, { at_m: chosen(0.03), angle_deg: chosen(20) }]]),
  applied(SOUND, [
    [
      `${T}sightTubes`,
      [
        {
          id: 'sight',
          name: 'Sight',
          face: 'fore',
          along_m: chosen(0.12),
          lower_m: chosen(0.02),
          upper_m: chosen(0.2),
          markEvery_m3: chosen(0.001),
        },
      ],
    ],
    ...logOf('sight', { kind: 'height', height_m: 0.1 }),
  ]),
  applied(SOUND, [
    [`${T}ports[4].bolts`, { count: 5, circle_m: chosen(0.06), diameter_m: chosen(0.005), outOfStep_deg: chosen(10) }],
  ]),
  applied(SOUND, [[`${T}built`, [{ of: 'volume', measured: { value: 0.0149, origin: 'measured', spread: 1e-4 } }]]]),
  applied(SOUND, [
    [
      `${T}senders[0]`,
      {
        ...PROBE(SOUND),
        kind: 'tube',
        floatDiameter_m: chosen(0.03),
        immersion_ratio: chosen(0.5),
        step_m: chosen(0.02),
      },
    ],
  ]),
  applied(SOUND, [
    [
      'consumers[0].engine',
      {
        power_W: chosen(90e3),
        specific_kgPerJ: chosen(240e-3 / 3.6e6),
        injectors: 4,
        injectorFlow_m3PerS: chosen(5e-6),
        injectorDuty_ratio: chosen(0.85),
      },
    ],
  ]),
  applied(SOUND, [
    ['prices', [{ stock: 'hose-push-8-mm-5-16', perMetre: 4 }]],
    ['lines[2].stock', 'hose-push-8-mm-5-16'],
  ]),
  inBay(
    applied(SOUND, [
      [
        'mounts',
        [
          {
            id: 'strap',
            name: 'Strap',
            kind: 'strap',
            tank: 'main',
            x_m: chosen(0.1),
            y_m: chosen(0.1),
            z_m: chosen(0),
          },
        ],
      ],
    ]),
    {},
  ),
  applied(SOUND, [[`${T}inside`, [{ id: 'tie', name: 'Tie', material: 'nylon-tie' }]]]),
  applied(SOUND, [
    ['lines[1].from.join', { system: 'barb', size: '3/8', side: 'female' }],
    ['lines[1].from.stretched', true],
    ['components[0].ends', [{ end: 'out', system: 'barb', size: '1/2', side: 'male' }]],
  ]),
  applied(SOUND, [['practice.flats', 'beads']]),
  {
    ...SOUND,
    shocks: shocksFrom('off-road', 'fatigue'),
    mounts: [
      {
        id: 'ring',
        name: 'Ring',
        kind: 'flange',
        tank: 'main',
        x_m: chosen(0.15),
        y_m: chosen(0.12),
        z_m: chosen(0),
        made: {
          side: 'down',
          circle_m: chosen(0.12),
          stock: 'aluminium-5052',
          thickness_m: chosen(0.006),
          bolts: { count: 6, size: 'M6', class: '8.8', held: 'tapped', edge_m: chosen(0.012) },
          bears: { stock: 'plywood', thickness_m: chosen(0.012) },
        },
      },
    ],
  },
  // On a skid with fork pockets, on rubber mounts, behind a guard.
  inBay(
    {
      ...SOUND,
      tanks: SOUND.tanks.map((tank) => ({ ...tank, fitted_kg: chosen(3) })),
      mounts: [
        {
          id: 'skid',
          name: 'Skid',
          kind: 'cradle',
          tank: 'main',
          x_m: chosen(0.15),
          y_m: chosen(0.12),
          z_m: chosen(0),
          made: {
            side: 'down',
            length_m: chosen(0.3),
            width_m: chosen(0.24),
            lip_m: chosen(0.02),
            stock: 'mild-steel',
            thickness_m: chosen(0.003),
            bears: { stock: 'plywood', thickness_m: chosen(0.012) },
            pad: {
              of: 'rubber',
              thickness_m: chosen(0.004),
              own: { pressed_NPerM: chosen(4e5), sheared_NPerM: chosen(1e5), most_N: chosen(900) },
            },
            pockets: { runs: 'across', apart_m: chosen(0.15), width_m: chosen(0.06), height_m: chosen(0.05) },
          },
        },
        {
          id: 'guard',
          name: 'Guard',
          kind: 'guard',
          tank: 'main',
          x_m: chosen(0.3),
          y_m: chosen(0.12),
          z_m: chosen(0.1),
          made: {
            side: 'fore',
            length_m: chosen(0.2),
            width_m: chosen(0.15),
            off_m: chosen(0.02),
            stock: 'aluminium-5052',
            thickness_m: chosen(0.003),
            bolts: { count: 4, size: 'M6', class: '8.8', held: 'nut', edge_m: chosen(0.012) },
          },
        },
      ],
    },
    {},
  ),
  // On axles with all that can be said of them; afloat by each way to know how steady a hull is.
  {
    ...SOUND,
    tanks: SOUND.tanks.map((tank) => ({ ...tank, elsewhere: false })),
    stance: {
      ...ON_TRAILER,
      weighed: 'dry',
      axles: ON_AXLES.axles!.map((axle, a) => ({
        ...axle,
        portLoad_kg: chosen(260),
        rate_NPerM: chosen(a === 0 ? 3e4 : 8e4),
        sharesWithLast: a === 1,
      })),
      height: { ground_m: chosen(-0.5), centre_m: chosen(0.2) },
    },
  },
  ...(
    [
      { kind: 'given', gm_m: chosen(0.9) },
      { kind: 'moved', moved_kg: chosen(80), moved_m: chosen(0.8), heeled_deg: chosen(3) },
      { kind: 'rolled', period_s: chosen(2) },
    ] as const
  ).map((steady): SystemDocument => ({
    ...SOUND,
    vehicle: { ...SOUND.vehicle, kind: 'boat' },
    stance: { ...AFLOAT, hull: { ...AFLOAT.hull!, steady } },
  })),
  applied(
    SOUND,
    SOUND.tanks[0]!.ports.flatMap(({ role }, p) =>
      role === 'vent'
        ? ([
            [`${T}ports[${p}].shutOff`, { lean_deg: chosen(40), float: true }],
            [`${T}ports[${p}].screen`, { flow_m3PerS: chosen(5e-4), loss_Pa: chosen(200) }],
          ] as const)
        : [],
    ),
  ),
  ofJob('expelled', { school: 'small' }),
  ...(['screw', 'both-ways'] as const).map((kind) =>
    applied(
      SOUND,
      SOUND.tanks[0]!.ports.flatMap(({ role }, p) =>
        role === 'filler' ? [[`${T}ports[${p}].cap`, newCap(kind)] as const] : [],
      ),
    ),
  ),
  ...COMPONENT_KINDS.flatMap((kind) => {
    const put = withPartIn(SOUND, 'line-1', newPart(SOUND, kind, 0.01));
    if (!put.ok) return [];
    return [put.value, ...(kind === 'pump' || kind === 'selector' ? [playing(put.value)] : [])];
  }),
];

describe('every input acts', () => {
  beforeAll(loadKernel);

  it('each leaf of the published schema is read by what answers or judges, in some system that has it', async () => {
    const leaves = [
      ...new Set(leavesOf(read(`docs/format/system-v${CURRENT_VERSION}.schema`) as Schema, '').map(shared)),
    ].filter((leaf) => !LABELS.test(leaf));
    const seen = new Set<string>();
    const isSeen = (leaf: string): boolean => seen.has(leaf) || seen.has(`${leaf}.value`);
    const answer = (system: SystemDocument, how: 'without-fit' | 'with-fit'): void => {
      const spied = watched(system, '', seen);
      const evaluation = evaluateSystem(spied, 'full', how);
      if (!evaluation.ok) return;
      judge(spied, evaluation.value);
      if (how === 'with-fit') return;
      system.tanks.forEach((tank, t) => {
        tank.calibrations.forEach((_, c) => calibrationResult(spied, t, c));
        if (tank.built.length > 0) builtResult(spied, t);
      });
      const { removals } = system.fit;
      if (removals.length > 0) checkedWay(spied, removals[0]!.part, spied.fit.removals[0]!.steps);
      linesList(spied, jointsOf(spied));
      mountRows(spied.mounts, {});
      // Checking a scenario reads all of it: what counts is that playing it does.
      for (const scenario of spied.scenarios ?? [])
        expect(allSteps(simulate(unwrap(documentAt(spied)), scenario))).toMatchObject({ ok: true });
      for (const { id } of system.lines.slice(0, 3)) sizeTable(spied, id);
      // Spreads alone follow how closely corners are known.
      if (WITH_CORNERS.includes(system))
        for (const influence of influencesOf(spied, findingKeys)) expect(influence.path.length).toBeGreaterThan(0);
    };
    const raised = Object.values(RAISED_BY).map((by) => (typeof by === 'function' ? by(SOUND) : applied(SOUND, by)));
    const drafts = VEHICLES.map((vehicle) =>
      draftSystem({ name: 'x', vehicle, consumer: 'diesel-engine', power_W: 30e3, holds_m3: 0.05 }),
    );
    const isNew = (system: SystemDocument): boolean =>
      leavesIn(system, '').some((leaf) => leaves.includes(leaf) && !isSeen(leaf));
    // Only systems that have something not yet read are worked out; their space, which takes longest, if that is left.
    for (const system of [
      ...['crab-boat', 'forest-trailer', 'hill-climb-car', 'snow-vehicle'].map((name) => read(`demo/${name}`)),
      bench,
      ...drafts,
      ...OTHERS,
      ...raised,
    ]) {
      // Comparing what is asked with what was asked before is no reading.
      for (const how of ['without-fit', 'with-fit'] as const)
        if (isNew(system)) withoutMemory(() => answer(system, how));
      // What reports on tests gives up on a worker that does not answer for a minute.
      await new Promise(setImmediate);
    }
    expect(leaves.length).toBeGreaterThan(300);
    expect(leaves.filter((leaf) => !isSeen(leaf))).toEqual([]);
  });

  it('a leaf that nothing reads would be found', () => {
    const seen = new Set<string>();
    const spied = watched({ a: { value: 1, origin: 'chosen' }, b: [{ c: 2, d: 3 }] }, '', seen);
    expect([spied.a.value, spied.b[0]!.c, JSON.stringify(spied)]).toHaveLength(3);
    expect(leavesIn(spied, '')).toContain('b[].d');
    expect(seen.has('b[].c')).toBe(true);
  });
});
