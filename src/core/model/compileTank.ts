import {
  add,
  effectiveGravity,
  meshBounds,
  meshVolume,
  rayCrossings,
  scale,
  tankAxes,
  toTankFrame,
  type ClosedMesh,
  type Mounting,
  type Vec3,
} from '../geometry';
import type { FluidBatch } from '../fluids';
import { memoized } from '../memo';
import { failure, success, unwrap, type Outcome } from '../outcome';
import type { Division, Envelope, Inlet } from '../tank';
import { tankBody, type TankBody } from './compileBody';
import { senderModel, type SenderModel } from './compileSender';
import { radians } from '../units';
import { flatWay, portPoint } from './portSeat';
import type { PickupDocument, PortDocument, Plan, SystemDocument, TankDocument, TankPlan } from '../plan/schema';

export type PickupModel = {
  readonly document: PickupDocument;
  readonly inlet: Inlet;
  readonly port_m: Vec3;
  /** From the port into the tank. */ readonly down: Vec3;
  readonly tubeLength_m: number;
};
export type PortModel = { readonly document: PortDocument; readonly point_m: Vec3 };

/** A tank as it is made, whatever is in it. Points are in the tank frame. */
export type TankGeometry = {
  readonly document: TankPlan;
  readonly body: TankBody;
  /** The space that liquid can take. */
  readonly mesh: ClosedMesh;
  readonly division: Division;
  readonly gross_m3: number;
  readonly mounting: Mounting;
  readonly ports: readonly PortModel[];
  readonly pickups: readonly PickupModel[];
  readonly senders: readonly SenderModel[];
  /** Ports and what hangs on them that miss the tank's walls, by id. */
  readonly misplaced: readonly string[];
};

/** A tank as the solvers want it: with what it is for. */
export type TankModel = TankGeometry & { readonly batch: FluidBatch };

/** How far the vehicle leans either way [rad]. */
export const envelopeOf = ({ envelope }: Pick<SystemDocument, 'envelope'>): Envelope => ({
  pitch_rad: [-radians(envelope.noseDown_deg.value), radians(envelope.noseUp_deg.value)],
  roll_rad: [-radians(envelope.portDown_deg.value), radians(envelope.starboardDown_deg.value)],
});

/** Up in the tank frame when the vehicle stands still at a pitch and roll. */
export const standingUp = (tank: Pick<TankModel, 'mounting'>, pitch_rad: number, roll_rad: number): Vec3 =>
  toTankFrame(unwrap(effectiveGravity({ pitch_rad, roll_rad, acceleration_mPerS2: [0, 0, 0] })).up, tank.mounting);

/** Fails where the tank's shape encloses nothing; its sizes alone are checked by the validator. */
export const tankGeometry = ({
  calibrations: _calibrations,
  built: _built,
  ...plan
}: TankDocument): Outcome<TankGeometry, 'bad-shape'> => geometryOf(plan);

/** The same with its fluid. */
export function compileTank({ fluids }: Pick<Plan, 'fluids'>, tank: TankDocument): Outcome<TankModel, 'bad-shape'> {
  const geometry = tankGeometry(tank);
  if (!geometry.ok) return geometry;
  const fluid = fluids.find(({ id }) => id === tank.fluid)!;
  return success(withFluid(geometry.value, batchOf(fluid)));
}

const geometryOf = memoized('tank model', compiled, 24);
const withFluid = memoized(
  'tank and fluid',
  (geometry: TankGeometry, batch: FluidBatch): TankModel => ({ ...geometry, batch }),
  24,
);

function compiled(document: TankPlan): Outcome<TankGeometry, 'bad-shape'> {
  const body = tankBody(document);
  if (!body.ok) return failure('bad-shape', `${document.name}, ${body.error.at}`, body.error.detail);
  const { shell, space: mesh, division } = body.value;
  const { mounting } = document;
  const placed = document.ports.map((port) => ({ document: port, point_m: portPoint(shell, port) }));
  const ports = placed.flatMap(({ document: port, point_m }) => (point_m ? [{ document: port, point_m }] : []));
  const at = (id: string): Vec3 | undefined => ports.find((port) => port.document.id === id)?.point_m;
  const pickups = document.pickups.flatMap((pickup) => pickupModel(shell, pickup, document, at(pickup.port)));
  const senders = document.senders.flatMap((sender) => senderModel(sender, document, at(sender.port)));
  const found = new Set([
    ...ports.map((port) => port.document.id),
    ...pickups.map((pickup) => pickup.document.id),
    ...senders.map((sender) => sender.document.id),
  ]);
  return success({
    document,
    body: body.value,
    mesh,
    division,
    gross_m3: meshVolume(mesh),
    ports,
    pickups,
    senders,
    mounting: {
      yaw_rad: radians(mounting.yaw_deg.value),
      pitch_rad: radians(mounting.pitch_deg.value),
      roll_rad: radians(mounting.roll_deg.value),
    },
    misplaced: [...document.ports, ...document.pickups, ...document.senders]
      .map((part) => part.id)
      .filter((id) => !found.has(id)),
  });
}

/** Top of the floor under a point, or undefined outside the tank's plan. */
export function floorUnder_m(mesh: ClosedMesh, point: Vec3): number | undefined {
  const below = meshBounds(mesh).min[2] - 1;
  const first = rayCrossings(mesh, [point[0], point[1], below], [0, 0, 1])[0];
  return first === undefined ? undefined : below + first;
}

/**
 * Looks at the floor further along as a tube is led down: each leaves the slope of the floor times that of the tube.
 */
const FLOOR_LOOKS = 40;

function pickupModel(
  mesh: ClosedMesh,
  document: PickupDocument,
  tank: TankPlan,
  port_m: Vec3 | undefined,
): PickupModel[] {
  if (!port_m) return [];
  const port = tank.ports.find((candidate) => candidate.id === document.port)!;
  const height = document.heightOffFloor_m.value;
  const submergence_m = document.submergence_m.value;
  if (document.kind === 'bottom-outlet') {
    const point_m: Vec3 = [port_m[0], port_m[1], port.face === 'floor' ? port_m[2] + height : port_m[2]];
    return [
      {
        document,
        port_m,
        down: DOWN,
        inlet: { point_m, submergence_m },
        tubeLength_m: Math.abs(port_m[2] - point_m[2]),
      },
    ];
  }
  const down = hangingWay(mesh, document, port, port_m);
  let tubeLength_m = 0;
  for (let look = 0; look < FLOOR_LOOKS; look++) {
    const under = add(port_m, scale(down, tubeLength_m));
    const floor = floorUnder_m(mesh, under);
    if (floor === undefined) return [];
    const next = (port_m[2] - floor - height) / -down[2];
    if (Math.abs(next - tubeLength_m) < 1e-12) break;
    tubeLength_m = next;
  }
  return [
    {
      document,
      port_m,
      down,
      inlet: { point_m: add(port_m, scale(down, tubeLength_m)), submergence_m },
      tubeLength_m: Math.abs(tubeLength_m),
    },
  ];
}

const DOWN: Vec3 = [0, 0, -1];
/** A wall steeper than this carries no tube that hangs from it. */
const LEAST_DOWN = 0.5;

/** A tube or a module stands square to a flat wall, as its fitting does, however that leans; a hose hangs plumb. */
function hangingWay(mesh: ClosedMesh, { kind }: PickupDocument, port: PortDocument, port_m: Vec3): Vec3 {
  const out = kind === 'hose' ? undefined : flatWay(mesh, port, port_m);
  return out && out[2] > LEAST_DOWN ? scale(out, -1) : DOWN;
}

/** A point of a tank in vehicle axes [m]. */
export function inVehicle(tank: TankGeometry, point_m: Vec3): Vec3 {
  const { x_m, y_m, z_m } = tank.document.mounting;
  const [x, y, z] = tankAxes(tank.mounting);
  const turned = add(add(scale(x, point_m[0]), scale(y, point_m[1])), scale(z, point_m[2]));
  return add([x_m.value, y_m.value, z_m.value], turned);
}

/** A fluid of the document as its properties are looked up. */
export const batchOf = ({ fluid, density15_kgPerM3 }: SystemDocument['fluids'][number]): FluidBatch => ({
  key: fluid,
  ...(density15_kgPerM3 ? { density15_kgPerM3: density15_kgPerM3.value } : {}),
});
