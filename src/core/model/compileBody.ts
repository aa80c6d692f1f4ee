import {
  combine,
  edgeSums,
  insetMesh,
  meshArea,
  meshVolume,
  movedMesh,
  surfacePieces,
  withFillable,
  withoutBand,
  type ClosedMesh,
  type CombineCode,
  type InsetCode,
  type Vec3,
} from '../geometry';
import { failure, success, type Outcome } from '../outcome';
import { divided, fitPlate, plateArea_m2, type Division, type FittedPlate, type Plate } from '../tank';
import { memoized } from '../memo';
import { sizesOf } from '../plan/sizes';
import { shapeMesh, type ShapeCode } from './compileShape';
import type { PlateDocument, TankDocument, TankPlan } from '../plan/schema';

export type BodyCode = ShapeCode | CombineCode | InsetCode;

/** The metal and the space of a tank, before anything is joined to it. */
export type TankBody = {
  /** The walls as they are dimensioned: their inside or their outside. */
  readonly walls: ClosedMesh;
  /** Inside of the walls. */
  readonly shell: ClosedMesh;
  /** What liquid can take: the inside less what stands in it. */
  readonly space: ClosedMesh;
  readonly division: Division;
  /** What each part and slice adds to or takes from the inside [m³], by id. */
  readonly changes: ReadonlyMap<string, number>;
  /** Bodies that do not hang together. */
  readonly pieces: number;
  /** Parts, bands and baffles that change nothing: they miss the tank, or lie inside it already. */
  readonly idle: readonly string[];
  readonly insideArea_m2: number;
  readonly outsideArea_m2: number;
  /** Edges of the shell at which sheet is folded or welded [m]. */
  readonly edges_m: number;
  /** Of the walls, without baffles [m³]. */
  readonly metal_m3: number;
  readonly plates: readonly { readonly plate: FittedPlate; readonly area_m2: number; readonly centre_m: Vec3 }[];
};

/** As much of a tank as makes its body: sizes without their origins, ids without their names. */
type BodyPlan = Pick<TankDocument, 'dimensions' | 'shape' | 'parts' | 'slices' | 'plates' | 'foam_ratio'> & {
  readonly thickness_m: number;
};

const bodyPlan = ({ dimensions, shape, parts, slices, plates, foam_ratio, material }: TankPlan): BodyPlan => ({
  ...sizesOf({ dimensions, shape, parts, slices, plates, foam_ratio }),
  thickness_m: material.thickness_m.value,
});

const bodyOf = memoized('tank body', build, 48);

/** Builds a tank's body from its shapes. */
export function tankBody(tank: TankPlan): Outcome<TankBody, BodyCode> {
  const body = bodyOf(bodyPlan(tank));
  if (body.ok) return body;
  const { code, at, detail } = body.error;
  return failure(code, [...tank.parts, ...tank.slices].find(({ id }) => id === at)?.name ?? at, detail);
}

const AXIS = { x: 0, y: 1, z: 2 } as const;
/** Of the volume before: a part that changes less does nothing. */
const IDLE_REL = 1e-9;

function build(tank: BodyPlan): Outcome<TankBody, BodyCode> {
  const outlined = outlineOf(
    tank.shape,
    tank.parts.filter(({ operation }) => operation !== 'displace'),
    tank.slices,
  );
  if (!outlined.ok) return outlined;
  const walls = success(outlined.value.mesh);
  const changes = new Map(outlined.value.changes);
  const thickness = tank.thickness_m;
  const shell = tank.dimensions === 'outside' ? insetMesh(walls.value, thickness) : walls;
  if (!shell.ok) return shell;
  const emptied = withoutInsides(tank, shell.value, changes);
  if (!emptied.ok) return emptied;
  const plates = tank.plates
    .map((plate) => fitPlate(shell.value, plateModel(plate)))
    .map((plate) => ({ plate, ...plateArea_m2(plate) }));
  const metalInside_m3 = plates.reduce((sum, { plate, area_m2 }) => sum + area_m2 * plate.thickness_m, 0);
  if (metalInside_m3 >= meshVolume(emptied.value))
    return failure('nothing-left', 'plates', 'The baffles fill the tank.');
  const space = withFillable(
    emptied.value,
    (1 - (tank.foam_ratio?.value ?? 0)) * (1 - metalInside_m3 / meshVolume(emptied.value)),
  );
  const division = divided(
    space,
    plates.map(({ plate }) => plate),
  );
  if (!division.ok) return division;
  const least_m3 = IDLE_REL * meshVolume(shell.value);
  const insideArea_m2 = meshArea(shell.value);
  const { crease_m, turning_m } = edgeSums(shell.value);
  return success({
    walls: walls.value,
    shell: shell.value,
    space,
    division: division.value,
    changes,
    pieces: surfacePieces(shell.value),
    idle: [...tank.parts, ...tank.slices]
      .map(({ id }) => id)
      .filter((id) => Math.abs(changes.get(id) ?? 0) <= least_m3)
      .concat(plates.filter(({ area_m2 }) => area_m2 === 0).map(({ plate }) => plate.id)),
    insideArea_m2,
    edges_m: crease_m,
    // A wall laid round the inside, mitred at its edges; the little cubes at its corners are left out.
    outsideArea_m2: insideArea_m2 + 2 * thickness * turning_m,
    metal_m3: thickness * insideArea_m2 + thickness ** 2 * turning_m,
    plates,
  });
}

/** Walls, and what each part and slice changed of them [m³], by id. */
type Outlined = { readonly mesh: ClosedMesh; readonly changes: ReadonlyMap<string, number> };

/** The walls as they are dimensioned: shapes added and taken away in order, then bands taken out. */
const outlineOf = memoized(
  'tank walls',
  (
    shape: TankDocument['shape'],
    parts: TankDocument['parts'],
    slices: TankDocument['slices'],
  ): Outcome<Outlined, BodyCode> => {
    const changes = new Map<string, number>();
    const base = shapeMesh(shape);
    if (!base.ok) return base;
    let body = base.value;
    for (const part of parts) {
      const added = partMesh(part);
      if (!added.ok) return failure(added.error.code, part.id, added.error.detail);
      const next = combine(body, added.value, part.operation === 'add' ? 'add' : 'take');
      if (!next.ok) return failure(next.error.code, part.id, next.error.detail);
      changes.set(part.id, meshVolume(next.value) - meshVolume(body));
      body = next.value;
    }
    for (const slice of slices) {
      const next = withoutBand(body, AXIS[slice.axis], slice.at_m.value, slice.width_m.value);
      if (!next.ok) return failure(next.error.code, slice.id, next.error.detail);
      changes.set(slice.id, meshVolume(next.value) - meshVolume(body));
      body = next.value;
    }
    return success({ mesh: body, changes });
  },
  24,
);

function partMesh(part: TankDocument['parts'][number]): Outcome<ClosedMesh, ShapeCode> {
  const mesh = shapeMesh(part.shape);
  return mesh.ok ? success(movedMesh(mesh.value, [part.x_m.value, part.y_m.value, part.z_m.value])) : mesh;
}

/** The inside less what stands in it. */
function withoutInsides(
  tank: BodyPlan,
  shell: ClosedMesh,
  changes: Map<string, number>,
): Outcome<ClosedMesh, BodyCode> {
  let space = shell;
  for (const part of tank.parts) {
    if (part.operation !== 'displace') continue;
    const solid = partMesh(part);
    if (!solid.ok) return failure(solid.error.code, part.id, solid.error.detail);
    const next = combine(space, solid.value, 'take');
    if (!next.ok) return failure(next.error.code, part.id, next.error.detail);
    changes.set(part.id, meshVolume(next.value) - meshVolume(space));
    space = next.value;
  }
  return success(space);
}

function plateModel(plate: PlateDocument): Plate {
  return {
    id: plate.id,
    axis: AXIS[plate.axis],
    at_m: plate.at_m.value,
    thickness_m: plate.thickness_m.value,
    from_m: plate.from_m?.value ?? -Infinity,
    to_m: plate.to_m?.value ?? Infinity,
    cornerCut_m: plate.cornerCut_m.value,
    topGap_m: plate.topGap_m.value,
    holes: { count: plate.holes.count, diameter_m: plate.holes.diameter_m.value, height_m: plate.holes.height_m.value },
    ...(plate.flap
      ? {
          flap: {
            width_m: plate.flap.width_m.value,
            height_m: plate.flap.height_m.value,
            passes: plate.flap.passes,
            leak_ratio: plate.flap.leak_ratio.value,
          },
        }
      : {}),
  };
}
