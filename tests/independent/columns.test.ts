import { describe, it } from 'vitest';
import fc from 'fast-check';
import { boxMesh, prismMesh, vesselMesh, volumeBelow, worldUpInVehicle, type Point2, type Vec3 } from '@/core/geometry';
import { unwrap } from '@/core/outcome';
import { expectClose } from '../expectClose';

/**
 * An independent, coarser way to the same volumes: the tank is cut into thin
 * columns and the liquid's depth in each is found by plain trigonometry.
 * Settings: 200 x 200 columns, midpoint rule.
 */
const COLUMNS = 200;

/** Volume below the plane up . p = offset, of a body whose floor and lid over (x, y) are known. */
function byColumns(
  length: number,
  width: number,
  bounds: (x: number, y: number) => readonly [number, number] | undefined,
  up: Vec3,
  offset: number,
): number {
  let sum = 0;
  const [dx, dy] = [length / COLUMNS, width / COLUMNS];
  for (let i = 0; i < COLUMNS; i++) {
    for (let j = 0; j < COLUMNS; j++) {
      const [x, y] = [(i + 0.5) * dx, (j + 0.5) * dy];
      const column = bounds(x, y);
      if (!column) continue;
      const surface = (offset - up[0] * x - up[1] * y) / up[2];
      sum += Math.max(0, Math.min(surface, column[1]) - column[0]) * dx * dy;
    }
  }
  return sum;
}

const attitude = fc.record({
  pitch: fc.double({ min: -0.5, max: 0.5, noNaN: true }),
  roll: fc.double({ min: -0.5, max: 0.5, noNaN: true }),
  share: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
});

/** A level that lies between the corners at this attitude. */
const levelAt = (up: Vec3, size: Vec3, share: number): number => {
  const corners = [0, 1].flatMap((x) =>
    [0, 1].flatMap((y) => [0, 1].map((z) => up[0] * x * size[0] + up[1] * y * size[1] + up[2] * z * size[2])),
  );
  return Math.min(...corners) + share * (Math.max(...corners) - Math.min(...corners));
};

describe('volumes against thin columns', () => {
  it('a box at any pitch and roll', () => {
    const size: Vec3 = [1.1, 0.6, 0.4];
    const mesh = boxMesh(...size);
    fc.assert(
      fc.property(attitude, ({ pitch, roll, share }) => {
        const up = worldUpInVehicle(pitch, roll);
        const offset_m = levelAt(up, size, share);
        expectClose(
          volumeBelow(mesh, { normal: up, offset_m }),
          byColumns(size[0], size[1], () => [0, size[2]], up, offset_m),
          { abs: 2e-4 * 0.264, why: 'midpoint rule of 200 x 200 columns' },
        );
      }),
      { seed: 21, numRuns: 25 },
    );
  });

  it('a V-bottom at any pitch and roll', () => {
    const profile: Point2[] = [
      [0, 0.12],
      [0.3, 0],
      [0.6, 0.12],
      [0.6, 0.4],
      [0, 0.4],
    ];
    const mesh = unwrap(prismMesh(profile, 'x', 1));
    fc.assert(
      fc.property(attitude, ({ pitch, roll, share }) => {
        const up = worldUpInVehicle(pitch, roll);
        const offset_m = levelAt(up, [1, 0.6, 0.4], share);
        const floor = (_: number, y: number) => [0.12 * Math.abs(1 - y / 0.3), 0.4] as const;
        expectClose(volumeBelow(mesh, { normal: up, offset_m }), byColumns(1, 0.6, floor, up, offset_m), {
          abs: 3e-4 * 0.2,
          why: 'midpoint rule of 200 x 200 columns',
        });
      }),
      { seed: 22, numRuns: 25 },
    );
  });

  it('a stepped tank whose deep part drains last', () => {
    const mesh = unwrap(
      prismMesh(
        [
          [0, 0.2],
          [0.5, 0.2],
          [0.5, 0],
          [0.9, 0],
          [0.9, 0.45],
          [0, 0.45],
        ],
        'y',
        0.5,
      ),
    );
    fc.assert(
      fc.property(attitude, ({ pitch, roll, share }) => {
        const up = worldUpInVehicle(pitch, roll);
        const offset_m = levelAt(up, [0.9, 0.5, 0.45], share);
        expectClose(
          volumeBelow(mesh, { normal: up, offset_m }),
          byColumns(0.9, 0.5, (x) => [x < 0.5 ? 0.2 : 0, 0.45], up, offset_m),
          { abs: 2e-3 * 0.15, why: 'the step falls between two columns' },
        );
      }),
      { seed: 23, numRuns: 25 },
    );
  });

  it('a lying cylinder with half balls for ends, tilted: within the promised 0.05 %', () => {
    const [r, shell] = [0.25, 0.7];
    const mesh = unwrap(
      vesselMesh({ radius_m: r, shell_m: shell, axis: 'x', nearEnd: 'hemispherical', farEnd: 'hemispherical' }),
    );
    const whole = Math.PI * r * r * shell + (4 / 3) * Math.PI * r ** 3;
    const half = (x: number, y: number) => {
      const beyond = Math.max(0, r - x, x - (r + shell));
      const radius = Math.sqrt(Math.max(0, r * r - beyond * beyond));
      const across = y - r;
      if (Math.abs(across) >= radius) return undefined;
      const height = Math.sqrt(radius * radius - across * across);
      return [r - height, r + height] as const;
    };
    fc.assert(
      fc.property(attitude, ({ pitch, roll, share }) => {
        const up = worldUpInVehicle(pitch, roll);
        const offset_m = levelAt(up, [shell + 2 * r, 2 * r, 2 * r], share);
        expectClose(volumeBelow(mesh, { normal: up, offset_m }), byColumns(shell + 2 * r, 2 * r, half, up, offset_m), {
          abs: 1e-3 * whole,
          why: 'promise of 0.05 %, and as much again for the columns',
        });
      }),
      { seed: 24, numRuns: 25 },
    );
  });
});
