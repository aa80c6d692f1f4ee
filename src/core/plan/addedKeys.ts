/** Where bodies are described, but for obstacles, which are of version 7 as a whole. */
const BODIES_OF_7 = ['fit.bay.shape', 'tanks[].parts[].shape', 'tanks[].shape'];
const SHAPE_KEYS_OF_7 = [
  'cutAcross_m',
  'cutEnd',
  'cutSide',
  'cutUp_m',
  'deadrise_deg',
  'deepEnd',
  'farAcross_m',
  'farUp_m',
  'firstRise_m',
  'firstRun_m',
  'flat_m',
  'headEnd',
  'head_m',
  'keel',
  'leg_m',
  'level',
  'nearAcross_m',
  'nearUp_m',
  'secondRise_m',
  'secondRun_m',
  'slopingFace',
  'stemAt_m',
  'stem_m',
  'steppedFace',
  'thinEnd',
  'thinHeight_m',
  'tunnelHeight_m',
  'tunnel_m',
  'profile[].origin',
  'profile[].spread_m',
  'near[].origin',
  'near[].spread_m',
  'far[].origin',
  'far[].spread_m',
];

/**
 * Keys that each version of the format brought, topmost ones only; `[]` is any
 * entry of a list. Frozen with its version: what is published is not changed,
 * only optional keys are added to the current version's list.
 */
export const ADDED_KEYS: Readonly<Record<number, readonly string[]>> = {
  2: [
    'envelope.braking_mPerS2',
    'envelope.cornering_mPerS2',
    'envelope.driving_mPerS2',
    'limits',
    'tanks[].dimensions',
    'tanks[].foam_ratio',
    'tanks[].parts',
    'tanks[].plates',
    'tanks[].shape.file',
    'tanks[].shape.triangles',
    'tanks[].shape.vertices_m',
    'tanks[].slices',
  ],
  3: ['fit', 'tanks[].built', 'tanks[].ports[].stands'],
  4: ['fit.spots'],
  5: [
    'practice.heaterPickup',
    'practice.ports',
    'practice.sender',
    'tanks[].calibrations',
    'tanks[].dipsticks',
    'tanks[].pickups[].seat_m',
    'tanks[].ports[].bolts',
    'tanks[].ports[].clock_deg',
    'tanks[].ports[].existing',
    'tanks[].ports[].hole_m',
    'tanks[].ports[].part',
    'tanks[].senders[].bend',
    'tanks[].senders[].gauge.empty_ohm',
    'tanks[].senders[].gauge.full_ohm',
    'tanks[].senders[].gauge.half_ohm',
    'tanks[].senders[].gauge.lamp_ratio',
    'tanks[].senders[].gauge.mostPoints',
    'tanks[].senders[].gauge.points',
    'tanks[].senders[].gauge.scale',
    'tanks[].senders[].highDead_m',
    'tanks[].senders[].immersion_ratio',
    'tanks[].senders[].length_m',
    'tanks[].senders[].lowDead_m',
    'tanks[].senders[].output',
    'tanks[].senders[].step_m',
    'tanks[].senders[].tolerance_ratio',
    'tanks[].senders[].tubeDiameter_m',
    'tanks[].sightTubes',
  ],
  6: [
    'components[].closesAt_ratio',
    'components[].discharge_ratio',
    'components[].does',
    'components[].ends',
    'components[].joined',
    'components[].opens_Pa',
    'components[].position',
    'components[].ratedDensity_kgPerM3',
    'components[].relief_Pa',
    'components[].set_Pa',
    'components[].spill_m3',
    'components[].style',
    'components[].tank',
    'components[].type',
    'components[].wiring',
    'consumers[].ends',
    'consumers[].engine',
    'fit.bay.shape.profileSpread_m',
    'fit.things[].bodies[].shape.profileSpread_m',
    'lines[].bend_m',
    'lines[].flexes',
    'lines[].from.adapters',
    'lines[].from.join',
    'lines[].held_m',
    'lines[].passes',
    'lines[].points',
    'lines[].stock',
    'lines[].to.adapters',
    'lines[].to.join',
    'practice.lineFor',
    'practice.losses',
    'practice.meter',
    'practice.returnOutlet',
    'practice.transferBy',
    'prices',
    'tanks[].parts[].shape.profileSpread_m',
    'tanks[].ports[].bolts.outOfStep_deg',
    'tanks[].ports[].drop_m',
    'tanks[].shape.profileSpread_m',
    'tanks[].sightTubes[].tee',
    'wishes.moves_m3',
  ],
  7: [
    'components[].backsUp_m3PerS',
    'components[].blowBy_m3PerS',
    'components[].cap_Pa',
    'components[].cold_K',
    'components[].coolant_m3',
    'components[].hot_K',
    'components[].inTank',
    'tanks[].sharesWallWith',
    'components[].mostPressure_Pa',
    'components[].oil_m3',
    'components[].opening_m',
    'components[].place',
    'components[].screened',
    'components[].stroke_m3',
    'components[].takes_m3',
    'consumers[].nozzle',
    'lines[].from.seal',
    'lines[].from.stretched',
    'lines[].to.seal',
    'lines[].to.stretched',
    'tanks[].elsewhere',
    'tanks[].fitted_kg',
    'tanks[].foam',
    'tanks[].inside',
    'tanks[].material.density_kgPerM3',
    'tanks[].pickups[].can',
    'tanks[].ports[].mark',
    'tanks[].ports[].on',
    'tanks[].ports[].seal',
    'tanks[].sightTubes[].boss',
    'vehicle.cruise',
    'tanks[].ports[].cap',
    'tanks[].ports[].screen',
    'tanks[].ports[].shutOff',
    'fit.obstacles',
    'fit.removals',
    'limits.fill_m3PerS',
    'limits.hot_K',
    'limits.over_Pa',
    'limits.surgeCompartment_m3',
    'limits.under_Pa',
    'mounts[].made',
    'shocks',
    'stance',
    'practice.catchTank',
    'practice.expelledPlace',
    'practice.flats',
    'practice.lining',
    'practice.surge',
    'practice.welds',
    'records',
    'scenarios',
    'tanks[].parts[].operation',
    ...BODIES_OF_7.flatMap((body) => SHAPE_KEYS_OF_7.map((key) => `${body}.${key}`)),
  ],
};

/** The first key in a document that its version did not have yet, as a path, and the version that brought it. */
export function strangerIn(
  document: unknown,
  version: number,
  current: number,
): { readonly path: string; readonly version: number } | undefined {
  for (let later = version + 1; later <= current; later++) {
    for (const key of ADDED_KEYS[later] ?? []) {
      const path = found(document, key.split('.'), '');
      if (path !== undefined) return { path, version: later };
    }
  }
  return undefined;
}

function found(at: unknown, [step, ...rest]: readonly string[], path: string): string | undefined {
  if (step === undefined) return path;
  if (typeof at !== 'object' || at === null) return undefined;
  const key = step.replace(/(\[\])+$/, '');
  if (!Object.hasOwn(at, key)) return undefined;
  return inLists(
    (at as Record<string, unknown>)[key],
    (step.length - key.length) / 2,
    rest,
    path === '' ? key : `${path}.${key}`,
  );
}

function inLists(at: unknown, depth: number, rest: readonly string[], path: string): string | undefined {
  if (depth === 0) return found(at, rest, path);
  if (!Array.isArray(at)) return undefined;
  for (const [i, entry] of at.entries()) {
    const inside = inLists(entry, depth - 1, rest, `${path}[${i}]`);
    if (inside !== undefined) return inside;
  }
  return undefined;
}
