import {
  assumed,
  chosen,
  draftSystem,
  meshText,
  newCap,
  newPart,
  toPath,
  withPartIn,
  withSealedDivider,
  withoutEntry,
  withValue,
  type CapKind,
  type ComponentDocument,
  type MeasuredBayDocument,
  type SenderDocument,
  type SystemDocument,
} from '@/core/plan';
import { checkedAnswers, JOBS, type JobAnswers } from '@/core/plan/jobs';
import { evaluateSystem, layoutsFor, shocksFrom } from '@/core/answers';
import { boxMesh, meshBounds } from '@/core/geometry';
import { outerMesh } from '@/core/model/compileFit';
import { unwrap } from '@/core/outcome';

export type Changes = readonly (readonly [string, unknown])[];
export const applied = (system: SystemDocument, changes: Changes): SystemDocument =>
  changes.reduce((at, [path, value]) => withValue(at, toPath(path), value), system);

/** A small tank on a nearly level bench that nothing is wrong with. */
export const SOUND = applied(
  draftSystem({
    name: 'Sound',
    vehicle: 'road',
    consumer: 'diesel-engine',
    power_W: 20e3,
    holds_m3: 0.015,
    length_m: 0.3,
    width_m: 0.25,
    height_m: 0.22,
  }),
  [
    ['wishes.holds_m3', chosen(0.015)],
    [
      'envelope',
      {
        noseUp_deg: chosen(2),
        noseDown_deg: chosen(2),
        portDown_deg: chosen(2),
        starboardDown_deg: chosen(2),
        braking_mPerS2: chosen(0),
        driving_mPerS2: chosen(0),
        cornering_mPerS2: chosen(0),
      },
    ],
    ['tanks[0].pickups[0].heightOffFloor_m', chosen(0.02)],
    ['tanks[0].senders[0].armLength_m', chosen(0.125)],
    ['tanks[0].senders[0].floatDiameter_m', chosen(0.03)],
    ['tanks[0].senders[0].pivotDepth_m', chosen(0.11)],
    ['tanks[0].senders[0].lowStop_deg', chosen(-48)],
    ['tanks[0].senders[0].highStop_deg', chosen(48)],
    ['components[1].output_ratio', chosen(1)],
  ],
);
SOUND.tanks[0]!.ports.push({
  id: 'spare',
  name: 'Spare',
  role: 'spare',
  face: 'lid',
  x_m: chosen(0.05),
  y_m: chosen(0.05),
  bore_m: chosen(0.008),
  length_m: chosen(0),
});

export const T = 'tanks[0].';
/** The same tank with a sealed wall across its middle. */
export const dividedIn = (system: SystemDocument): SystemDocument =>
  unwrap(withSealedDivider(system, 0, { axis: 'x', at_m: 0.15 }));
type Mount = SystemDocument['mounts'][number];
/** A mount that is made otherwise. */
const made = (mount: Mount, more: object): Mount => ({ ...mount, made: { ...mount.made!, ...more } }) as Mount;
const withoutLip = (mount: Mount): Mount => (mount.kind === 'cradle' ? made(mount, { lip_m: chosen(0) }) : mount);
/** The tank under straps as a builder of that school has it, changed. */
export const heldDown = (
  system: SystemDocument,
  change: (mounts: readonly Mount[]) => readonly Mount[],
): SystemDocument => {
  const { mounts } = unwrap(layoutsFor(system, 0)).find(({ school }) => school === 'straps')!;
  return { ...system, mounts: [...change(mounts)] };
};
/** How far the first tank reaches to port, standing square [m]. */
const portSideOf = ({ tanks }: SystemDocument): number =>
  tanks[0]!.mounting.y_m.value + meshBounds(unwrap(outerMesh(tanks[0]!))).max[1];

/** The same on welded tabs. */
const tabbed = (system: SystemDocument, more: object): SystemDocument => {
  const { mounts } = unwrap(layoutsFor(system, 0)).find(({ school }) => school === 'tabs')!;
  return { ...system, mounts: mounts.map((mount) => made(mount, more)) };
};
/** Two axles that bear its tank with room to spare. */
export const ON_AXLES: NonNullable<SystemDocument['stance']> = {
  weighed: 'without',
  middle_m: chosen(0.1),
  rating_kg: chosen(1500),
  axles: [
    {
      id: 'front',
      name: 'Front axle',
      x_m: chosen(2),
      track_m: chosen(1.2),
      load_kg: chosen(500),
      rating_kg: chosen(700),
    },
    {
      id: 'rear',
      name: 'Rear axle',
      x_m: chosen(-0.4),
      track_m: chosen(1.2),
      load_kg: chosen(500),
      rating_kg: chosen(700),
    },
  ],
  hitch: undefined,
  height: undefined,
  hull: undefined,
};
export const ON_TRAILER: NonNullable<SystemDocument['stance']> = {
  ...ON_AXLES,
  axles: [{ ...ON_AXLES.axles![1]!, x_m: chosen(0) }],
  hitch: { x_m: chosen(3), load_kg: chosen(50), rating_kg: chosen(75) },
};
/** A hull that floats its tank level enough. */
export const AFLOAT: NonNullable<SystemDocument['stance']> = {
  weighed: 'without',
  middle_m: chosen(0.1),
  hull: {
    water: 'sea',
    displacement_kg: chosen(1500),
    waterline_m: chosen(0.2),
    steady: { kind: 'given', gm_m: chosen(0.9) },
    stations: [
      { x_m: chosen(-2), beam_m: chosen(1.8) },
      { x_m: chosen(0.5), beam_m: chosen(2) },
      { x_m: chosen(3), beam_m: chosen(0) },
    ],
  },
};
const standing = (
  system: SystemDocument,
  kind: SystemDocument['vehicle']['kind'],
  stance: SystemDocument['stance'],
  changes: Changes = [],
): SystemDocument => applied({ ...system, vehicle: { ...system.vehicle, kind }, stance }, changes);
/** A baffle across the middle with all the openings it needs. */
export const BAFFLE = {
  id: 'baffle',
  name: 'Baffle',
  axis: 'x',
  at_m: chosen(0.15),
  thickness_m: chosen(0.003),
  cornerCut_m: chosen(0.03),
  topGap_m: chosen(0.025),
  holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(0.1) },
} as const;
export const CAN = {
  diameter_m: chosen(0.1),
  height_m: chosen(0.1),
  openings: { count: 6, diameter_m: chosen(0.008) },
  leak_ratio: chosen(1),
};

export const BODY = {
  id: 'body',
  name: 'Body',
  operation: 'add',
  shape: { kind: 'box', length_m: chosen(0.1), width_m: chosen(0.1), height_m: chosen(0.1) },
  x_m: chosen(0.1),
  y_m: chosen(0.1),
  z_m: chosen(-0.05),
} as const;
export const square = (size: number) =>
  [
    [0, 0],
    [size, 0],
    [size, size],
    [0, size],
  ].map(([u, v]) => ({ u_m: u!, v_m: v! }));
export const level = chosen(0);
export const BODY_AT_HOME = { x_m: level, y_m: level, z_m: level, yaw_deg: level, pitch_deg: level, roll_deg: level };
/** A box of 100 mm under the middle of the tank. */
export const OBSTACLE: SystemDocument['fit']['obstacles'][number] = {
  ...BODY_AT_HOME,
  id: 'obstacle',
  name: 'Obstacle',
  role: 'obstacle',
  x_m: chosen(0.1),
  y_m: chosen(0.05),
  motions: [],
  removable: false,
  bodies: [
    { ...BODY_AT_HOME, shape: { kind: 'box', length_m: chosen(0.1), width_m: chosen(0.1), height_m: chosen(0.1) } },
  ],
};
/**
 * A place in the vehicle that is worked at from above, clear of the tank; and a square tube of 40 mm that stands over
 * it.
 */
export const SPOT = {
  id: 'spot',
  name: 'Spot',
  x_m: chosen(0.5),
  y_m: chosen(0.5),
  z_m: chosen(0.5),
  facing: { forward: 0, toPort: 0, up: 1 },
} as const;
export const block = (
  id: string,
  size: readonly [number, number, number],
  at: readonly [number, number, number],
): SystemDocument['fit']['obstacles'][number] => ({
  ...OBSTACLE,
  id,
  name: id,
  x_m: chosen(at[0]),
  y_m: chosen(at[1]),
  z_m: chosen(at[2]),
  bodies: [
    {
      ...BODY_AT_HOME,
      shape: { kind: 'box', length_m: chosen(size[0]), width_m: chosen(size[1]), height_m: chosen(size[2]) },
    },
  ],
});
export const slab = (x: number, y: number, z: number) => block('slab', [1, 1, 0.02], [x, y, z]);
export const POCKET = [
  block('fore-side', [0.02, 0.08, 0.2], [0.52, 0.46, 0.45]),
  block('aft-side', [0.02, 0.08, 0.2], [0.46, 0.46, 0.45]),
  block('port-side', [0.08, 0.02, 0.2], [0.46, 0.52, 0.45]),
  block('starboard-side', [0.08, 0.02, 0.2], [0.46, 0.46, 0.45]),
];

/** The tank in a bay of a cubic metre round it, level, with what is said of the rest. */
export function inBay(system: SystemDocument, fit: Partial<SystemDocument['fit']>): SystemDocument {
  const cut = (id: string, name: string, at: number) => ({
    id,
    name,
    at_m: chosen(at),
    corners: [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ].map(([across, up]) => ({ across_m: chosen(across!), up_m: chosen(up!) })),
  });
  const side = (id: string) => ({ id, name: id, kind: 'wall' as const });
  const bay: MeasuredBayDocument = {
    kind: 'measured',
    axis: 'x',
    x_m: chosen(-0.3),
    y_m: chosen(-0.3),
    z_m: chosen(-0.3),
    sides: ['under', 'port-wall', 'over', 'starboard-wall'].map(side),
    nearEnd: { name: 'Aft', kind: 'wall' },
    farEnd: { name: 'Fore', kind: 'wall' },
    stations: [cut('aft-cut', 'Aft cut', 0), cut('fore-cut', 'Fore cut', 1)],
    measures: [],
    curves: [],
  };
  const tanks = system.tanks.map((tank) => ({
    ...tank,
    mounting: { x_m: level, y_m: level, z_m: level, yaw_deg: level, pitch_deg: level, roll_deg: level },
  }));
  return { ...system, tanks, fit: { ...system.fit, bay, ...fit } };
}

export const WIRING = {
  freeCurrent_A: chosen(3),
  shutOffCurrent_A: chosen(6),
  wire: 'mm2-2-5',
  length_m: chosen(3),
  fuse_A: 10,
  relay: true,
  battery_Ah: chosen(70),
} as const;
/** With a return from the engine to a port. */
export const withReturn = (system: SystemDocument, port: string): SystemDocument => ({
  ...system,
  lines: [
    ...system.lines,
    {
      ...system.lines[2]!,
      id: 'return-line',
      name: 'Return line',
      purpose: 'return',
      from: { item: 'consumer', end: 'out', adapters: [] },
      to: { item: port, end: 'in', adapters: [] },
      rise_m: chosen(0),
    },
  ],
});

/** What raises each rule, starting from the sound system. */
/** A plan as its job drafts it, with answers of its own. */
export function ofJob(key: string, answers: JobAnswers = {}): SystemDocument {
  const job = JOBS.find((each) => each.key === key)!;
  return job.draft('Drafted', unwrap(checkedAnswers(job, { ...job.usual, ...answers })));
}
/** With other values of its first part of a kind. */
export function withPart<K extends ComponentDocument['kind']>(
  system: SystemDocument,
  kind: K,
  values: Partial<Extract<ComponentDocument, { kind: K }>>,
): SystemDocument {
  const at = system.components.findIndex((part) => part.kind === kind);
  return {
    ...system,
    components: system.components.map((part, i) => (i === at ? ({ ...part, ...values } as ComponentDocument) : part)),
  };
}
/** Breathing by its cap alone. */
const capped = (system: SystemDocument, kind: CapKind): SystemDocument => ({
  ...system,
  tanks: system.tanks.map((tank) => ({
    ...tank,
    ports: tank.ports.flatMap((port) =>
      port.role === 'vent' ? [] : [port.role === 'filler' ? { ...port, cap: newCap(kind) } : port],
    ),
  })),
});
const HEATING = ofJob('appliance');
/** Its pump at a fiftieth of what it moves. */
const slow = ({ components }: SystemDocument) =>
  components.flatMap((part) =>
    part.kind === 'pump' ? part.curve.map((at) => ({ ...at, flow_m3PerS: at.flow_m3PerS / 50 })) : [],
  );
export const COOLANT = ofJob('expelled', { what: 'coolant' });
/** Diesel in forty-litre fills. */
export const FILLING = ofJob('transfer');
const withNozzle = (values: Partial<NonNullable<SystemDocument['consumers'][number]['nozzle']>>): SystemDocument => ({
  ...FILLING,
  consumers: FILLING.consumers.map((consumer) => ({ ...consumer, nozzle: { ...consumer.nozzle!, ...values } })),
});

export const RAISED_BY: Readonly<Record<string, Changes | ((system: SystemDocument) => SystemDocument)>> = {
  'vent.holds-pressure': (system) => capped(system, 'in-only'),
  'vent.cap-fills-slowly': (system) => capped(system, 'drilled'),
  'range.timed-over-full': [
    ['vehicle.cruise', [{ id: 'fast', name: 'Fast', burn_m3PerS: chosen(0.01), speed_mPerS: chosen(20) }]],
  ],
  'inside.surge-unlike-plan': [['practice.surge', 'trap-door']],
  'tank.lining-unlike-plan': [['practice.lining', 'lined']],
  'tank.dressed-thin': [
    ['practice.welds', 'dressed'],
    [`${T}material.thickness_m`, chosen(0.002)],
  ],
  'line.hose-stretched': [
    ['lines[0].to.join', { system: 'barb', size: '3/8', side: 'female' }],
    ['lines[0].to.stretched', true],
    ['components[0].ends', [{ end: 'in', system: 'barb', size: '1/2', side: 'male' }]],
  ],
  'contact.does-not-stand-it': [[`${T}ports[0].seal`, 'rtv-silicone']],
  'tank.material-caution': [[`${T}material.alloy`, 'pvc']],
  'pump.too-few-strokes': () => withPart(HEATING, 'pump', { stroke_m3: chosen(1e-10), curve: slow(HEATING) }),
  'pump.dosed-line-wide': () => ({
    ...HEATING,
    lines: HEATING.lines.map((line) => ({ ...line, bore_m: chosen(0.006) })),
  }),
  'expelled.nowhere': () => ({ ...COOLANT, lines: [] }),
  'expelled.too-small': () => withPart(COOLANT, 'cooling-system', { coolant_m3: chosen(0.05) }),
  'expelled.back-pressure': () => withPart(ofJob('expelled'), 'crankcase', { blowBy_m3PerS: chosen(0.02) }),
  'expelled.wrong-tank': () => applied(COOLANT, [['fluids[0].fluid', 'engine-oil']]),
  'expelled.no-drain': () => {
    const system = ofJob('expelled');
    const [tank] = system.tanks;
    return { ...system, tanks: [{ ...tank!, ports: tank!.ports.filter(({ role }) => role !== 'drain') }] };
  },
  'expelled.over-wheels': () => standing(ofJob('expelled'), 'road', ON_AXLES, [['stance.axles[1].x_m', chosen(0.2)]]),
  'coolant.no-room': () => withPart(COOLANT, 'cooling-system', { coolant_m3: chosen(0.05) }),
  'coolant.draws-air': () => applied(COOLANT, [['conditions.fills', [{ tank: 'tank', fill_ratio: 0 }]]]),
  'coolant.boils': () => withPart(COOLANT, 'cooling-system', { cap_Pa: chosen(30e3) }),
  'open-end.inside': () => withPart(ofJob('expelled', { what: 'overflow' }), 'outlet', { place: 'occupied' }),
  'open-end.no-screen': () => withPart(ofJob('expelled'), 'outlet', { screened: false }),
  'nozzle.does-not-enter': () => withPart(FILLING, 'receiver', { opening_m: chosen(0.02) }),
  'nozzle.backs-up': () => withPart(FILLING, 'receiver', { backsUp_m3PerS: chosen(1e-5) }),
  'nozzle.fill-too-large': () => withPart(FILLING, 'receiver', { takes_m3: chosen(0.02) }),
  'nozzle.by-hand': () => withNozzle({ stops: 'manual' }),
  'fit.fouls': (system) => inBay(system, { obstacles: [{ ...OBSTACLE, z_m: chosen(0.2) }] }),
  'fit.too-near': (system) => inBay(system, { obstacles: [{ ...OBSTACLE, z_m: chosen(-0.108) }] }),
  'fit.may-foul': (system) => inBay(system, { obstacles: [{ ...OBSTACLE, z_m: assumed(-0.115, 0.03) }] }),
  'line.near-heat': (system) =>
    inBay(system, { obstacles: [{ ...OBSTACLE, role: 'heat', z_m: chosen(0.3), keep_m: chosen(0.1) }] }),
  'line.near-moving': (system) =>
    inBay(system, {
      obstacles: [
        {
          ...OBSTACLE,
          z_m: chosen(0.3),
          x_m: chosen(0.4),
          motions: [
            {
              kind: 'slide',
              way: { forward: -1, toPort: 0, up: 0 },
              fromName: 'back',
              toName: 'forward',
              from_m: chosen(0),
              to_m: chosen(0.35),
            },
          ],
        },
      ],
    }),
  'fit.near-heat': (system) =>
    inBay(system, { obstacles: [{ ...OBSTACLE, role: 'heat', z_m: chosen(-0.15), keep_m: chosen(0.1) }] }),
  'fit.in-spray': (system) => inBay(system, { obstacles: [{ ...OBSTACLE, role: 'spray', z_m: chosen(0) }] }),
  'fit.occupied': (system) => inBay(system, { obstacles: [{ ...OBSTACLE, role: 'occupied', z_m: chosen(0) }] }),
  'fit.covers-reach': (system) =>
    inBay(system, { obstacles: [{ ...OBSTACLE, role: 'reach', z_m: chosen(-0.115), keep_m: chosen(0.08) }] }),
  'fit.contradiction': (system) => {
    const measured = inBay(system, {});
    const bay = measured.fit.bay as MeasuredBayDocument;
    const at = (corner: number) => ({ station: 'aft-cut', corner });
    const lengths = (
      [
        [0, 1, 1],
        [1, 2, 1],
        [2, 3, 1],
        [3, 0, 1],
        [0, 2, 1.5],
        [1, 3, Math.SQRT2],
      ] as const
    ).map(([from, to, value], i) => ({
      id: `length-${i}`,
      from: at(from),
      to: at(to),
      how: 'straight' as const,
      length_m: { value, origin: 'measured' as const, spread: 0.001 },
    }));
    return { ...measured, fit: { ...measured.fit, bay: { ...bay, measures: lengths } } };
  },
  'fit.cannot-compute': (system) => {
    const measured = inBay(system, {});
    const bay = measured.fit.bay as MeasuredBayDocument;
    return {
      ...measured,
      fit: {
        ...measured.fit,
        bay: { ...bay, stations: bay.stations.map((station) => ({ ...station, at_m: chosen(0) })) },
      },
    };
  },
  // A bay of a metre, drawn in inches and taken in by millimetres.
  'fit.unit-doubt': (system) => ({
    ...system,
    fit: {
      ...system.fit,
      bay: {
        kind: 'drawn',
        shape: { kind: 'mesh', file: 'bay.stl', ...meshText(boxMesh(1 / 25.4, 1 / 25.4, 1 / 25.4)) },
        x_m: level,
        y_m: level,
        z_m: level,
        walls: { fore: 'wall', aft: 'wall', port: 'wall', starboard: 'wall', top: 'open', floor: 'wall' },
      },
    },
  }),
  'fit.no-way-kept': (system) => inBay(system, {}),
  'fit.nothing-cut': (system) => ({
    ...inBay(system, { obstacles: [{ ...OBSTACLE, z_m: chosen(0.2) }] }),
    constraints: { ...system.constraints, nothingCut: true },
  }),
  'fit.hot-work': [
    ['constraints.noHotWork', true],
    [`${T}ports[0].x_m`, assumed(0.1, 0.02)],
  ],
  // A lid 20 mm over every port, bolted down; the bolt's own pocket; what is welded into it.
  'reach.no-tool': (system) =>
    inBay(system, { spots: [{ ...SPOT, kind: 'bolt', acrossFlats_m: chosen(0.013) }], obstacles: POCKET }),
  'reach.before-fitting': (system) => inBay(system, { obstacles: [slab(-0.3, -0.3, 0.3)] }),
  'reach.drain': (system) =>
    inBay(
      applied(system, [
        [
          `${T}ports`,
          [
            ...system.tanks[0]!.ports,
            {
              ...system.tanks[0]!.ports[0]!,
              id: 'drain',
              name: 'Drain',
              role: 'drain',
              face: 'floor',
              bore_m: chosen(0.02),
              length_m: chosen(0),
              x_m: chosen(0.05),
              y_m: chosen(0.05),
            },
          ],
        ],
      ]),
      { obstacles: [slab(-0.3, -0.3, -0.08)] },
    ),
  'reach.no-nozzle': (system) => inBay(system, { obstacles: [slab(-0.3, -0.3, 0.3)] }),
  'reach.no-torch': (system) => inBay(system, { spots: [{ ...SPOT, kind: 'weld' }], obstacles: POCKET }),
  'reach.no-sight': (system) =>
    inBay(system, { spots: [{ ...SPOT, kind: 'gauge' }], obstacles: [slab(-0.3, -0.3, 0.7)] }),
  'reach.no-hand': (system) => inBay(system, { spots: [{ ...SPOT, kind: 'grip' }], obstacles: POCKET }),
  'fit.parts-on-hand': [
    ['constraints.partsOnHand', true],
    [`${T}senders[0].armLength_m`, assumed(0.1, 0.01)],
  ],
  'tank.filled-past-limit': [['conditions.fills[0].fill_ratio', 0.97]],
  'tank.no-head-room': [[`${T}fillLimit_ratio`, chosen(0.99)]],
  'tank.smaller-than-wished': [['wishes.holds_m3', chosen(0.05)]],
  'tank.thin-sheet': [
    [`${T}material.thickness_m`, chosen(0.001)],
    [`${T}shape.length_m`, chosen(0.9)],
  ],
  'tank.cracks-at-bends': [[`${T}material.alloy`, 'al-6061']],
  'tank.material-and-fluid': [[`${T}material.alloy`, 'mild-steel']],
  'mount.not-said': [
    ['mounts', [{ id: 'tab', name: 'Tab', kind: 'tab', tank: 'main', x_m: chosen(0), y_m: chosen(0), z_m: chosen(0) }]],
  ],
  'mount.not-held': (system) =>
    heldDown(system, (mounts) =>
      mounts
        .filter(({ kind }) => kind !== 'stop')
        .map((mount) => (mount.kind === 'strap' ? made(mount, { tension_N: chosen(0) }) : withoutLip(mount))),
    ),
  'mount.too-weak': (system) =>
    heldDown(system, (mounts) => mounts.map((mount) => made(mount, { thickness_m: chosen(0.0005) }))),
  'mount.shaken': (system) =>
    heldDown(system, (mounts) =>
      mounts.map((mount) =>
        mount.kind === 'cradle' ? made(mount, { pad: { of: 'closed-cell-foam', thickness_m: chosen(0.03) } }) : mount,
      ),
    ),
  'mount.creeps': (system) =>
    heldDown(system, (mounts) =>
      mounts
        .filter(({ kind }) => kind !== 'stop')
        .map((mount) => (mount.kind === 'strap' ? made(mount, { tension_N: chosen(3000) }) : mount)),
    ),
  'mount.astray': (system) => heldDown(system, (mounts) => mounts.map((mount) => ({ ...mount, x_m: chosen(3) }))),
  'mount.strap-span': (system) =>
    heldDown(system, (mounts) => mounts.filter(({ kind, id }) => kind !== 'strap' || id === 'strap')),
  'mount.bare': (system) =>
    heldDown(system, (mounts) => mounts.map((mount) => made(mount, { pad: { of: 'none', thickness_m: chosen(0) } }))),
  'mount.over-port': (system) =>
    heldDown(system, (mounts) =>
      mounts.map((mount) =>
        mount.id === 'strap' ? { ...mount, x_m: chosen(system.tanks[0]!.ports[0]!.x_m!.value) } : mount,
      ),
    ),
  'mount.over-seam': (system) =>
    heldDown(system, (mounts) =>
      mounts.map((mount) => (mount.id === 'strap' ? { ...mount, x_m: chosen(0.022) } : mount)),
    ),
  'mount.edge': (system) =>
    heldDown(system, (mounts) =>
      mounts.map((mount) =>
        mount.made && 'bolts' in mount.made && mount.made.bolts
          ? made(mount, { bolts: { ...mount.made.bolts, edge_m: chosen(0.004) } })
          : mount,
      ),
    ),
  'mount.through-wall': (system) => tabbed(system, { weld: undefined }),
  'mount.tab-on-thin': (system) => tabbed(system, { thickness_m: chosen(0.02) }),
  'mount.cradle-loose': (system) =>
    heldDown(system, (mounts) =>
      mounts.map((mount) => (mount.kind === 'cradle' ? made(mount, { bolts: undefined }) : mount)),
    ),
  'mount.fouls': (system) =>
    inBay(
      heldDown(system, (mounts) => mounts),
      { obstacles: [slab(-0.3, -0.3, -0.026)] },
    ),
  'mount.near': (system) =>
    inBay(
      heldDown(system, (mounts) => mounts),
      { obstacles: [{ ...slab(-0.3, -0.3, -0.03), role: 'heat', keep_m: chosen(0.005) }] },
    ),
  // A shelf a finger over the feet of its straps.
  'mount.no-tool': (system) =>
    inBay(
      heldDown(system, (mounts) => mounts),
      { obstacles: [block('shelf', [0.6, 0.3, 0.02], [-0.1, portSideOf(system), 0.008])] },
    ),
  // A strap as wide as the tank comes down over the feet of a stop.
  'mount.covered': (system) =>
    heldDown(system, (mounts) => {
      const strap = mounts.find(({ kind }) => kind === 'strap')!;
      return [
        ...mounts,
        made(
          { ...strap, id: 'wide', y_m: chosen(portSideOf(system) / 2) },
          { runs: 'along', width_m: chosen(0.4), splay_m: chosen(0.05) },
        ),
      ];
    }),
  'mount.liquid-presses': (system) => ({ ...system, shocks: { ...shocksFrom('road'), fore_mPerS2: chosen(400) } }),
  'weight.axle-over': (system) => standing(system, 'road', ON_AXLES, [['stance.axles[1].rating_kg', chosen(501)]]),
  'weight.whole-over': (system) => standing(system, 'road', ON_AXLES, [['stance.rating_kg', chosen(1001)]]),
  'weight.lifts': (system) =>
    standing(system, 'road', ON_AXLES, [
      ['stance.axles[0].load_kg', chosen(1)],
      [`${T}mounting.x_m`, chosen(-2)],
    ]),
  'weight.steers-light': (system) => standing(system, 'road', ON_AXLES, [['stance.axles[0].load_kg', chosen(100)]]),
  'weight.hitch-over': (system) => standing(system, 'trailer', ON_TRAILER, [['stance.hitch.rating_kg', chosen(40)]]),
  'weight.hitch-share': (system) => standing(system, 'trailer', ON_TRAILER, [['stance.hitch.load_kg', chosen(-5)]]),
  'vent.end-under-water': (system) =>
    standing(system, 'boat', AFLOAT, [
      ['stance.hull.waterline_m', chosen(3)],
      [`${T}ports[${system.tanks[0]!.ports.findIndex(({ role }) => role === 'vent')}].length_m`, chosen(0.02)],
    ]),
  'weight.heels': (system) => standing(system, 'boat', AFLOAT, [[`${T}mounting.y_m`, chosen(3)]]),
  'weight.trims': (system) => standing(system, 'boat', AFLOAT, [[`${T}mounting.x_m`, chosen(9)]]),
  'weight.unsteady': (system) => standing(system, 'boat', AFLOAT, [['stance.hull.steady.gm_m', chosen(0.2)]]),
  'tank.heavy-lift': [[`${T}shape.length_m`, chosen(0.9)]],
  'tank.petrol-aboard': [
    ['vehicle.kind', 'boat'],
    ['fluids[0].fluid', 'petrol'],
  ],
  'tank.hole-below-liquid': [
    ['constraints.noHoleBelowLiquid', true],
    [`${T}ports[2]`, { ...SOUND.tanks[0]!.ports[2]!, face: 'aft', x_m: undefined, z_m: chosen(0.05) }],
  ],
  'tank.part-outside': [[`${T}ports[1].x_m`, chosen(0.5)]],
  'inside.surge-compartment-too-large': [['limits.surgeCompartment_m3', chosen(0.005)]],
  'inside.compartment-cut-off': [[`${T}plates`, [{ ...BAFFLE, cornerCut_m: chosen(0), topGap_m: chosen(0) }]]],
  'inside.compartment-keeps-fuel': [
    [
      `${T}plates`,
      [{ ...BAFFLE, cornerCut_m: chosen(0), holes: { count: 3, diameter_m: chosen(0.03), height_m: chosen(0.1) } }],
    ],
  ],
  'inside.refill-too-slow': [[`${T}plates`, [{ ...BAFFLE, cornerCut_m: chosen(0.001) }]]],
  'inside.no-air-gap': [[`${T}plates`, [{ ...BAFFLE, topGap_m: chosen(0) }]]],
  'inside.flap-away': [
    [
      `${T}plates`,
      [
        {
          ...BAFFLE,
          flap: { width_m: chosen(0.05), height_m: chosen(0.03), passes: 'higher', leak_ratio: chosen(0.02) },
        },
      ],
    ],
  ],
  'inside.starves-in-manoeuvre': [
    ['envelope.braking_mPerS2', chosen(9)],
    ['conditions.fills[0].fill_ratio', 0.2],
  ],
  'inside.slosh-meets-movement': [
    [`${T}shape.length_m`, chosen(2)],
    ['conditions.fills[0].fill_ratio', 0.4],
  ],
  'inside.can-refills-slowly': [[`${T}pickups[0].can`, { ...CAN, openings: { count: 1, diameter_m: chosen(0.001) } }]],
  'inside.can-over-lid': [[`${T}pickups[0].can`, { ...CAN, height_m: chosen(1.5) }]],
  'inside.separate-bodies': [[`${T}parts`, [{ ...BODY, x_m: chosen(2) }]]],
  'inside.idle-part': [[`${T}parts`, [{ ...BODY, z_m: chosen(0.05) }]]],
  'inside.float-in-foam': [[`${T}foam_ratio`, chosen(0.03)]],
  'inside.foam-does-not-pass': [
    [`${T}foam_ratio`, chosen(0.03)],
    [
      `${T}foam`,
      { over_m: chosen(0.03), clear_m: chosen(0.02), opening_m: chosen(0.012), squeezed_ratio: chosen(0.9) },
    ],
  ],
  'inside.twisted-panels': [
    [
      `${T}shape`,
      {
        kind: 'loft',
        axis: 'x',
        length_m: chosen(0.3),
        profileOrigin: 'chosen',
        near: square(0.25),
        far: square(0.25).map(({ u_m, v_m }) => ({ u_m: u_m + 0.1 * v_m, v_m: v_m + 0.2 * u_m })),
      },
    ],
  ],
  'pickup.too-high': [[`${T}pickups[0].heightOffFloor_m`, chosen(0.05)]],
  'pickup.in-the-dirt': [[`${T}pickups[0].heightOffFloor_m`, chosen(0.004)]],
  'pickup.loses-on-slope': [['envelope.noseDown_deg', chosen(25)]],
  'pickup.draws-air-now': [['conditions.fills[0].fill_ratio', 0.02]],
  'pickup.bottom-outlet': [
    [`${T}pickups[0].kind`, 'bottom-outlet'],
    [`${T}ports[2].face`, 'floor'],
  ],
  'line.cannot-deliver': [['lines[2].bore_m', chosen(0.0015)]],
  'line.no-flow': (system) => withoutEntry(system, ['lines'], 1),
  'line.vapour-lock': [
    ['fluids[0].fluid', 'petrol'],
    ['conditions.fuelTemperature_K', 325],
    ['conditions.altitude_m', 2500],
  ],
  'line.lift-too-high': [['components[1].selfPrimingLift_m', chosen(0)]],
  'line.fast-suction': [['lines[0].bore_m', chosen(0.002)]],
  'line.no-filter': (system) => applied(withoutEntry(system, ['lines'], 1), [['lines[0].to.item', 'pump']]),
  'line.low-voltage': [['conditions.pumpVoltage_V', 9]],
  'line.not-in-flow': [
    [
      'lines',
      [
        ...SOUND.lines,
        {
          ...SOUND.lines[0]!,
          id: 'fill-line',
          name: 'Fill line',
          purpose: 'fill',
          from: { item: 'filler', end: 'in', adapters: [] },
          to: { item: 'spare', end: 'in', adapters: [] },
        },
      ],
    ],
  ],
  'line.joint-broken': [['components[0].ends', [{ end: 'in', system: 'npt', size: '1/4', side: 'female' }]]],
  'line.in-tank-apart': [['components[1].type', 'in-tank']],
  'line.end-open': [['lines', SOUND.lines.slice(0, 2)]],
  'line.boils-on-the-way': [
    ['fluids[0].fluid', 'petrol'],
    ['conditions.fuelTemperature_K', 310],
    ['lines[1].points', [{ forward_m: 0, toPort_m: 0, rise_m: 5 }]],
    ['lines[1].length_m', chosen(11)],
  ],
  'line.siphons': [['lines[2].rise_m', chosen(-1)]],
  'line.spills-when-opened': [
    [`${T}pickups[0].kind`, 'bottom-outlet'],
    [`${T}ports[2].face`, 'floor'],
    ['lines[0].rise_m', chosen(-0.2)],
  ],
  'line.return-elsewhere': (system) => {
    const second = JSON.parse(
      JSON.stringify(system.tanks[0]!)
        .replace(/"id":"([a-z-]+)"/g, '"id":"b-$1"')
        .replace(/"port":"([a-z-]+)"/g, '"port":"b-$1"'),
    ) as SystemDocument['tanks'][number];
    return withReturn(
      {
        ...system,
        tanks: [...system.tanks, second],
        conditions: { ...system.conditions, fills: [...system.conditions.fills, { tank: 'b-main', fill_ratio: 0.5 }] },
      },
      'b-spare',
    );
  },
  'line.return-aerates': (system) => withReturn(system, 'spare'),
  'line.return-warms': (system) => ({
    ...withReturn(system, 'spare'),
    components: system.components.map((part) =>
      part.kind === 'pump'
        ? {
            ...part,
            wiring: { ...WIRING, wire: 'mm2-10', freeCurrent_A: chosen(12), shutOffCurrent_A: chosen(14), fuse_A: 20 },
          }
        : part,
    ),
    conditions: { ...system.conditions, fills: [{ tank: 'main', fill_ratio: 0.3 }] },
  }),
  'line.flows-back': (system) => {
    // A second pump beside the first, standing still, over two tees.
    const tee = (id: string) => ({ id, name: id, ends: [], kind: 'tee' as const, bore_m: chosen(0.01) });
    const pump = system.components.find((part) => part.kind === 'pump')!;
    const line = (id: string, from: [string, 'in' | 'out' | 'side'], to: [string, 'in' | 'out' | 'side']) => ({
      ...system.lines[1]!,
      id,
      name: id,
      rise_m: chosen(0),
      from: { item: from[0], end: from[1], adapters: [] },
      to: { item: to[0], end: to[1], adapters: [] },
    });
    return {
      ...system,
      components: [
        ...system.components,
        tee('tee-a'),
        tee('tee-b'),
        { ...pump, id: 'idle', name: 'Idle pump', running: false } as typeof pump,
      ],
      lines: [
        system.lines[0]!,
        line('a', ['filter', 'out'], ['tee-a', 'in']),
        line('b', ['tee-a', 'out'], ['pump', 'in']),
        line('c', ['pump', 'out'], ['tee-b', 'in']),
        line('d', ['tee-a', 'side'], ['idle', 'in']),
        line('e', ['idle', 'out'], ['tee-b', 'side']),
        { ...system.lines[2]!, from: { item: 'tee-b', end: 'out', adapters: [] } },
      ],
    };
  },
  'line.sight-misreads': (system) => ({
    ...system,
    components: [...system.components, { id: 'tee', name: 'Tee', ends: [], kind: 'tee', bore_m: chosen(0.01) }],
    lines: [
      { ...system.lines[0]!, to: { item: 'tee', end: 'in', adapters: [] } },
      {
        ...system.lines[0]!,
        id: 'on',
        name: 'On',
        to: { item: 'filter', end: 'in', adapters: [] },
        from: { item: 'tee', end: 'out', adapters: [] },
        rise_m: chosen(0),
      },
      ...system.lines.slice(1),
    ],
    tanks: [
      {
        ...system.tanks[0]!,
        sightTubes: [
          {
            id: 'sight',
            name: 'Sight tube',
            face: 'aft',
            along_m: chosen(0.1),
            lower_m: chosen(0.01),
            upper_m: chosen(0.2),
            markEvery_m3: chosen(0.001),
            tee: 'tee',
          },
        ],
      },
    ],
  }),
  'line.starves-when-low': (system) => ({
    ...system,
    components: [],
    lines: [{ ...system.lines[0]!, to: { item: 'consumer', end: 'in', adapters: [] }, rise_m: chosen(0.1) }],
    consumers: [{ ...system.consumers[0]!, neededPressure_Pa: chosen(-2000), neededFlow_m3PerS: chosen(3e-5) }],
  }),
  'line.pressure-over-rating': [
    [
      'components[1].curve',
      [
        { flow_m3PerS: 0, rise_Pa: 600e3 },
        { flow_m3PerS: 2e-5, rise_Pa: 500e3 },
      ],
    ],
    ['lines[2].stock', 'hose-push-8-mm-5-16'],
  ],
  'line.fuel-attacks': [
    ['fluids[0].fluid', 'urea'],
    ['lines[2].kind', 'pipe'],
    ['lines[2].stock', 'pipe-40-3-8'],
  ],
  'line.too-short': [
    ['lines[0].length_m', chosen(0.1)],
    ['lines[0].rise_m', chosen(0.4)],
  ],
  'line.ends-apart': (system) => {
    const back = withReturn(system, 'spare');
    return {
      ...back,
      lines: back.lines.map((line) =>
        line.id === 'return-line' ? { ...line, rise_m: chosen(2), length_m: chosen(3) } : line,
      ),
    };
  },
  // The same, the one below so full that not all has room.
  'line.transfer-overfills': (system) => {
    const down = (RAISED_BY['line.transfer-goes-on'] as (system: SystemDocument) => SystemDocument)(system);
    const [lower, upper] = down.conditions.fills;
    return {
      ...down,
      conditions: {
        ...down.conditions,
        fills: [
          { ...lower!, fill_ratio: 0.7 },
          { ...upper!, fill_ratio: 0.9 },
        ],
      },
    };
  },
  // A tank above, let out into the one below.
  'line.transfer-goes-on': (system) => {
    const upper = JSON.parse(
      JSON.stringify(system.tanks[0]!)
        .replace(/"id":"([a-z-]+)"/g, '"id":"b-$1"')
        .replace(/"port":"([a-z-]+)"/g, '"port":"b-$1"'),
    ) as SystemDocument['tanks'][number];
    return {
      ...system,
      tanks: [
        {
          ...system.tanks[0]!,
          ports: system.tanks[0]!.ports.map((port) => (port.id === 'spare' ? { ...port, drop_m: chosen(0.18) } : port)),
        },
        { ...upper, mounting: { ...upper.mounting, z_m: chosen(1) } },
      ],
      conditions: { ...system.conditions, fills: [...system.conditions.fills, { tank: 'b-main', fill_ratio: 0.7 }] },
      lines: [
        ...system.lines,
        {
          ...system.lines[0]!,
          id: 'down',
          name: 'Down',
          purpose: 'transfer',
          from: { item: 'b-pickup', end: 'out', adapters: [] },
          to: { item: 'spare', end: 'in', adapters: [] },
          rise_m: chosen(-1),
        },
      ],
    };
  },
  'line.bend-too-tight': [['lines[0].bend_m', chosen(0.02)]],
  'line.held-too-far': [['lines[0].held_m', chosen(3)]],
  'line.no-grommet': [['lines[0].passes', [{ name: 'bulkhead', hole_m: chosen(0.012) }]]],
  'line.rigid-but-moves': [
    ['lines[0].kind', 'tube'],
    ['lines[0].flexes', true],
  ],
  'line.wire-thin': [['components[1].wiring', { ...WIRING, wire: 'mm2-0-5', length_m: chosen(8) }]],
  'line.fuse-wrong': [['components[1].wiring', { ...WIRING, fuse_A: 60 }]],
  'line.no-relay': [
    [
      'components[1].wiring',
      { ...WIRING, relay: false, wire: 'mm2-10', fuse_A: 20, freeCurrent_A: chosen(12), shutOffCurrent_A: chosen(16) },
    ],
  ],
  'line.meter-in-the-dirt': (system) => {
    const put = withPartIn(system, 'line-1', newPart(system, 'meter', 0.01));
    return put.ok ? put.value : system;
  },
  'line.engine-needs-more': [
    [
      'consumers[0].engine',
      {
        power_W: chosen(90e3),
        specific_kgPerJ: chosen(240e-3 / 3.6e6),
        injectors: 0,
        injectorFlow_m3PerS: chosen(1e-6),
        injectorDuty_ratio: chosen(0.85),
      },
    ],
  ],
  'line.properties-stretched': [['conditions.fuelTemperature_K', 240]],
  'vent.too-small-for-draw': [[`${T}ports[1].bore_m`, chosen(0.0004)]],
  'vent.too-small-for-fill': [[`${T}ports[1].bore_m`, chosen(0.004)]],
  'vent.flooded': [['envelope.starboardDown_deg', chosen(25)]],
  'vent.shuts-itself': [
    [`${T}ports[1].shutOff`, { lean_deg: chosen(20) }],
    ['envelope.starboardDown_deg', chosen(25)],
  ],
  'vent.missing': [[`${T}ports[1].role`, 'spare']],
  'vent.filler-narrow': [[`${T}ports[0].bore_m`, chosen(0.015)]],
  // A tank of water half a metre beside it.
  'fill.mixed-up': (system) => ({
    ...system,
    fluids: [...system.fluids, { id: 'water', fluid: 'water' }],
    tanks: [
      ...system.tanks,
      {
        ...system.tanks[0]!,
        id: 'water-tank',
        name: 'Water tank',
        fluid: 'water',
        mounting: { ...system.tanks[0]!.mounting, y_m: chosen(0.5) },
        ports: system.tanks[0]!.ports.filter(({ role }) => role === 'filler' || role === 'vent').map((port) => ({
          ...port,
          id: `water-${port.id}`,
        })),
        pickups: [],
        senders: [],
      },
    ],
  }),
  'gauge.float-hits-floor': [[`${T}senders[0].lowStop_deg`, chosen(-75)]],
  'gauge.float-hits-lid': [[`${T}senders[0].highStop_deg`, chosen(75)]],
  'gauge.cannot-swing': [[`${T}senders[0].armLength_m`, chosen(1.5)]],
  'gauge.lies': [[`${T}senders[0].pivotDepth_m`, chosen(0.06)]],
  'gauge.range-mismatch': [
    [`${T}senders[0].output.empty_ohm`, chosen(10)],
    [`${T}senders[0].output.full_ohm`, chosen(180)],
  ],
  'port.off-sheet': [[`${T}ports[4].x_m`, chosen(0.005)]],
  'port.neighbour': [
    [`${T}ports[4].x_m`, chosen(0.085)],
    [`${T}ports[4].y_m`, chosen(0.125)],
  ],
  'port.hose-end': [
    [`${T}ports[4].stands`, { height_m: chosen(0.05), diameter_m: chosen(0.02), turns: 'port', reach_m: chosen(0.1) }],
    [`${T}ports[4].x_m`, chosen(0.075)],
  ],
  'port.near-bend': [
    [`${T}ports[4].x_m`, chosen(0.017)],
    [`${T}ports[4].part`, 'bung-npt-1-4'],
  ],
  'port.near-seam': [
    [`${T}ports[4].x_m`, chosen(0.017)],
    [`${T}ports[4].part`, 'bung-npt-1-4'],
  ],
  'port.over-baffle': [
    [`${T}plates`, [{ ...BAFFLE, topGap_m: chosen(0) }]],
    [`${T}ports[4].x_m`, chosen(0.15)],
    [`${T}ports[4].part`, 'bung-npt-1-4'],
  ],
  'port.fouls-inside': [
    [`${T}ports[4].part`, 'bulkhead-8'],
    [`${T}ports[4].x_m`, chosen(0.01)],
  ],
  'port.fouls-outside': [
    [
      `${T}parts`,
      [
        {
          ...BODY,
          shape: { kind: 'box', length_m: chosen(0.1), width_m: chosen(0.25), height_m: chosen(0.1) },
          x_m: chosen(0.06),
          y_m: chosen(0),
          z_m: chosen(0.2),
        },
      ],
    ],
    [`${T}ports[4].part`, 'bung-npt-1-4'],
  ],
  'port.not-flat': [
    [
      `${T}shape`,
      { kind: 'cylinder', axis: 'x', diameter_m: chosen(0.25), shell_m: chosen(0.3), nearEnd: 'flat', farEnd: 'flat' },
    ],
    [`${T}ports[3].part`, 'sender-5'],
  ],
  'port.too-thick': [
    [`${T}material.thickness_m`, chosen(0.008)],
    [`${T}ports[4].part`, 'bulkhead-6'],
  ],
  'port.few-turns': [[`${T}ports[4].part`, 'tapped-npt-1-4']],
  'tank.shared-wall-apart': (system) => applied(dividedIn(system), [['tanks[1].mounting.x_m', chosen(0.4)]]),
  'tank.shared-wall-liquids': (system) =>
    applied(dividedIn(system), [
      ['fluids', [...system.fluids, { id: 'other', fluid: 'petrol' }]],
      ['tanks[1].fluid', 'other'],
    ]),
  'port.on-shared-wall': (system) =>
    applied(dividedIn(system), [
      [
        `${T}ports[0]`,
        { ...system.tanks[0]!.ports[0]!, face: 'fore', x_m: undefined, y_m: chosen(0.1), z_m: chosen(0.1) },
      ],
    ]),
  'port.off-plate': [[`${T}ports[4].on`, SOUND.tanks[0]!.ports[3]!.id]],
  'port.no-spare': [[`${T}ports[4].role`, 'feed']],
  'pickup.near-arm': [[`${T}senders[0].swing`, 'aft']],
  'pickup.near-baffle': [[`${T}plates`, [{ ...BAFFLE, at_m: chosen(0.08) }]]],
  'pickup.heater-outlasts': (system) => withHeater(system, 0.01),
  'gauge.sight-blind': [
    [
      `${T}sightTubes`,
      [
        {
          id: 'sight',
          name: 'Sight',
          face: 'fore',
          along_m: chosen(0.12),
          lower_m: chosen(0.06),
          upper_m: chosen(0.2),
          markEvery_m3: chosen(0.001),
        },
      ],
    ],
  ],
  'gauge.no-stick': [
    [`${T}dipsticks`, [{ id: 'stick', name: 'Stick', port: 'sender-port', markEvery_m3: chosen(0.001) }]],
    [`${T}ports[3].face`, 'fore'],
    [`${T}ports[3].z_m`, chosen(0.1)],
    [`${T}ports[3].x_m`, undefined],
  ],
  'gauge.unseen': [[`${T}senders[0].armLength_m`, chosen(0.06)]],
  'gauge.dry-above-empty': [[`${T}pickups[0].heightOffFloor_m`, chosen(0.06)]],
  'gauge.lamp-late': [[`${T}senders[0].gauge.lamp_ratio`, chosen(0.01)]],
  'gauge.broken-wire': [
    [`${T}senders[0].output`, { kind: 'voltage', empty_V: chosen(0), full_V: chosen(5) }],
    [
      `${T}senders[0].gauge`,
      {
        kind: 'linear',
        scale: { kind: 'voltage', empty_V: chosen(0), full_V: chosen(5) },
        tolerance_ratio: chosen(0.02),
      },
    ],
  ],
  'gauge.capacitive-blend': (system) =>
    applied(system, [
      ['fluids[0].fluid', 'petrol'],
      [`${T}senders[0]`, PROBE(system)],
    ]),
  'tank.limit-unlike-plan': [[`${T}fillLimit_ratio`, chosen(0.97)]],
  'pickup.unlike-plan': [
    ['practice.pickup', 'on-floor'],
    [`${T}pickups[0].heightOffFloor_m`, chosen(0.02)],
  ],
  'port.new-beside-existing': [
    ['practice.ports', 'existing'],
    [`${T}ports[4].existing`, true],
  ],
  'gauge.salvaged-unmeasured': [['practice.sender', 'salvaged']],
  'line.thin-margin': (system) => {
    const flow = unwrap(unwrap(evaluateSystem(system, 'numbers')).flows[0]!);
    return applied(system, [['consumers[0].neededFlow_m3PerS', chosen(flow.delivered_m3PerS / 1.1)]]);
  },
  'line.too-much-pressure': [
    ['consumers[0].kind', 'petrol-carburettor'],
    ['consumers[0].neededPressure_Pa', chosen(5e3)],
  ],
  'line.transfer-short': (system) => {
    const down = (RAISED_BY['line.transfer-goes-on'] as (system: SystemDocument) => SystemDocument)(system);
    return { ...down, wishes: { ...down.wishes, moves_m3: chosen(0.5) } };
  },
  'line.transfer-unlike-plan': (system) =>
    (RAISED_BY['line.transfer-goes-on'] as (system: SystemDocument) => SystemDocument)(system),
  'line.coupler-spills': (system) => {
    const put = withPartIn(system, 'line-1', { ...newPart(system, 'coupler', 0.01), spill_m3: chosen(50e-6) } as never);
    return put.ok ? put.value : system;
  },
  'range.shorter-than-wished': [['wishes.endurance_s', chosen(1e6)]],
  'range.no-reserve': [['wishes.reserve_ratio', chosen(0.02)]],
};

/** A heater that draws from the same tank through the spare port, so far off the floor. */
export function withHeater(system: SystemDocument, height_m: number): SystemDocument {
  const [tank] = system.tanks;
  const heater = { ...system.consumers[0]!, id: 'heater', name: 'Heater', kind: 'heater' as const };
  const line = {
    ...system.lines[0]!,
    id: 'heater-line',
    name: 'Heater line',
    from: { item: 'heater-pickup', end: 'out' as const, adapters: [] },
    to: { item: 'heater', end: 'in' as const, adapters: [] },
  };
  return {
    ...system,
    consumers: [...system.consumers, heater],
    lines: [...system.lines, line],
    tanks: [
      {
        ...tank!,
        pickups: [
          ...tank!.pickups,
          {
            ...tank!.pickups[0]!,
            id: 'heater-pickup',
            name: 'Heater pickup',
            port: 'spare',
            heightOffFloor_m: chosen(height_m),
          },
        ],
      },
    ],
  };
}

/** The sound system's sender, as a probe without a float. */
export function PROBE({ tanks }: SystemDocument): SenderDocument {
  const { id, name, port, output, gauge, tolerance_ratio } = tanks[0]!.senders[0]!;
  return {
    id,
    name,
    port,
    output,
    gauge,
    tolerance_ratio,
    kind: 'capacitive',
    length_m: chosen(0.15),
    lowDead_m: chosen(0.01),
    highDead_m: chosen(0.01),
    tubeDiameter_m: chosen(0.016),
  };
}
