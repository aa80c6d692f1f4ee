import { tankAxes, type Mounting } from './attitude';
import type { ClosedMesh } from './mesh';
import { add, cross, dot, norm, scale, subtract, unitVector, type Vec3 } from './vec';

/**
 * Where a rigid body stands: the images of its own axes, and its origin [m], in
 * some outer frame.
 */
export type Pose = { readonly axes: readonly [Vec3, Vec3, Vec3]; readonly origin_m: Vec3 };

export const AT_HOME: Pose = {
  axes: [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  origin_m: [0, 0, 0],
};

/** A body whose origin stands at a point, turned by yaw, then pitch, then roll. */
export const poseOf = (origin_m: Vec3, mounting: Mounting): Pose => ({ axes: tankAxes(mounting), origin_m });

/** A direction of the body, seen from outside. */
export const turned = ({ axes }: Pose, [x, y, z]: Vec3): Vec3 => [
  x * axes[0][0] + y * axes[1][0] + z * axes[2][0],
  x * axes[0][1] + y * axes[1][1] + z * axes[2][1],
  x * axes[0][2] + y * axes[1][2] + z * axes[2][2],
];

/** A point of the body, seen from outside. */
export const placed = (pose: Pose, point: Vec3): Vec3 => add(turned(pose, point), pose.origin_m);

/** A direction from outside, seen from the body. */
export const turnedBack = ({ axes }: Pose, direction: Vec3): Vec3 => [
  dot(axes[0], direction),
  dot(axes[1], direction),
  dot(axes[2], direction),
];

/** A point from outside, seen from the body. */
export const placedBack = (pose: Pose, point: Vec3): Vec3 => turnedBack(pose, subtract(point, pose.origin_m));

/** First `inner`, then `outer`. */
export const composed = (outer: Pose, inner: Pose): Pose => ({
  axes: [turned(outer, inner.axes[0]), turned(outer, inner.axes[1]), turned(outer, inner.axes[2])],
  origin_m: placed(outer, inner.origin_m),
});

/** The pose of a body as another body sees it. */
export const seenFrom = (viewer: Pose, body: Pose): Pose => ({
  axes: [turnedBack(viewer, body.axes[0]), turnedBack(viewer, body.axes[1]), turnedBack(viewer, body.axes[2])],
  origin_m: placedBack(viewer, body.origin_m),
});

/** A pose that is shifted and not turned [m]. */
export const shiftBy = (by_m: Vec3): Pose => ({ ...AT_HOME, origin_m: by_m });

/**
 * A turn about an axis through a point, right-handed.
 * @param direction of the axis, not zero
 * @source Rodrigues' rotation formula
 */
export function turnAbout(point_m: Vec3, direction: Vec3, angle_rad: number): Pose {
  const k = unitVector(direction);
  const [c, s] = [Math.cos(angle_rad), Math.sin(angle_rad)];
  const image = (v: Vec3): Vec3 => add(add(scale(v, c), scale(cross(k, v), s)), scale(k, dot(k, v) * (1 - c)));
  const axes = [image([1, 0, 0]), image([0, 1, 0]), image([0, 0, 1])] as const;
  return { axes, origin_m: subtract(point_m, turned({ axes, origin_m: [0, 0, 0] }, point_m)) };
}

/** A pose at a point whose z axis runs along a direction, not zero; x as near as may be to another. */
export function frameAlong(origin_m: Vec3, along: Vec3, towards?: Vec3): Pose {
  const z = unitVector(along);
  const hint =
    towards && norm(cross(towards, z)) > PARALLEL
      ? towards
      : Math.abs(z[0]) < 0.9
        ? ([1, 0, 0] as const)
        : ([0, 1, 0] as const);
  const y = unitVector(cross(z, hint));
  return { axes: [cross(y, z), y, z], origin_m };
}
const PARALLEL = 1e-9;

/** A surface as it stands in the outer frame. */
export function posedMesh<T extends Pick<ClosedMesh, 'positions' | 'triangles'>>(mesh: T, pose: Pose): T {
  const { positions } = mesh;
  const { axes, origin_m } = pose;
  const moved = new Float64Array(positions.length);
  for (let i = 0; i < positions.length; i += 3)
    for (let k = 0; k < 3; k++)
      moved[i + k] =
        positions[i]! * axes[0][k]! + positions[i + 1]! * axes[1][k]! + positions[i + 2]! * axes[2][k]! + origin_m[k]!;
  return { ...mesh, positions: moved };
}
