import { compileObstacle, outerMesh, placeOf, type FitCode } from '../../model/compileFit';
import { holeOf_m, portPoint } from '../../model/portSeat';
import { bossPorts } from '../../model/sightBosses';
import { chosen } from '../../schema/known';
import type { Plan } from '../../plan/schema';
import {
  dot,
  flatFaces,
  insideOutline,
  onFace,
  placed,
  posedMesh,
  rayCrossings,
  signedArea_m2,
  subtract,
  turned,
  type ClosedMesh,
  type FaceFrame,
  type FlatFace,
  type Point2,
  type Pose,
  type Surface,
  type Vec3,
} from '../../geometry';
import { success, type Outcome } from '../../outcome';
import { isSolid } from '../../fit';
import { sceneOf, wallsOf, type FitScene } from './fit';

/** One side of a template: between which corners, and what it must stand off when held in its place. */
export type TemplateEdge = {
  readonly from: number;
  readonly to: number;
  readonly length_m: number;
  readonly gap?: { readonly to: string; readonly distance_m: number };
};

/** The outside outline of a tank's flat face, with the numbers that prove a template of it. */
export type Template = {
  readonly name: string;
  /** Corners as looked at from outside, the first loop round the face, the others holes in it [m]. */
  readonly loops: readonly (readonly Point2[])[];
  readonly width_m: number;
  readonly height_m: number;
  readonly area_m2: number;
  /** Of the first loop. */
  readonly edges: readonly TemplateEdge[];
  /** Between corners that are not neighbours: those that fix the shape, longest first. */
  readonly diagonals: readonly { readonly from: number; readonly to: number; readonly length_m: number }[];
  readonly holes: readonly TemplateHole[];
};

/** What is cut out of a face, by its middle: round, or so wide and high over all. */
export type TemplateHole = {
  readonly name: string;
  readonly at_m: Point2;
  readonly size: { readonly diameter_m: number } | { readonly width_m: number; readonly height_m: number };
};

/** Faces smaller than this are lugs and steps that need no card [m²]. */
export const LEAST_FACE_M2 = 4e-4;
/** What is further off than this says nothing about how a template sits [m]. */
const LOOK_M = 0.5;
/** A port whose point lies this near to a face is on it [m]. */
export const ON_FACE_M = 1e-3;
const MOST_DIAGONALS = 6;

/**
 * Templates of every flat face of a tank, largest first: what is cut in card
 * and tried in the real bay before metal is.
 */
export function templatesOf(system: Plan, t: number): Outcome<readonly Template[], FitCode> {
  const tank = system.tanks[t]!;
  const outer = outerMesh(tank);
  if (!outer.ok) return outer;
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  // A spigot stands on another port's plate, and has no hole of its own.
  const cut = [...tank.ports.filter(({ on }) => !on), ...bossPorts(tank).map(({ port }) => port)];
  const holes = cut.flatMap((port) => {
    const point_m = portPoint(outer.value, port);
    return point_m ? [{ port, point_m }] : [];
  });
  return success(
    templatesIn(outer.value, placeOf(tank.mounting), standingRound(scene.value), faceNames, (face) =>
      holes
        .filter(({ point_m }) => Math.abs(dot(face.frame.normal, subtract(point_m, face.frame.origin_m))) < ON_FACE_M)
        .map(({ port, point_m }) => ({
          name: port.name,
          at_m: inFace(point_m, face.frame),
          size: { diameter_m: holeOf_m(port) },
        }))
        .filter(({ at_m }) => insideOutline([face.loops[0]!], at_m)),
    ),
  );
}

/** What can be cut from sheet beside the tanks: brackets, frames, covers, by what they are called. */
export const cutObstacles = ({ fit }: Pick<Plan, 'fit'>): Plan['fit']['obstacles'] =>
  fit.obstacles.filter(({ role }) => isSolid(role));

/** Templates of every flat face of a bracket, a frame or a cover, with the openings that are cut in it. */
export function obstacleTemplates(
  system: Plan,
  obstacle: Plan['fit']['obstacles'][number],
): Outcome<readonly Template[], FitCode> {
  const scene = sceneOf(system);
  if (!scene.ok) return scene;
  const none = chosen(0);
  const home = { x_m: none, y_m: none, z_m: none, yaw_deg: none, pitch_deg: none, roll_deg: none };
  const body = compileObstacle({ ...obstacle, ...home, motions: [] }, 0);
  if (!body.ok) return body;
  const tanks = system.tanks.flatMap((tank) => {
    const outer = outerMesh(tank);
    return outer.ok ? [{ name: tank.name, surface: posedMesh(outer.value, placeOf(tank.mounting)) }] : [];
  });
  const round = [...standingRound(scene.value, obstacle.id), ...tanks];
  return success(
    templatesIn(body.value.surface as ClosedMesh, placeOf(obstacle), round, plateNames, ({ loops }) =>
      loops
        .slice(1)
        .map(openingOf)
        .sort((a, b) => a.at_m[1] - b.at_m[1] || a.at_m[0] - b.at_m[0])
        .map((opening, i) => ({ name: `Opening ${i + 1}`, ...opening })),
    ),
  );
}

type Round = readonly { readonly name: string; readonly surface: Surface }[];

/** Walls of the bay and solid obstacles, but for one. */
const standingRound = ({ bay, obstacles }: FitScene, but?: string): Round => [
  ...(bay ? wallsOf(bay) : []),
  ...obstacles.filter(({ id, role }) => isSolid(role) && id !== but),
];

/** A template of each flat face of a body, which stands at a pose among others. */
function templatesIn(
  body: ClosedMesh,
  at: Pose,
  round: Round,
  namesOf: (normals: readonly Vec3[]) => string[],
  holesOn: (face: FlatFace) => readonly TemplateHole[],
): Template[] {
  const faces = flatFaces(body).filter(({ area_m2 }) => area_m2 > LEAST_FACE_M2);
  const names = namesOf(faces.map(({ frame }) => frame.normal));
  return faces.map((face, i): Template => {
    const [outline] = face.loops as [readonly Point2[]];
    const span = (k: 0 | 1): number => Math.max(...outline.map((point) => point[k]));
    return {
      name: names[i]!,
      loops: face.loops,
      width_m: span(0),
      height_m: span(1),
      area_m2: face.area_m2,
      holes: holesOn(face),
      edges: outline.map((point, from): TemplateEdge => {
        const to = (from + 1) % outline.length;
        const gap = gapBeside(face, point, outline[to]!, (on, way) => nearest(round, placed(at, on), turned(at, way)));
        return { from, to, length_m: apart(point, outline[to]!), ...(gap ? { gap } : {}) };
      }),
      diagonals: diagonalsOf(outline),
    };
  });
}

/** Fewer corners than this are no round hole. */
const ROUND_CORNERS = 12;
/** A round hole's corners lie this near to their circle, as a share of its radius. */
const ROUND_REL = 0.01;

/** An opening by its loop: round where all its corners lie on a circle. */
function openingOf(loop: readonly Point2[]): Omit<TemplateHole, 'name'> {
  const [min, max] = [Math.min, Math.max].map((most) => [0, 1].map((k) => most(...loop.map((point) => point[k]!)))) as [
    number[],
    number[],
  ];
  const at_m: Point2 = [(min[0]! + max[0]!) / 2, (min[1]! + max[1]!) / 2];
  // Facets are set out so that their polygon has the area of the circle.
  const radius = Math.sqrt(Math.abs(signedArea_m2(loop)) / Math.PI);
  const isRound =
    loop.length >= ROUND_CORNERS && loop.every((point) => Math.abs(apart(point, at_m) - radius) < ROUND_REL * radius);
  return {
    at_m,
    size: isRound ? { diameter_m: 2 * radius } : { width_m: max[0]! - min[0]!, height_m: max[1]! - min[1]! },
  };
}

/** A point as it lies in the plane of a face, along and up from its corner [m]. */
export const inFace = (point: Vec3, { origin_m, u, v }: FaceFrame): Point2 => [
  dot(u, subtract(point, origin_m)),
  dot(v, subtract(point, origin_m)),
];
const apart = ([a, b]: Point2, [c, d]: Point2): number => Math.hypot(a - c, b - d);

/** Lengths across that, with the edges, leave the outline no freedom; the longest of them first. */
function diagonalsOf(outline: readonly Point2[]): Template['diagonals'] {
  const all = outline.flatMap((point, from) =>
    outline.flatMap((other, to) =>
      to > from + 1 && !(from === 0 && to === outline.length - 1) ? [{ from, to, length_m: apart(point, other) }] : [],
    ),
  );
  return all.sort((a, b) => b.length_m - a.length_m).slice(0, MOST_DIAGONALS);
}

/** Straight out from the middle of an edge, in the plane of the face: how far to whatever is there. */
function gapBeside(
  { frame }: FlatFace,
  a: Point2,
  b: Point2,
  look: (on: Vec3, way: Vec3) => TemplateEdge['gap'],
): TemplateEdge['gap'] {
  const length = apart(a, b);
  if (length === 0) return undefined;
  // The outline runs counter-clockwise, so that outside lies to its right.
  const out: Point2 = [(b[1] - a[1]) / length, (a[0] - b[0]) / length];
  const way = [0, 1, 2].map((k) => frame.u[k]! * out[0] + frame.v[k]! * out[1]) as unknown as Vec3;
  return look(onFace(frame, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]), way);
}

function nearest(round: Round, from: Vec3, way: Vec3): TemplateEdge['gap'] {
  let best: TemplateEdge['gap'];
  for (const { name, surface } of round) {
    const distance_m = rayCrossings(surface, from, way).find((distance) => distance >= 0);
    if (distance_m !== undefined && distance_m < (best?.distance_m ?? LOOK_M)) best = { to: name, distance_m };
  }
  return best;
}

const SQUARE = 0.97;
const NAMED: readonly (readonly [string, Vec3])[] = [
  ['Lid', [0, 0, 1]],
  ['Floor', [0, 0, -1]],
  ['Fore side', [1, 0, 0]],
  ['Aft side', [-1, 0, 0]],
  ['Port side', [0, 1, 0]],
  ['Starboard side', [0, -1, 0]],
];
const LEANINGS = [
  ['forward', 'aft'],
  ['to port', 'to starboard'],
  ['up', 'down'],
] as const;

/** What has no lid. */
const OF_PLATES: Readonly<Record<string, string>> = { Lid: 'Top', Floor: 'Underside' };

/** A face of a bracket, a frame or a cover by the way it looks. */
const plateNames = (normals: readonly Vec3[]): string[] =>
  faceNames(normals).map((name) => name.replace(/^(Lid|Floor)/, (word) => OF_PLATES[word]!));

/** A face by the way it looks in the tank's frame; several of one name are numbered, largest first. */
export function faceNames(normals: readonly Vec3[]): string[] {
  const plain = normals.map((normal) => {
    const square = NAMED.find(([, way]) => dot(way, normal) > SQUARE);
    if (square) return square[0];
    const directions = LEANINGS.flatMap(([plus, minus], k) =>
      Math.abs(normal[k]!) > 0.2 ? [{ word: normal[k]! > 0 ? plus : minus, size: Math.abs(normal[k]!) }] : [],
    ).sort((a, b) => b.size - a.size);
    return `Slope facing ${directions.map(({ word }) => word).join(' and ')}`;
  });
  return plain.map((name, i) => {
    const same = plain.filter((other) => other === name).length;
    return same === 1 ? name : `${name} ${plain.slice(0, i + 1).filter((other) => other === name).length}`;
  });
}

/** The same template for the other side: turned over left for right. */
export function mirrored(template: Template): Template {
  const flip = ([a, b]: Point2): Point2 => [template.width_m - a, b];
  return {
    ...template,
    loops: template.loops.map((loop) => loop.map(flip)),
    holes: template.holes.map((hole) => ({ ...hole, at_m: flip(hole.at_m) })),
  };
}
