import {
  bentArm,
  crossCoil,
  type Gauge,
  type Hindrance,
  type Instrument,
  type NeedleCode,
  type Probe,
  type Scale,
  type Sender,
  type Surround,
  type SwingArm,
} from '../gauge';
import { add, rodMesh, scale, type ClosedMesh, type Vec3 } from '../geometry';
import { success, type Outcome } from '../outcome';
import type { Compartments, Inlet } from '../tank';
import { PUMP_BODY } from '../reference/pickups';
import { SENDER_MAKE } from '../reference/senders';
import { OUTWARD, radians } from './axes';
import type {
  GaugeDocument,
  PickupDocument,
  ScaleDocument,
  SenderDocument,
  SwingArmDocument,
  TankPlan,
} from './schema';

export type SenderModel = {
  readonly document: SenderDocument;
  /** Where it goes through the sheet, tank frame. */
  readonly port_m: Vec3;
  readonly sender: Sender;
  /** Fails where the gauge's own numbers contradict each other. */
  readonly instrument: Outcome<Instrument, NeedleCode>;
};

const DOWN = OUTWARD.floor;
/** A float half under rides with its middle in the surface. */
const HALF = 0.5;

export function senderModel(document: SenderDocument, tank: TankPlan, port_m: Vec3 | undefined): SenderModel[] {
  if (!port_m || !tank.ports.some(({ id }) => id === document.port)) return [];
  const sender = document.kind === 'swing-arm' ? armOf(document, port_m) : probeOf(document, port_m);
  const gauge = gaugeOf(document.gauge);
  const output = rangeOf(document.output);
  return [
    {
      document,
      port_m,
      sender,
      instrument: gauge.ok
        ? success({ sender, output, tolerance_ratio: document.tolerance_ratio.value, gauge: gauge.value })
        : gauge,
    },
  ];
}

const riseOf = (diameter_m: number, immersion_ratio: number): number => (HALF - immersion_ratio) * diameter_m;

function armOf(document: SwingArmDocument, port_m: Vec3): SwingArm {
  const { bend, armLength_m, floatDiameter_m, immersion_ratio } = document;
  const bent =
    bend && bend.at_m.value < armLength_m.value
      ? bentArm(armLength_m.value, bend.at_m.value, radians(bend.angle_deg.value))
      : { length_m: armLength_m.value, lead_rad: 0 };
  return {
    kind: 'swing-arm',
    pivot_m: [port_m[0], port_m[1], port_m[2] - document.pivotDepth_m.value],
    reach: OUTWARD[document.swing],
    armLength_m: bent.length_m,
    floatRadius_m: floatDiameter_m.value / 2,
    floatRise_m: riseOf(floatDiameter_m.value, immersion_ratio.value),
    wireRadius_m: SENDER_MAKE.armDiameter / 2,
    // The stops are those of the hub, which the float leads.
    lowStop_rad: radians(document.lowStop_deg.value) + bent.lead_rad,
    highStop_rad: radians(document.highStop_deg.value) + bent.lead_rad,
    ...(bent.lead_rad === 0 ? {} : { elbow: { at_m: bend!.at_m.value, from_rad: -bent.lead_rad } }),
  };
}

function probeOf(document: Exclude<SenderDocument, { kind: 'swing-arm' }>, port_m: Vec3): Probe {
  const float =
    document.kind === 'tube'
      ? {
          floatRadius_m: document.floatDiameter_m.value / 2,
          floatRise_m: riseOf(document.floatDiameter_m.value, document.immersion_ratio.value),
          step_m: document.step_m.value,
        }
      : { floatRadius_m: 0, floatRise_m: 0, step_m: 0 };
  return {
    kind: document.kind,
    top_m: port_m,
    down: DOWN,
    length_m: document.length_m.value,
    lowDead_m: document.lowDead_m.value,
    highDead_m: document.highDead_m.value,
    tubeRadius_m: document.tubeDiameter_m.value / 2,
    ...float,
  };
}

export const rangeOf = (range: ScaleDocument): Scale =>
  range.kind === 'resistance'
    ? { empty: range.empty_ohm.value, full: range.full_ohm.value }
    : { empty: range.empty_V.value, full: range.full_V.value };

/** A gauge as the solvers want it. */
export function gaugeOf(gauge: GaugeDocument): Outcome<Gauge, NeedleCode> {
  const tolerance_ratio = gauge.tolerance_ratio.value;
  switch (gauge.kind) {
    case 'linear':
      return success({ kind: 'linear', ...rangeOf(gauge.scale), tolerance_ratio });
    case 'cross-coil':
      return crossCoil(gauge.empty_ohm.value, gauge.half_ohm.value, gauge.full_ohm.value, tolerance_ratio);
    case 'calibrated':
      return success({
        kind: 'calibrated',
        tolerance_ratio,
        mostPoints: gauge.mostPoints,
        points:
          gauge.points.kind === 'resistance'
            ? gauge.points.at.map(({ reading_ohm, shown_ratio }) => ({ reading: reading_ohm, shown_ratio }))
            : gauge.points.at.map(({ reading_V, shown_ratio }) => ({ reading: reading_V, shown_ratio })),
      });
  }
}

const ROD_SIDES = 12;
/** Tubes are about a millimetre thick. Common practice. */
const TUBE_WALL_M = 0.001;

/** Half the width of what hangs down at a pickup [m]. */
export const pickupRadius_m = ({ kind, bore_m }: PickupDocument): number =>
  kind === 'module' ? PUMP_BODY.diameter / 2 : bore_m.value / 2 + TUBE_WALL_M;

/** Of a tank, what a sender may meet in it. */
type Hung = {
  readonly mesh: ClosedMesh;
  readonly bays: Compartments;
  readonly pickups: readonly { readonly document: PickupDocument; readonly port_m: Vec3; readonly inlet: Inlet }[];
  readonly senders: readonly SenderModel[];
};

/**
 * What a sender has round it: the bay it hangs in, and the tubes, pumps and
 * other senders that hang on other ports. What hangs on its own port is made
 * to go with it.
 */
export function surroundOf(tank: Hung, model: SenderModel): Surround {
  const { sender, document } = model;
  const inside = sender.kind === 'swing-arm' ? sender.pivot_m : add(sender.top_m, scale(DOWN, JUST_UNDER_M));
  const room = tank.bays.bays[tank.bays.bayOf(inside)]?.mesh ?? tank.mesh;
  const round: Hindrance[] = [];
  for (const { document: pickup, port_m, inlet } of tank.pickups) {
    const radius_m = pickupRadius_m(pickup);
    if (pickup.port !== document.port && pickup.kind !== 'bottom-outlet' && port_m[2] - inlet.point_m[2] > radius_m)
      round.push({ name: pickup.name, mesh: rodMesh(inlet.point_m, port_m, radius_m, ROD_SIDES) });
  }
  for (const other of tank.senders) {
    if (other === model || other.document.port === document.port) continue;
    const foot =
      other.sender.kind === 'swing-arm'
        ? other.sender.pivot_m
        : add(other.sender.top_m, scale(DOWN, other.sender.length_m));
    const radius_m = other.sender.kind === 'swing-arm' ? SENDER_MAKE.armDiameter : other.sender.tubeRadius_m;
    if (other.port_m[2] - foot[2] > radius_m)
      round.push({ name: other.document.name, mesh: rodMesh(foot, other.port_m, radius_m, ROD_SIDES) });
  }
  return { room, round };
}
const JUST_UNDER_M = 1e-4;
