import { vertex, type ClosedMesh } from './mesh';
import { trianglePlanes } from './planes';
import { add, cross, dot, norm, scale, subtract, unitVector, type Vec3 } from './vec';

/** Facets of a curve meet flatter than this [rad]; where faces meet sharper there is an edge. */
export const CREASE_RAD = (20 * Math.PI) / 180;

export type EdgeSums = {
  /** Length of all edges at which faces meet sharply [m]: what is folded or welded. */
  readonly crease_m: number;
  /** Lengths of all edges times the tangent of half the angle by which the surface turns outward there [m]. */
  readonly turning_m: number;
};

/** Calls for each edge that two triangles share, along the later one; both triangles by number. */
export function forEachEdge(
  mesh: ClosedMesh,
  look: (from: number, to: number, here: number, there: number) => void,
): void {
  const count = mesh.positions.length / 3;
  const first = new Map<number, number>();
  for (let i = 0; i < mesh.triangles.length; i++) {
    const [from, to] = [mesh.triangles[i]!, mesh.triangles[i % 3 === 2 ? i - 2 : i + 1]!];
    const key = Math.min(from, to) * count + Math.max(from, to);
    const here = Math.floor(i / 3);
    const there = first.get(key);
    if (there === undefined) first.set(key, here);
    else look(from, to, here, there);
  }
}

/** What all edges of a body come to together. */
export function edgeSums(mesh: ClosedMesh): EdgeSums {
  const planes = trianglePlanes(mesh);
  let [crease_m, turning_m] = [0, 0];
  forEachEdge(mesh, (from, to, here, there) => {
    const [mine, theirs] = [planes[here]?.normal, planes[there]?.normal];
    if (!mine || !theirs) return;
    const edge = subtract(vertex(mesh, to), vertex(mesh, from));
    const length = norm(edge);
    const cosine = dot(theirs, mine);
    // Along its own edge the later triangle runs to the left of it: normals that turn against the edge bend outward.
    const sine = dot(edge, cross(mine, theirs)) / length;
    turning_m += length * Math.tan(Math.atan2(sine, cosine) / 2);
    if (cosine < Math.cos(CREASE_RAD)) crease_m += length;
  });
  return { crease_m, turning_m };
}

/** A place on a sharp edge: the unit vector along it, and the one midway between its faces' normals. */
export type Seam = {
  readonly foot_m: Vec3;
  readonly along: Vec3;
  readonly out: Vec3;
  /** Whether the faces meet in a recess rather than on a corner. */ readonly isRecess: boolean;
};

/** The sharp edge of a body that comes nearest to a point, where it does; undefined for a body without any. */
export function nearestSeam(mesh: ClosedMesh, point: Vec3): Seam | undefined {
  const planes = trianglePlanes(mesh);
  let best: Seam | undefined;
  let least = Infinity;
  forEachEdge(mesh, (from, to, here, there) => {
    const [mine, theirs] = [planes[here]?.normal, planes[there]?.normal];
    if (!mine || !theirs || dot(theirs, mine) >= Math.cos(CREASE_RAD)) return;
    const a = vertex(mesh, from);
    const edge = subtract(vertex(mesh, to), a);
    const share = Math.min(1, Math.max(0, dot(subtract(point, a), edge) / dot(edge, edge)));
    const foot_m = add(a, scale(edge, share));
    const away = norm(subtract(foot_m, point));
    const sum = add(theirs, mine);
    if (away >= least || norm(sum) < CREASE_RAD) return; // sheet folded flat upon itself has no side to come from
    least = away;
    best = { foot_m, along: unitVector(edge), out: unitVector(sum), isRecess: dot(edge, cross(mine, theirs)) < 0 };
  });
  return best;
}
