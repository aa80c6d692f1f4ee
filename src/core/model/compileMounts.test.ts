import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { boxMesh, distance, meshVolume, parseMesh, vesselMesh, type ClosedMesh, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { chosen } from '../schema/known';
import { strapWay } from './compileMounts';
import { mountBodies } from './mountBodies';

const BOX = boxMesh(1, 0.5, 0.4);
const lengthOf = (way: readonly Vec3[]): number =>
  way.reduce((sum, p, i) => sum + (i === 0 ? 0 : distance(p, way[i - 1]!)), 0);
const over = (outer: ClosedMesh, at: Vec3, splay: number, runs: 'across' | 'along' | 'round' = 'across') =>
  strapWay(outer, at, { runs, side: runs === 'round' ? 'aft' : 'down', splay_m: chosen(splay) });

describe('the way of a strap, by hand', () => {
  it('up, over and down a box; leaning where its ends stand off, and clear of the corner where they reach it', () => {
    expectClose(lengthOf(over(BOX, [0.3, 0.25, 0], 0)!), 0.4 + 0.5 + 0.4, { rel: 1e-6, why: 'three sides' });
    expectClose(lengthOf(over(BOX, [0.3, 0.25, 0], 0.3)!), 0.5 + 0.5 + 0.5, {
      rel: 1e-6,
      why: '3, 4, 5 on both sides',
    });
    expectClose(lengthOf(over(BOX, [0.3, 0.25, 0], 0, 'along')!), 0.4 + 1 + 0.4, { rel: 1e-6, why: 'lengthwise' });
    // Held on the aft side: forward along one side, across the front and back.
    expectClose(lengthOf(over(BOX, [0, 0.25, 0.2], 0, 'round')!), 1 + 0.5 + 1, { rel: 1e-6, why: 'level' });
    // Held part of the way along, or up: from there on; held below it, down to there.
    expectClose(lengthOf(over(BOX, [0.3, 0.25, 0.2], 0, 'round')!), 0.7 + 0.5 + 0.7, {
      rel: 1e-4,
      why: 'from part way',
    });
    expectClose(lengthOf(over(BOX, [0.3, 0.25, 0.1], 0.4)!), 0.5 + 0.5 + 0.5, { rel: 1e-6, why: '3, 4, 5, held up' });
    expectClose(lengthOf(over(BOX, [0.3, 0.25, -0.2], 0.8)!), 1 + 0.5 + 1, { rel: 1e-6, why: '3, 4, 5, held below' });
  });

  it('over a drum half round and straight down, and as a tangent to ends that stand off', () => {
    const r = 0.3;
    const drum = unwrap(vesselMesh({ axis: 'x', radius_m: r, shell_m: 1, nearEnd: 'flat', farEnd: 'flat' }));
    const at: Vec3 = [0.5, r, 0];
    expectClose(lengthOf(over(drum, at, 0)!), Math.PI * r + 2 * r, { rel: 2e-3, why: 'facets for a round' });
    // From (d, 0) beside a circle about (0, r): the tangent, and the arc that is left.
    const d = 0.5;
    const far = Math.hypot(d, r);
    const tangent = Math.sqrt(far ** 2 - r ** 2);
    const arc = 2 * Math.PI - 2 * (Math.atan2(d, r) + Math.acos(r / far));
    expectClose(lengthOf(over(drum, at, d - r)!), 2 * tangent + arc * r, { rel: 2e-3, why: 'tangents and arc' });
    // Its band is a sound body, though the section has facets that hardly turn.
    const made = {
      runs: 'across',
      side: 'down',
      stock: 'mild-steel',
      width_m: chosen(0.04),
      thickness_m: chosen(0.002),
      tension_N: chosen(0),
      splay_m: chosen(0.03),
      bolts: { count: 1, size: 'M8', class: '8.8', held: 'nut', edge_m: chosen(0.02) },
      bears: { stock: 'mild-steel', thickness_m: chosen(0.004) },
      pad: { of: 'rubber', thickness_m: chosen(0.004) },
    } as const;
    const mount = {
      id: 's',
      name: 's',
      kind: 'strap',
      tank: 't',
      x_m: chosen(0),
      y_m: chosen(0),
      z_m: chosen(0),
      made,
    } as const;
    // Length, breadth and thickness of the strap with its pad, and two feet of twice the edge.
    for (const x of [0.1, 0.313, 0.5, 0.87]) {
      const bodies = mountBodies(drum, [x, r, 0], mount);
      const volume = bodies.reduce(
        (sum, body) => sum + meshVolume(unwrap(parseMesh(body.positions, body.triangles))),
        0,
      );
      const way_m = lengthOf(over(drum, [x, r, 0], 0.03)!);
      // Where it hangs free it tapers to the strap alone.
      const most = 0.04 * (0.006 * way_m + 2 * 0.002 * 0.04);
      expect(volume).toBeLessThan(1.02 * most);
      expect(volume).toBeGreaterThan(0.8 * most);
    }
  });

  it('past the tank, or held where it runs, it has none', () => {
    expect(over(BOX, [1.2, 0.25, 0], 0)).toBeUndefined();
    expect(over(BOX, [0.3, 0.25, 0.41], 0)).toBeUndefined();
    expect(strapWay(BOX, [0.3, 0.25, 0.2], { runs: 'round', side: 'down', splay_m: chosen(0) })).toBeUndefined();
  });
});
