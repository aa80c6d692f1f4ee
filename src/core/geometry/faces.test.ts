import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import {
  boxMesh,
  combine,
  flatFaces,
  insetMesh,
  meshArea,
  meshVolume,
  onFace,
  posedMesh,
  poseOf,
  prismMesh,
  rodMesh,
  shiftBy,
  signedArea_m2,
  vesselMesh,
  type FlatFace,
} from '.';

const facing = (faces: readonly FlatFace[], axis: 0 | 1 | 2, side: 1 | -1): FlatFace =>
  faces.find(({ frame }) => frame.normal[axis] * side > 0.99)!;
const size = ({ loops }: FlatFace): number[] => [0, 1].map((k) => Math.max(...loops[0]!.map((point) => point[k]!)));

describe('flat faces', () => {
  it('of a box: six, each with its sizes, to the right and up as seen from outside', () => {
    const faces = flatFaces(boxMesh(0.6, 0.4, 0.3));
    expect(faces).toHaveLength(6);
    // Lid: forward is up on the sheet, starboard to the right.
    const lid = facing(faces, 2, 1);
    size(lid).forEach((value, k) => expectClose(value, [0.4, 0.6][k]!, { rel: 1e-9, why: 'width across, length up' }));
    expect(lid.frame.u[1]).toBeCloseTo(-1, 12);
    // The port side is looked at from port: forward is to the left.
    const port = facing(faces, 1, 1);
    size(port).forEach((value, k) =>
      expectClose(value, [0.6, 0.3][k]!, { rel: 1e-9, why: 'length across, height up' }),
    );
    expect(port.frame.u[0]).toBeCloseTo(-1, 12);
    for (const face of faces) expect(signedArea_m2(face.loops[0]!)).toBeGreaterThan(0);
  });

  it('a corner on the sheet is that corner of the body', () => {
    const port = facing(flatFaces(posedMesh(boxMesh(0.6, 0.4, 0.3), shiftBy([1, 2, 3]))), 1, 1);
    expect(onFace(port.frame, [0, 0]).map((value) => Math.round(value * 1e9) / 1e9)).toEqual([1.6, 2.4, 3]);
    expect(onFace(port.frame, [0.6, 0.3]).map((value) => Math.round(value * 1e9) / 1e9)).toEqual([1, 2.4, 3.3]);
  });

  it('a step and a hole: outline with its corners, hole as a loop of its own', () => {
    const stepped = unwrap(
      combine(boxMesh(0.6, 0.4, 0.3), posedMesh(boxMesh(0.3, 0.5, 0.2), shiftBy([0.4, -0.05, 0.2])), 'take'),
    );
    const holed = unwrap(combine(stepped, posedMesh(boxMesh(0.1, 0.5, 0.05), shiftBy([0.1, -0.05, 0.1])), 'take'));
    const port = facing(flatFaces(holed), 1, 1);
    expect(port.loops.map((loop) => loop.length)).toEqual([6, 4]);
    expectClose(port.area_m2, 0.6 * 0.3 - 0.2 * 0.1 - 0.1 * 0.05, { rel: 1e-6, why: 'step and hole taken off' });
    expectClose(signedArea_m2(port.loops[0]!) + signedArea_m2(port.loops[1]!), port.area_m2, {
      rel: 1e-6,
      why: 'the hole runs the other way',
    });
  });

  it('flat faces of a body of flat walls make up its whole surface, turned any way', () => {
    const prism = unwrap(
      prismMesh(
        [
          [0, 0],
          [0.5, 0.1],
          [0.4, 0.4],
          [0.1, 0.35],
        ],
        'x',
        0.8,
      ),
    );
    for (const yaw_rad of [0, 0.4, 1.9]) {
      const faces = flatFaces(posedMesh(prism, poseOf([0.3, -0.2, 0.1], { yaw_rad, pitch_rad: 0.3, roll_rad: -0.7 })));
      expect(faces).toHaveLength(6);
      expectClose(
        faces.reduce((sum, { area_m2 }) => sum + area_m2, 0),
        meshArea(prism),
        { rel: 1e-9, why: 'every face once' },
      );
    }
  });

  it('a drum has two flat ends and no other; a flat between two rounds stays', () => {
    const drum = flatFaces(
      unwrap(vesselMesh({ radius_m: 0.3, shell_m: 1, axis: 'x', nearEnd: 'flat', farEnd: 'flat' })),
    );
    expect(drum).toHaveLength(2);
    expectClose(drum[0]!.area_m2, Math.PI * 0.09, { rel: 2e-3, why: 'facets of the round' });
    expect(
      flatFaces(
        unwrap(vesselMesh({ radius_m: 0.3, shell_m: 1, axis: 'x', nearEnd: 'torispherical', farEnd: 'torispherical' })),
      ),
    ).toEqual([]);
    const round = Array.from({ length: 25 }, (_, i) => (Math.PI * i) / 24);
    const stadium = unwrap(
      prismMesh(
        [
          ...round.map((angle) => [0.3 + 0.1 * Math.sin(angle), 0.1 - 0.1 * Math.cos(angle)] as const),
          ...round.map((angle) => [0.1 - 0.1 * Math.sin(angle), 0.1 + 0.1 * Math.cos(angle)] as const),
        ],
        'x',
        0.5,
      ),
    );
    expect(flatFaces(stadium)).toHaveLength(4);
  });

  it('a gentle bend between two sides leaves both flat', () => {
    // 10° between the floor's halves.
    const prism = unwrap(
      prismMesh(
        [
          [0, 0.02],
          [0.2, 0],
          [0.4, 0.04],
          [0.4, 0.3],
          [0, 0.3],
        ],
        'x',
        0.6,
      ),
    );
    expect(flatFaces(prism)).toHaveLength(7);
  });

  it('the outside of a sheet is larger than its inside by a wall on every edge', () => {
    const lid = facing(flatFaces(unwrap(insetMesh(boxMesh(0.6, 0.4, 0.3), -0.003))), 2, 1);
    size(lid).forEach((value, k) => expectClose(value, [0.406, 0.606][k]!, { rel: 1e-9, why: 'two walls' }));
  });
});

describe('a rod', () => {
  it('from point to point, encloses the round one: n r² tan(π/n) times its length', () => {
    for (const [from, to] of [
      [
        [0, 0, 0],
        [0, 0, 2],
      ],
      [
        [1, 2, 3],
        [1.3, 2.4, 4.2],
      ],
      [
        [0, 0, 1],
        [0, 0, -1],
      ],
    ] as const) {
      const length = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
      expectClose(meshVolume(rodMesh(from, to, 0.1, 12)), 12 * 0.01 * Math.tan(Math.PI / 12) * length, {
        rel: 1e-9,
        why: 'a circumscribed polygon',
      });
    }
  });
});
