import { worldUpInVehicle } from '../src/core/geometry';
import { attitudeMap, symmetricSteps } from '../src/core/tank';
import { percentile, type Bench } from './measure';
import { largeMesh } from './volumeQuery';

const ROUNDS = 7;
const GOAL_S = 0.3;

/** A 61 x 61 map of what a pickup leaves behind in a tank of 5,000 triangles, as a worker computes it. */
export const attitudeMap61: Bench = {
  name: 'attitude-map-61',
  async run() {
    const mesh = largeMesh();
    const axis = symmetricSteps(30, 61);
    const radians = (deg: number): number => (deg * Math.PI) / 180;
    const times = Array.from({ length: ROUNDS }, () => {
      const from = performance.now();
      attitudeMap({ mesh }, [{ point_m: [0.4, 0.4, 0.03], submergence_m: 0.005 }], axis, axis, (roll, pitch) =>
        worldUpInVehicle(radians(pitch), radians(roll)),
      );
      return (performance.now() - from) / 1000;
    });
    const value = Number(percentile(times, 0.5).toFixed(3));
    return {
      name: 'attitude-map-61',
      value,
      unit: 's',
      reference: `${mesh.triangles.length / 3} triangles, 3,721 attitudes, median of ${ROUNDS}`,
      ratio: null,
      goal: GOAL_S,
      met: value < GOAL_S,
    };
  },
};
