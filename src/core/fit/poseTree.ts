import { placed, type Pose } from '../geometry';
import type { Part } from './moves';
import type { Chance } from '../seeded';

/** A position that a growing tree has reached, and from where. */
export type Node = { readonly pose: Pose; readonly parent: Node | undefined };

/** Nodes with where their middles are and how they are turned, in flat arrays: the nearest is looked for often. */
export class Tree {
  private readonly nodes: Node[] = [];
  private places = new Float64Array(7 * 1024);

  constructor(
    private readonly part: Part,
    private readonly radius_m: number,
  ) {}

  add(pose: Pose, parent?: Node): Node {
    const node = { pose, parent };
    const at = 7 * this.nodes.length;
    if (at === this.places.length) {
      const larger = new Float64Array(2 * at);
      larger.set(this.places);
      this.places = larger;
    }
    this.places.set(placed(pose, this.part.middle_m), at);
    this.places.set(quaternionOf(pose), at + 3);
    this.nodes.push(node);
    return node;
  }

  /** Any of them, by chance. */
  any(chance: Chance): Node {
    return this.nodes[Math.floor(chance.uniform() * this.nodes.length)]!;
  }

  nearest(pose: Pose): Node {
    const [x, y, z] = placed(pose, this.part.middle_m);
    const [qw, qx, qy, qz] = quaternionOf(pose);
    const turning = 8 * this.radius_m ** 2;
    const p = this.places;
    let [best, least] = [0, Infinity];
    for (let n = 0, i = 0; n < this.nodes.length; n++, i += 7) {
      const alike = Math.abs(p[i + 3]! * qw + p[i + 4]! * qx + p[i + 5]! * qy + p[i + 6]! * qz);
      const gap = (p[i]! - x) ** 2 + (p[i + 1]! - y) ** 2 + (p[i + 2]! - z) ** 2 + turning * (1 - alike);
      if (gap < least) [best, least] = [n, gap];
    }
    return this.nodes[best]!;
  }
}

/** The turn of a pose as a unit quaternion. @source K. Shoemake, SIGGRAPH 1985, from the largest of the four parts */
function quaternionOf({
  axes: [[xx, xy, xz], [yx, yy, yz], [zx, zy, zz]],
}: Pose): readonly [number, number, number, number] {
  const parts = [1 + xx + yy + zz, 1 + xx - yy - zz, 1 - xx + yy - zz, 1 - xx - yy + zz];
  const largest = parts.reduce((best, part, k) => (part > parts[best]! ? k : best), 0);
  const rows = [
    [parts[0]!, yz - zy, zx - xz, xy - yx],
    [yz - zy, parts[1]!, xy + yx, zx + xz],
    [zx - xz, xy + yx, parts[2]!, yz + zy],
    [xy - yx, zx + xz, yz + zy, parts[3]!],
  ][largest]!;
  const half = 2 * Math.sqrt(parts[largest]!);
  return [rows[0]! / half, rows[1]! / half, rows[2]! / half, rows[3]! / half];
}
