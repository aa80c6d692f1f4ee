import { placed, turnAbout } from './pose';
import { add, cross, dot, norm, scale, subtract, unitVector, type Vec3 } from './vec';

/** Corners that turn by less are taken as straight on [rad]. */
const STRAIGHT_RAD = 0.02;

/**
 * A way through points with every corner rounded to a radius, its arcs as short straight pieces.
 *
 * @param points   at least two, in order [m]
 * @param bend_m   radius of the bends, to the middle of the line
 * @param most_rad each piece of an arc turns by no more
 * @returns points; a corner too close to the next is rounded as far as half of the shorter side goes, and one that
 *   turns straight back is left sharp
 * @source tangent R tan(a/2): plane trigonometry, as in any bender's manual
 */
export function roundedWay(points: readonly Vec3[], bend_m: number, most_rad: number): Vec3[] {
  const apart = points.filter((point, i) => i === 0 || norm(subtract(point, points[i - 1]!)) > 0);
  return apart.flatMap((corner, i): Vec3[] => {
    const [before, after] = [apart[i - 1], apart[i + 1]];
    if (!before || !after) return [corner];
    const [come, go] = [subtract(corner, before), subtract(after, corner)];
    const [u, v] = [unitVector(come), unitVector(go)];
    const angle = Math.acos(Math.min(1, Math.max(-1, dot(u, v))));
    if (angle < STRAIGHT_RAD || angle > Math.PI - STRAIGHT_RAD) return [corner];
    const tangent = Math.min(bend_m * Math.tan(angle / 2), Math.min(norm(come), norm(go)) / 2);
    const radius = tangent / Math.tan(angle / 2);
    const middle = add(corner, scale(unitVector(subtract(v, u)), radius / Math.cos(angle / 2)));
    const start = subtract(corner, scale(u, tangent));
    const pieces = Math.ceil(angle / most_rad);
    return Array.from({ length: pieces + 1 }, (_, k) =>
      placed(turnAbout(middle, cross(u, v), (angle * k) / pieces), start),
    );
  });
}
