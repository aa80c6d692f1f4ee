import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import {
  boxMesh,
  combine,
  depthInside,
  meshBounds,
  posedMesh,
  prismMesh,
  shiftBy,
  type ClosedMesh,
  type Vec3,
} from '../geometry';
import { boxVolume_m3, largestBox, largestPrism, type FreeSpace } from '.';

const box = (size: Vec3, at: Vec3): ClosedMesh => posedMesh(boxMesh(...size), shiftBy(at));
const spaceOf = (room: ClosedMesh, keep_m: number, ...obstacles: ClosedMesh[]): FreeSpace => ({
  within: meshBounds(room),
  isInside: (point) => depthInside(room, point) > 0,
  clear: [{ surface: room, keep_m }, ...obstacles.map((surface) => ({ surface, keep_m }))],
});

describe('the largest box', () => {
  it('in an empty room is the room less the clearance', () => {
    expectClose(boxVolume_m3(largestBox(spaceOf(boxMesh(1, 0.8, 0.5), 0.02))!), 0.96 * 0.76 * 0.46, {
      rel: 5e-3,
      why: 'half a millimetre a face',
    });
  });

  it('beside a post takes the better side of it', () => {
    const found = largestBox(spaceOf(boxMesh(1, 0.8, 0.5), 0.01, box([0.1, 0.1, 0.5], [0.3, 0, 0])))!;
    // Beyond the post in length, or beside it in width: the latter is larger.
    const beyond = (1 - 0.4 - 0.02) * 0.78 * 0.48;
    const beside = 0.98 * (0.8 - 0.1 - 0.02) * 0.48;
    expectClose(boxVolume_m3(found), Math.max(beyond, beside), { rel: 0.01, why: 'half a millimetre a face' });
  });

  it('under a roof: half the height over half the base of a right-angled wedge', () => {
    // In a right triangle the largest rectangle has half its area.
    const wedge = unwrap(
      prismMesh(
        [
          [0, 0],
          [0.8, 0],
          [0, 0.6],
        ],
        'x',
        1,
      ),
    );
    expectClose(boxVolume_m3(largestBox(spaceOf(wedge, 0))!), (0.8 * 0.6) / 4, {
      rel: 0.02,
      why: 'half of the triangle',
    });
  });

  it('where nothing fits there is none', () => {
    expect(largestBox(spaceOf(boxMesh(0.1, 0.1, 0.1), 0.06))).toBeUndefined();
  });
});

describe('the largest prism', () => {
  it('of an even room is the room, whatever its section', () => {
    const wedge = unwrap(
      prismMesh(
        [
          [0, 0],
          [0.8, 0],
          [0.5, 0.6],
          [0, 0.6],
        ],
        'x',
        1,
      ),
    );
    expectClose(largestPrism(wedge, [])!.volume_m3, (0.6 * (0.8 + 0.5)) / 2, { rel: 1e-3, why: 'area times length' });
  });

  it('leaves out what stands in it, with the clearance, and has no hole', () => {
    const pipe = box([1, 0.1, 0.1], [0, 0.35, 0.2]);
    const found = largestPrism(boxMesh(1, 0.8, 0.5), [{ surface: pipe, keep_m: 0.02 }])!;
    // The hole of 140 by 140 is opened to the nearer of floor and lid.
    expectClose(found.volume_m3, 0.8 * 0.5 - 0.14 * (0.3 + 0.02), { rel: 5e-3, why: 'slot to the floor' });
  });

  it('is shorter where that gains more', () => {
    const stepped = unwrap(combine(boxMesh(1, 0.8, 0.5), box([0.125, 0.8, 0.4], [0.875, 0, 0.1]), 'take'));
    const found = largestPrism(stepped, [])!;
    expectClose(found.volume_m3, 0.875 * 0.8 * 0.5, { rel: 2e-3, why: 'the low end is left out' });
    expect(found.to_m).toBeLessThan(0.9);
  });
});
