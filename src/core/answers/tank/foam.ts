import { pickupRadius_m, surroundOf } from '../../model/compileSender';
import type { TankModel } from '../../model/compileTank';
import { freeRun, lawOf } from '../../gauge';
import { add, meshBounds, meshVolume, scale, subtract, type Vec3 } from '../../geometry';
import type { Outcome } from '../../outcome';
import { foamPieces, type FoamPieces } from '../../tank';

/** A well in the foam, from the floor to the lid. */
export type FoamWell = {
  readonly of: string;
  readonly length_m: number;
  readonly width_m: number;
  readonly height_m: number;
  readonly round: boolean;
  readonly volume_m3: number;
};

/** The foam of one compartment. */
export type FoamBlock = {
  readonly space_m: Vec3;
  /** Cut to this, over all: larger than the space. */
  readonly block_m: Vec3;
  readonly pieces: Outcome<FoamPieces, 'no-way'>;
  readonly wells: readonly FoamWell[];
  /** To be bought for it: the block over all. */
  readonly foam_m3: number;
  /** Of the compartment, that foam fills when its wells are cut, at least: wells that meet are each deducted. */
  readonly fills_ratio: number;
};

const SWEEP_STEPS = 24;

/** How the foam of a tank is cut, compartment by compartment; none where nothing is said of how it is cut. */
export function foamBlocks(tank: TankModel): readonly FoamBlock[] {
  const { foam, foam_ratio } = tank.document;
  if (!foam || !foam_ratio || foam_ratio.value === 0) return [];
  const wells = [...pickupWells(tank, foam.clear_m.value), ...senderWells(tank, foam.clear_m.value)];
  return tank.division.compartments.map(({ mesh }, b): FoamBlock => {
    const { min, max } = meshBounds(mesh);
    const space_m = max.map((high, axis) => high - min[axis]!) as unknown as Vec3;
    const block_m = space_m.map((size) => size + foam.over_m.value) as unknown as Vec3;
    const within = wells
      .filter(({ along_m }) => along_m.some((point) => tank.division.compartmentOf(point) === b))
      .map(({ of, length_m, width_m, round }): FoamWell => {
        const area = round ? (Math.PI / 4) * length_m * width_m : length_m * width_m;
        return { of, length_m, width_m, round, height_m: space_m[2], volume_m3: area * space_m[2] };
      });
    const taken = within.reduce((sum, { volume_m3 }) => sum + volume_m3, 0);
    return {
      space_m,
      block_m,
      pieces: foamPieces(block_m, foam.opening_m?.value ?? Infinity, foam.squeezed_ratio.value),
      wells: within,
      foam_m3: block_m[0] * block_m[1] * block_m[2],
      fills_ratio: Math.max(0, 1 - taken / meshVolume(mesh)),
    };
  });
}

type Well = Pick<FoamWell, 'of' | 'length_m' | 'width_m' | 'round'> & {
  /** Where it must be: a well in each compartment that one of them lies in. */
  readonly along_m: readonly Vec3[];
};

/** From a port down to what hangs lowest, both ends left out. */
const between = (from: Vec3, to: Vec3): Vec3[] =>
  Array.from({ length: ALONG }, (_, i) => add(from, scale(subtract(to, from), (i + 0.5) / ALONG)));
const ALONG = 24;

function pickupWells(tank: TankModel, clear_m: number): Well[] {
  return tank.pickups
    .filter(({ document }) => document.kind !== 'bottom-outlet')
    .map(({ document, port_m, inlet }): Well => {
      const across = 2 * (pickupRadius_m(document) + clear_m);
      return {
        of: document.name,
        length_m: across,
        width_m: across,
        round: true,
        along_m: between(port_m, inlet.point_m),
      };
    });
}

/** Round all that a sender sweeps while it is free to move. */
function senderWells(tank: TankModel, clear_m: number): Well[] {
  return tank.senders.flatMap((model): Well[] => {
    const { sender } = model;
    const surround = surroundOf(tank, model);
    const free = freeRun(sender, surround.room, surround.round) ?? { low_share: 0, high_share: 1 };
    const balls = Array.from({ length: SWEEP_STEPS + 1 }, (_, i) =>
      lawOf(sender).balls(sender, free.low_share + ((free.high_share - free.low_share) * i) / SWEEP_STEPS),
    ).flat();
    if (balls.length === 0) return [];
    const port = tank.ports.find(({ document }) => document.id === model.document.port);
    const [[fromX, toX], [fromY, toY]] = ([0, 1] as const).map((axis) => [
      Math.min(...balls.map(({ at_m, radius_m }) => at_m[axis] - radius_m)),
      Math.max(...balls.map(({ at_m, radius_m }) => at_m[axis] + radius_m)),
    ]) as [[number, number], [number, number]];
    const [length_m, width_m] = [toX - fromX + 2 * clear_m, toY - fromY + 2 * clear_m];
    return [
      {
        of: model.document.name,
        length_m,
        width_m,
        round: model.document.kind !== 'swing-arm',
        along_m: [...balls.map(({ at_m }) => at_m), ...(port ? between(port.point_m, balls[0]!.at_m) : [])],
      },
    ];
  });
}
