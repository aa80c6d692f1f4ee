import { AT_HOME, posedMesh, shiftBy, boxMesh, vesselMesh, type Vec3 } from '../src/core/geometry';
import { clearanceTo, seeded, type Obstacle } from '../src/core/fit';
import { unwrap } from '../src/core/outcome';
import { percentile, type Bench } from './measure';
import { largeMesh } from './volumeQuery';

const OBSTACLES = 20;
const ROUNDS = 15;
/** A worker has run it before. */
const WARM_UP = 5;
const GOAL_MS = 15;

/** A tank of 5,000 triangles against 20 obstacles round it, boxes and pipes, none of which has been seen before. */
export const clearance20: Bench = {
  name: 'clearance-20',
  async run() {
    const surface = largeMesh();
    const times = Array.from({ length: WARM_UP + ROUNDS }, (_, round) => {
      const standing = obstacles(round);
      const body = {
        id: 'tank',
        name: 'Tank',
        at: AT_HOME,
        pieces: [{ id: 'tank', name: 'Tank', surface: { ...surface } }],
      };
      const from = performance.now();
      for (const obstacle of standing) clearanceTo(body, obstacle);
      return performance.now() - from;
    }).slice(WARM_UP);
    const value = Number(percentile(times, 0.5).toFixed(1));
    return {
      name: 'clearance-20',
      value,
      unit: 'ms',
      ratio: null,
      goal: GOAL_MS,
      met: value <= GOAL_MS,
      reference: `${surface.triangles.length / 3} triangles, ${OBSTACLES} obstacles, sorting of the tank's triangles included, median of ${ROUNDS}, warm`,
    };
  },
};

function obstacles(round: number): Obstacle[] {
  const chance = seeded(round + 1);
  return Array.from({ length: OBSTACLES }, (_, i) => {
    const angle = (2 * Math.PI * i) / OBSTACLES;
    const at: Vec3 = [
      -0.3 + 1.6 * chance.uniform(),
      0.4 + 0.6 * Math.cos(angle) - 0.05,
      0.4 + 0.6 * Math.sin(angle) - 0.05,
    ];
    const shape =
      i % 2
        ? boxMesh(0.1, 0.1, 0.1)
        : unwrap(vesselMesh({ radius_m: 0.04, shell_m: 0.3, axis: 'x', nearEnd: 'flat', farEnd: 'flat' }));
    return {
      id: `obstacle-${i}`,
      name: `Obstacle ${i}`,
      role: 'obstacle',
      surface: posedMesh(shape, shiftBy(at)),
      motions: [],
      keep_m: 0,
      removable: false,
    };
  });
}
