import { failure, success, type Outcome } from '../outcome';
import { strangerIn } from './addedKeys';
import { CURRENT_VERSION } from './schema';

/** Turns a document of the version it is filed under into the next version. */
export type Migration = (document: Record<string, unknown>) => Record<string, unknown>;

type Tree = Record<string, unknown>;

// What a version began with stands here as it was then: what is begun with today may change, an old file may not.

/** Version 2: tanks of several bodies, baffles and foam; a surge limit; how hard the vehicle moves. */
function toVersion2(document: Tree): Tree {
  const tanks = Array.isArray(document.tanks)
    ? document.tanks.map((tank: unknown) =>
        isTree(tank) ? { ...tank, dimensions: 'inside', parts: [], slices: [], plates: [] } : tank,
      )
    : document.tanks;
  const kind = isTree(document.vehicle) && typeof document.vehicle.kind === 'string' ? document.vehicle.kind : 'road';
  return {
    ...document,
    tanks,
    limits: { surgeBay_m3: { value: 0.038, origin: 'chosen' } },
    envelope: isTree(document.envelope)
      ? { ...document.envelope, ...(HARDEST_OF_2[kind] ?? HARDEST_OF_2.road) }
      : document.envelope,
  };
}

const known = (value: number, origin: string, spread?: number): Tree => ({
  value,
  origin,
  ...(spread === undefined ? {} : { spread }),
});
const hardest = (braking: Tree, driving: Tree, cornering: Tree): Tree => ({
  braking_mPerS2: braking,
  driving_mPerS2: driving,
  cornering_mPerS2: cornering,
});
const HARDEST_OF_2: Readonly<Record<string, Tree>> = {
  boat: hardest(known(2, 'assumed', 0.7), known(2, 'assumed', 0.7), known(3, 'assumed', 1.1)),
  road: hardest(known(7, 'assumed', 2.5), known(3, 'assumed', 1.1), known(5, 'assumed', 1.8)),
  snow: hardest(known(5, 'assumed', 1.8), known(4, 'assumed', 1.4), known(5, 'assumed', 1.8)),
  competition: hardest(known(11, 'assumed', 3.9), known(6, 'assumed', 2.1), known(13, 'assumed', 4.6)),
  trailer: hardest(known(6, 'assumed', 2.1), known(3, 'assumed', 1.1), known(4, 'assumed', 1.4)),
  bench: hardest(known(0, 'chosen'), known(0, 'chosen'), known(0, 'chosen')),
};

/** Version 3: the space that the tanks are to fit into; what a built tank measures. */
function toVersion3(document: Tree): Tree {
  const tanks = Array.isArray(document.tanks)
    ? document.tanks.map((tank: unknown) => (isTree(tank) ? { ...tank, built: [] } : tank))
    : document.tanks;
  return {
    ...document,
    tanks,
    fit: { clearance_m: { value: 0.01, origin: 'chosen' }, bay: { kind: 'none' }, things: [], ways: [] },
  };
}

/** Version 4: places that hands and tools must reach. */
function toVersion4(document: Tree): Tree {
  return { ...document, fit: isTree(document.fit) ? { ...document.fit, spots: [] } : document.fit };
}

/** Version 5: parts of ports, kinds of senders and gauges, sight tubes, dipsticks, and calibrations by pours. */
function toVersion5(document: Tree): Tree {
  const tanks = Array.isArray(document.tanks)
    ? document.tanks.map((tank: unknown) =>
        isTree(tank)
          ? {
              ...tank,
              sightTubes: [],
              dipsticks: [],
              calibrations: [],
              senders: Array.isArray(tank.senders)
                ? tank.senders.map((sender: unknown) => (isTree(sender) ? senderOf5(sender) : sender))
                : tank.senders,
            }
          : tank,
      )
    : document.tanks;
  return {
    ...document,
    tanks,
    practice: isTree(document.practice)
      ? { ...document.practice, heaterPickup: 'higher', ports: 'new', sender: 'new' }
      : document.practice,
  };
}

/**
 * Ohms of sender and gauge move into what each gives and wants; what was silent was half under, and exact to a
 * twentieth.
 */
function senderOf5({ emptyResistance_ohm, fullResistance_ohm, gauge, ...sender }: Tree): Tree {
  const ohms = (empty_ohm: unknown, full_ohm: unknown): Tree => ({ kind: 'resistance', empty_ohm, full_ohm });
  return {
    ...sender,
    immersion_ratio: known(0.5, 'assumed', 0.15),
    tolerance_ratio: known(0.05, 'assumed', 0.03),
    output: ohms(emptyResistance_ohm, fullResistance_ohm),
    gauge: isTree(gauge)
      ? {
          kind: gauge.kind,
          scale: ohms(gauge.emptyResistance_ohm, gauge.fullResistance_ohm),
          tolerance_ratio: gauge.tolerance_ratio,
        }
      : gauge,
  };
}

/**
 * Version 6: parts with more ends and kinds, how each end is made, adapters, ways of lines, wires of pumps, prices of
 * lines.
 */
function toVersion6(document: Tree): Tree {
  const each = (list: unknown, change: (item: Tree) => Tree): unknown =>
    Array.isArray(list) ? list.map((item: unknown) => (isTree(item) ? change(item) : item)) : list;
  const lineEnd = (end: unknown): unknown => (isTree(end) ? { ...end, adapters: [] } : end);
  return {
    ...document,
    practice: isTree(document.practice)
      ? {
          ...document.practice,
          returnOutlet: 'low',
          transferBy: 'pump',
          lineFor: 'today',
          meter: 'after-filter',
          losses: 'two-k',
        }
      : document.practice,
    components: each(document.components, (part) => ({
      ...part,
      ends: [],
      ...(part.kind === 'pump' ? { type: 'inline' } : part.kind === 'filter' ? { does: 'filter' } : {}),
    })),
    lines: each(document.lines, (line) => ({
      ...line,
      from: lineEnd(line.from),
      to: lineEnd(line.to),
      points: [],
      passes: [],
    })),
    consumers: each(document.consumers, (consumer) => ({ ...consumer, ends: [] })),
    prices: [],
  };
}

/**
 * Version 7: records apart from the plan, lines of calibrations the first of them; and plain names: what a part of a
 * tank does is its operation, what a filter does its type, things are obstacles, ways out removals, and what baffles
 * part off compartments.
 */
function toVersion7(document: Tree): Tree {
  const trees = (list: unknown): Tree[] => (Array.isArray(list) ? list.filter(isTree) : []);
  const each = (list: unknown, change: (item: Tree) => Tree): unknown =>
    Array.isArray(list) ? list.map((item: unknown) => (isTree(item) ? change(item) : item)) : list;
  const renamed = (item: Tree, names: Readonly<Record<string, string>>): Tree =>
    Object.fromEntries(Object.entries(item).map(([key, value]) => [names[key] ?? key, value]));
  const records = trees(document.tanks).flatMap((tank) =>
    trees(tank.calibrations).flatMap(({ id, pours }) =>
      trees(pours).map((pour) => ({ ...pour, kind: 'pour', of: id, recorded: pour.at })),
    ),
  );
  return {
    ...document,
    tanks: each(document.tanks, (tank) => ({
      ...tank,
      ...('parts' in tank ? { parts: each(tank.parts, (part) => renamed(part, { does: 'operation' })) } : {}),
      ...('calibrations' in tank
        ? { calibrations: each(tank.calibrations, ({ pours: _, ...calibration }) => calibration) }
        : {}),
    })),
    components: each(document.components, (part) => (part.kind === 'filter' ? renamed(part, { does: 'type' }) : part)),
    limits: isTree(document.limits)
      ? renamed(document.limits, { surgeBay_m3: 'surgeCompartment_m3' })
      : document.limits,
    fit: isTree(document.fit) ? renamed(document.fit, { things: 'obstacles', ways: 'removals' }) : document.fit,
    records,
  };
}

const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value);

/** By the version it starts from. A change of format adds one entry and one test. */
export const MIGRATIONS: Readonly<Record<number, Migration>> = {
  1: toVersion2,
  2: toVersion3,
  3: toVersion4,
  4: toVersion5,
  5: toVersion6,
  6: toVersion7,
};

/**
 * Brings a document of any earlier version up to the current one.
 * A newer version is refused: what this app does not know it would lose.
 */
export function migrate(
  document: Record<string, unknown>,
  migrations: Readonly<Record<number, Migration>> = MIGRATIONS,
  current = CURRENT_VERSION,
): Outcome<Record<string, unknown>, 'wrong-version'> {
  let version = document.version;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    return failure('wrong-version', 'version', `version must be a whole number from 1 to ${current}.`);
  }
  if (version > current) {
    return failure(
      'wrong-version',
      'version',
      `This file is of version ${version}; this Gas Line reads up to ${current}. Update the app to open it.`,
    );
  }
  const stranger = strangerIn(document, version, current);
  if (stranger) {
    return failure(
      'wrong-version',
      stranger.path,
      `${stranger.path} came with version ${stranger.version}, but the file says that it is of version ${version}. Nothing was imported: it would lose that. If the rest is as version ${stranger.version} has it, set version to ${stranger.version}.`,
    );
  }
  let migrated = document;
  for (; version < current; version++) {
    const step = migrations[version];
    if (!step) return failure('wrong-version', 'version', `There is no way from version ${version} to ${version + 1}.`);
    migrated = { ...step(migrated), version: version + 1 };
  }
  return success(migrated);
}
