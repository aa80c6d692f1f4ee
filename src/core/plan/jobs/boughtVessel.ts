import type { VesselBody, VesselRow } from '../../reference/vessels';
import { fromPart } from '../../schema/known';
import type { ShapeDocument, TankDocument } from '../schema';

/** A usual size; the one at hand may be off by a hundredth or so. */
const size = (value_m: number) => fromPart(value_m, Math.max(0.002, Number((value_m * 0.01).toPrecision(1))));

const shapeOf = (body: VesselBody): ShapeDocument =>
  body.form === 'box'
    ? { kind: 'box', length_m: size(body.length_m), width_m: size(body.width_m), height_m: size(body.height_m) }
    : {
        kind: 'cylinder',
        axis: body.axis,
        diameter_m: size(body.diameter_m),
        shell_m: size(body.shell_m),
        nearEnd: body.ends,
        farEnd: body.ends,
      };

/** A tank whose body is a bought vessel, all else of it as it was. Its sizes are usual ones, until it is measured. */
export const asVessel = (tank: TankDocument, { body, alloy, thickness_m }: VesselRow): TankDocument => ({
  ...tank,
  shape: shapeOf(body),
  dimensions: 'inside',
  material: { alloy, thickness_m: fromPart(thickness_m, Number((thickness_m * 0.1).toPrecision(1))) },
});
