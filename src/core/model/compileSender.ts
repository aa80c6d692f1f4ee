import {
  crossCoil,
  type Gauge,
  type Hindrance,
  type Instrument,
  type NeedleCode,
  type Scale,
  type Sender,
  type Surround,
  lawOf,
} from '../gauge';
import { rodMesh, type ClosedMesh, type Vec3 } from '../geometry';
import { success, type Outcome } from '../outcome';
import type { Division, Inlet } from '../tank';
import { senderKind } from '../senders';
import { PUMP_BODY } from '../reference/pickups';
import type { GaugeDocument, PickupDocument, ScaleDocument, SenderDocument, TankPlan } from '../plan/schema';

export type SenderModel = {
  readonly document: SenderDocument;
  /** Where it goes through the sheet, tank frame. */
  readonly port_m: Vec3;
  readonly sender: Sender;
  /** Fails where the gauge's own numbers contradict each other. */
  readonly instrument: Outcome<Instrument, NeedleCode>;
};

/** A sender hung in its port; none where its port is not there. */
export function senderModel(document: SenderDocument, tank: TankPlan, port_m: Vec3 | undefined): SenderModel[] {
  if (!port_m || !tank.ports.some(({ id }) => id === document.port)) return [];
  const sender = senderKind(document).compile(document, port_m);
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

/** What a sender or gauge has at empty and at full [Ω or V]. */
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
  readonly division: Division;
  readonly pickups: readonly { readonly document: PickupDocument; readonly port_m: Vec3; readonly inlet: Inlet }[];
  readonly senders: readonly SenderModel[];
};

/**
 * What a sender has round it: the compartment it hangs in, and the tubes, pumps and
 * other senders that hang on other ports. What hangs on its own port is made
 * to go with it.
 */
export function surroundOf(tank: Hung, model: SenderModel): Surround {
  const { sender, document } = model;
  const room =
    tank.division.compartments[tank.division.compartmentOf(lawOf(sender).inside_m(sender))]?.mesh ?? tank.mesh;
  const round: Hindrance[] = [];
  for (const { document: pickup, port_m, inlet } of tank.pickups) {
    const radius_m = pickupRadius_m(pickup);
    if (pickup.port !== document.port && pickup.kind !== 'bottom-outlet' && port_m[2] - inlet.point_m[2] > radius_m)
      round.push({ name: pickup.name, mesh: rodMesh(inlet.point_m, port_m, radius_m, ROD_SIDES) });
  }
  for (const other of tank.senders) {
    if (other === model || other.document.port === document.port) continue;
    const law = lawOf(other.sender);
    const [foot, radius_m] = [law.foot_m(other.sender), law.stemRadius_m(other.sender)];
    if (other.port_m[2] - foot[2] > radius_m)
      round.push({ name: other.document.name, mesh: rodMesh(foot, other.port_m, radius_m, ROD_SIDES) });
  }
  return { room, round };
}
