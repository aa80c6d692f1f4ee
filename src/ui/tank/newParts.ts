import {
  assumed,
  chosen,
  freshId,
  fromPart,
  withAdded,
  type PartDocument,
  type PlateDocument,
  type ShapeDocument,
  type SystemDocument,
} from '@/core/plan';
import { shapeSpan } from '@/core/model';

const round = (value: number): number => Number(value.toFixed(3));

/** Sizes of the first body, for parts that begin in proportion to it. */
const span = (system: SystemDocument, t: number): readonly [number, number, number] => {
  const [length, width, height] = shapeSpan(system.tanks[t]!.shape).map((value) => value || 0.3);
  return [length!, width!, height!];
};

/** Names that tell parts of one kind apart: Sump, Sump 2 … */
function named(system: SystemDocument, t: number, word: string): string {
  const { parts, slices, plates } = system.tanks[t]!;
  const used = new Set([...parts, ...slices, ...plates].map(({ name }) => name));
  let [number, text] = [2, word];
  while (used.has(text)) text = `${word} ${number++}`;
  return text;
}

function withPart(
  system: SystemDocument,
  t: number,
  id: string,
  word: string,
  part: Omit<PartDocument, 'id' | 'name'>,
): SystemDocument {
  return withAdded(system, ['tanks', t, 'parts'], { id: freshId(system, id), name: named(system, t, word), ...part });
}

/** A low box under the middle of the floor. */
export function withSump(system: SystemDocument, t: number): SystemDocument {
  const [length, width, height] = span(system, t);
  const [l, w, h] = [round(length * 0.25), round(width * 0.35), round(Math.max(0.02, height * 0.12))];
  return withPart(system, t, 'sump', 'Sump', {
    operation: 'add',
    shape: { kind: 'box', length_m: chosen(l), width_m: chosen(w), height_m: chosen(h) },
    x_m: chosen(round((length - l) / 2)),
    y_m: chosen(round((width - w) / 2)),
    z_m: chosen(-h),
  });
}

/** A step out of the aft upper edge, over the whole width. */
export function withNotch(system: SystemDocument, t: number): SystemDocument {
  const [length, width, height] = span(system, t);
  const [l, h] = [round(length * 0.2), round(height * 0.35)];
  return withPart(system, t, 'notch', 'Notch', {
    operation: 'take',
    shape: { kind: 'box', length_m: chosen(l), width_m: chosen(round(width)), height_m: chosen(h) },
    x_m: chosen(0),
    y_m: chosen(0),
    z_m: chosen(round(height - h)),
  });
}

/** A pump module that stands on the floor in the middle. */
export function withPumpModule(system: SystemDocument, t: number): SystemDocument {
  const [length, width, height] = span(system, t);
  const diameter = round(Math.min(0.11, length * 0.4, width * 0.4));
  return withPart(system, t, 'module', 'Pump module', {
    operation: 'displace',
    shape: {
      kind: 'cylinder',
      axis: 'z',
      diameter_m: fromPart(diameter),
      shell_m: fromPart(round(Math.min(0.2, height * 0.8))),
      nearEnd: 'flat',
      farEnd: 'flat',
    },
    x_m: chosen(round((length - diameter) / 2)),
    y_m: chosen(round((width - diameter) / 2)),
    z_m: chosen(0),
  });
}

/** Common practice: a fuel line is led through another tank in a tube of some 16 mm. */
const TUBE_M = 0.016;
/** It reaches past the walls so far, where it is welded in [m]. */
const PAST_M = 0.01;

/** A tube along the whole length, half way up, welded in at both ends: a line of another tank runs in it. */
export function withTubeThrough(system: SystemDocument, t: number): SystemDocument {
  const [length, width, height] = span(system, t);
  const diameter = round(Math.min(TUBE_M, width / 4, height / 4));
  return withPart(system, t, 'tube', 'Tube through it', {
    operation: 'displace',
    shape: {
      kind: 'cylinder',
      axis: 'x',
      diameter_m: chosen(diameter),
      shell_m: chosen(round(length + 2 * PAST_M)),
      nearEnd: 'flat',
      farEnd: 'flat',
    },
    x_m: chosen(-PAST_M),
    y_m: chosen(round((width - diameter) / 2)),
    z_m: chosen(round((height - diameter) / 2)),
  });
}

/** A band across the middle of the length. */
export function withSlice(system: SystemDocument, t: number): SystemDocument {
  const [length] = span(system, t);
  return withAdded(system, ['tanks', t, 'slices'], {
    id: freshId(system, 'band'),
    name: named(system, t, 'Band'),
    axis: 'x',
    at_m: chosen(round(length / 2)),
    width_m: chosen(round(Math.max(0.005, length * 0.05))),
  });
}

/**
 * Openings that builders leave: lower corners cut away so that liquid passes, an inch above for air. Common practice.
 */
export function withBaffle(system: SystemDocument, t: number): SystemDocument {
  const [length, width, height] = span(system, t);
  const { plates, material } = system.tanks[t]!;
  const across = plates.filter((plate) => plate.axis === 'x').length;
  const plate: PlateDocument = {
    id: freshId(system, 'baffle'),
    name: named(system, t, 'Baffle'),
    axis: 'x',
    at_m: chosen(round((length * (across + 1)) / (across + 2))),
    thickness_m: chosen(material.thickness_m.value),
    cornerCut_m: chosen(round(Math.min(0.03, width * 0.1))),
    topGap_m: chosen(round(Math.min(0.025, height * 0.1))),
    holes: { count: 0, diameter_m: chosen(0.03), height_m: chosen(round(height / 2)) },
  };
  return withAdded(system, ['tanks', t, 'plates'], plate);
}

/** A trap door that lets liquid pass towards higher coordinates. */
export const NEW_FLAP: NonNullable<PlateDocument['flap']> = {
  width_m: chosen(0.05),
  height_m: chosen(0.03),
  passes: 'higher',
  leak_ratio: assumed(0.03, 0.02),
};

/** A body from a file, where the first one begins. */
export const withMeshPart = (system: SystemDocument, t: number, shape: ShapeDocument): SystemDocument =>
  withPart(system, t, 'body', 'Body from a file', {
    operation: 'add',
    shape,
    x_m: chosen(0),
    y_m: chosen(0),
    z_m: chosen(0),
  });
