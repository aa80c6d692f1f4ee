import Module from 'manifold-3d';
import { meshVolume, revolvedMesh, unitVector, volumeBelow, type ClosedMesh, type Vec3 } from '../src/core/geometry';
import type { Bench } from './measure';

/** A dished lying vessel of about 5,000 triangles. */
export function largeMesh(): ClosedMesh {
  const steps = 26;
  const end = Array.from({ length: steps + 1 }, (_, i): [number, number] => [
    0.2 * Math.sin((Math.PI / 2) * (i / steps)),
    i === steps ? 0 : 0.4 * Math.cos((Math.PI / 2) * (i / steps)),
  ]);
  const meridian = [
    ...end.map(([along, radius]): [number, number] => [-along, radius]).reverse(),
    ...end.map(([along, radius]): [number, number] => [1 + along, radius]),
  ];
  return revolvedMesh(meridian, 'x', 48);
}

const QUERIES = 200;
const GOAL_RATIO = 200;

/** One volume below a tilted plane: ours against the kernel's own cut and measure, same mesh, same planes. */
export const volumeQuery: Bench = {
  name: 'volume-query-5000',
  async run() {
    const mesh = largeMesh();
    const planes = Array.from({ length: QUERIES }, (_, i) => {
      const normal = unitVector([Math.sin(i) * 0.3, Math.cos(2 * i) * 0.3, 1] as Vec3);
      return { normal, offset_m: 0.2 + 0.4 * ((i * 0.618) % 1) };
    });
    const kernel = await Module();
    kernel.setup();
    const solid = kernel.Manifold.ofMesh(
      new kernel.Mesh({
        numProp: 3,
        vertProperties: Float32Array.from(mesh.positions),
        triVerts: Uint32Array.from(mesh.triangles),
      }),
    );
    const ours = (): number[] => planes.map((plane) => volumeBelow(mesh, plane));
    const theirs = (): number[] =>
      planes.map(({ normal, offset_m }) => {
        // The kernel keeps what lies along the normal: turn the plane round.
        const below = solid.trimByPlane([-normal[0], -normal[1], -normal[2]], -offset_m);
        const volume = below.volume();
        below.delete();
        return volume;
      });
    const agree = compare(ours(), theirs(), meshVolume(mesh));
    const [mine_us, kernel_us] = [timed(ours), timed(theirs)];
    solid.delete();
    const ratio = Number((kernel_us / mine_us).toFixed(1));
    return {
      name: 'volume-query-5000',
      value: Number(mine_us.toFixed(1)),
      unit: 'µs a query',
      ratio,
      goal: GOAL_RATIO,
      met: agree && ratio >= GOAL_RATIO,
      reference: `kernel's cut and measure ${kernel_us.toFixed(0)} µs, ${mesh.triangles.length / 3} triangles, results ${agree ? 'agree' : 'DIFFER'}; goal is the ratio`,
    };
  },
};

/** The kernel works in single precision: agreement to a hundred-thousandth of the whole is all it can give. */
const compare = (a: readonly number[], b: readonly number[], whole: number): boolean =>
  a.every((value, i) => Math.abs(value - b[i]!) <= 1e-5 * whole);

/** Median of some rounds, after one to warm up [µs a query]. */
function timed(work: () => unknown): number {
  work();
  const rounds = Array.from({ length: 7 }, () => {
    const from = performance.now();
    work();
    return ((performance.now() - from) * 1000) / QUERIES;
  }).sort((x, y) => x - y);
  return rounds[3]!;
}
