import { portPoint } from '../../model/portSeat';
import { standingUp, envelopeOf, type PickupModel, type TankModel } from '../../model/compileTank';
import { isStarved, type TankLevel } from '../../model/networkParts';
import { feedPath, type Circuits } from '../../plan/circuits';
import { sharedWall, type SharedWall } from '../../model/sharedWall';
import { isShutByFloat, isShutByLean, leanOf_rad } from '../../model/vents';
import { capWays } from '../../plan/caps';
import type { EnvelopeDocument, PortDocument, TankPlan } from '../../plan/schema';
import {
  effectiveGravity,
  add,
  clipBelow,
  dot,
  levelForVolume,
  meshBounds,
  offsetRange,
  scale,
  volumeBelow,
  type ClosedMesh,
  type Mounting,
  type Vec3,
  type EffectiveGravity,
} from '../../geometry';
import { memoized } from '../../memo';
import { unwrap } from '../../outcome';
import { radians } from '../../units';
import { ALLOYS } from '../../reference/alloys';
import { commonCentre_m, shellCentre_m, type Envelope, type StrappingRow, type WorstAttitude } from '../../tank';
import type { FluidState } from '../../fluids';
import { tankDrawing, type TankDrawing } from './drawing';
import { pickupPlan, type PickupPlan } from './pickups';
import { dipResult, sightResult, type DipResult, type SightResult } from './scales';
import { foamBlocks, type FoamBlock } from './foam';
import { insideResult, type InsideResult } from './inside';
import { clippedBelow, leftBy, levelIn, lostBy, mostLost, strapped, worstOver, type Lost } from '../remembered';

export type PickupResult = {
  readonly id: string;
  readonly name: string;
  readonly inlet_m: Vec3;
  readonly starvedNow: boolean;
  readonly unusableLevel_m3: number;
  readonly unusableNow_m3: number;
  readonly worst: WorstAttitude;
  /** Liquid that can still be drawn at the set fill and attitude. */
  readonly leftNow_m3: number;
  /** How it is cut and what it stands near; left out when only numbers were asked for. */
  readonly plan?: PickupPlan;
};

export type TankResult = {
  readonly id: string;
  readonly name: string;
  readonly gross_m3: number;
  readonly holds_m3: number;
  /** In the tank, as it is mounted, when the liquid covers the lower end of its filler; undefined where it has none. */
  readonly clickOff_m3: number | undefined;
  readonly fill: {
    readonly ratio: number;
    readonly volume_m3: number;
    readonly depth_m: number;
    readonly surface_m2: number;
    readonly centroid_m: Vec3 | undefined;
  };
  readonly pickups: readonly PickupResult[];
  /** Sight tubes and dipsticks; left out when only numbers were asked for. */
  readonly sights: readonly SightResult[];
  readonly dips: readonly DipResult[];
  readonly strapping: readonly StrappingRow[];
  readonly insideArea_m2: number;
  readonly outsideArea_m2: number;
  /** Edges of the shell that are folded or welded; baffles' own seams left out. */
  readonly edges_m: number;
  /** Both sides of all baffles. */
  readonly plateArea_m2: number;
  /** What each part and slice adds to or takes from the inside [m³], by id. */
  readonly changes: Readonly<Record<string, number>>;
  /** Parts that change nothing. */
  readonly idle: readonly string[];
  readonly pieces: number;
  readonly inside: InsideResult;
  /** How its foam is cut, by compartment; left out when only numbers were asked for. */
  readonly foam: readonly FoamBlock[];
  /**
   * Of one that shares a wall with another: its metal, counted with that other; what reaches into the other's space;
   * ports of either that lead through it.
   */
  readonly sharedWall?: {
    readonly with: string;
    readonly metal_m3: number;
    readonly reachesIn_m3: number | undefined;
    readonly ports: readonly string[];
  };
  readonly dryMass_kg: number;
  readonly liquidMass_kg: number;
  /** Filled to the limit. */
  readonly fullMass_kg: number;
  /** Of shell and liquid together at the set fill and attitude, tank frame. */
  readonly centre_m: Vec3 | undefined;
  /** Ports under the surface at the set fill and attitude. */
  readonly wetPorts: readonly string[];
  /**
   * Centre of shell and liquid together from empty to the fill limit, at the set attitude; left out when only numbers
   * were asked for.
   */
  readonly balance: readonly BalancePoint[];
  /**
   * Vents that the liquid reaches somewhere in the envelope when filled to the limit, the one that loses most first.
   */
  readonly closedVents: readonly ClosedVent[];
  readonly floodedVents: readonly FloodedVent[];
  /**
   * Where on the lid a vent would lose least there; left out when only numbers were asked for, or where no vent is
   * flooded.
   */
  readonly dryVent?: DryVent;
  readonly misplaced: readonly string[];
  /** Left out when only numbers were asked for. */
  readonly drawing?: TankDrawing;
};

/** Where the whole tank's weight lies at one filling, tank frame. */
export type BalancePoint = { readonly volume_m3: number; readonly mass_kg: number; readonly centre_m: Vec3 };

const STRAPPING_STEPS = 40;
const BALANCE_STEPS = 12;

/** The surface of a tank with so much in it. */
export const levelOf = memoized(
  'surface',
  (tank: TankModel, up: Vec3, volume_m3: number): TankLevel => ({
    tank,
    volume_m3,
    offset_m: unwrap(levelIn(tank.mesh, up, volume_m3)).offset_m,
    up,
  }),
  24,
);

/** Whether tables, curves and outlines are wanted beside the numbers, or the numbers alone. */
export type Detail = 'full' | 'numbers';

/** What a tank is concerned by of all that is joined to it: a line's bore does not change it. */
export type TankSurroundings = {
  /** The tank that it shares a wall with. */
  readonly sharesWith: TankPlan | undefined;
  /** What all consumers fed through a pickup need together, by its id [m³/s]. */
  readonly draws_m3PerS: Readonly<Record<string, number>>;
};

/** Of one tank, in circuits whose parts stand as they do. */
export const surroundingsOf = (circuits: Circuits, { pickups, sharesWallWith }: TankPlan): TankSurroundings => {
  const sources = circuits.consumers.map((consumer) => feedPath(circuits, consumer.id).at(-1));
  return {
    sharesWith: circuits.tanks.find(({ id }) => id === sharesWallWith),
    draws_m3PerS: Object.fromEntries(
      pickups.map(({ id }) => [
        id,
        circuits.consumers.reduce(
          (sum, consumer, c) => (sources[c] === id ? sum + consumer.neededFlow_m3PerS.value : sum),
          0,
        ),
      ]),
    ),
  };
};

/** A tank at its level, with the slopes and accelerations asked for. */
export const tankResult = memoized('tank', resultOf, 24);

function resultOf(
  { sharesWith, draws_m3PerS }: TankSurroundings,
  asked: EnvelopeDocument,
  gravity: EffectiveGravity,
  level: TankLevel,
  fluid: FluidState,
  detail: Detail,
): TankResult {
  const envelope = envelopeOf({ envelope: asked });
  const { tank, up, offset_m } = level;
  const { document, mesh, gross_m3, body: built } = tank;
  const holds_m3 = gross_m3 * document.fillLimit_ratio.value;
  const body = clippedBelow(mesh, up, offset_m);
  const wall = sharedWall(sharesWith ? [sharesWith] : [], document);
  const metal = metalOf(tank, wall);
  const dryMass_kg = metal.reduce((sum, { mass_kg }) => sum + mass_kg, 0);
  const flooded = floodedVents(envelope, tank);
  const liquidMass_kg = body.volume_m3 * fluid.density_kgPerM3;
  return {
    id: document.id,
    name: document.name,
    gross_m3,
    holds_m3,
    clickOff_m3: clickOffOf(tank),
    fill: {
      ratio: level.volume_m3 / gross_m3,
      volume_m3: body.volume_m3,
      depth_m: offset_m - offsetRange(mesh, up)[0],
      surface_m2: body.surface_m2,
      centroid_m: body.centroid_m,
    },
    pickups: tank.pickups.map((pickup) => ({
      ...pickupResult(envelope, level, pickup),
      ...(detail === 'full' ? { plan: planOf(tank, pickup) } : {}),
    })),
    sights: detail === 'full' ? document.sightTubes.map((sight) => sightResult(envelope, tank, holds_m3, sight)) : [],
    dips: detail === 'full' ? document.dipsticks.map((stick) => dipResult(tank, holds_m3, stick)) : [],
    strapping: detail === 'full' ? strapped(mesh, up, STRAPPING_STEPS) : [],
    insideArea_m2: built.insideArea_m2,
    outsideArea_m2: built.outsideArea_m2,
    edges_m: built.edges_m,
    plateArea_m2: 2 * built.plates.reduce((sum, { area_m2 }) => sum + area_m2, 0),
    changes: Object.fromEntries(built.changes),
    idle: built.idle,
    pieces: built.pieces,
    inside: insideResult(draws_m3PerS, asked, gravity, level, fluid),
    foam: detail === 'full' ? foamBlocks(tank) : [],
    ...(wall
      ? {
          sharedWall: {
            with: wall.with,
            metal_m3: wall.metal?.volume_m3 ?? 0,
            reachesIn_m3: wall.reachesIn_m3,
            ports: wall.ports,
          },
        }
      : {}),
    dryMass_kg,
    liquidMass_kg,
    fullMass_kg: dryMass_kg + gross_m3 * document.fillLimit_ratio.value * fluid.density_kgPerM3,
    centre_m: commonCentre_m([
      ...metal,
      ...(body.centroid_m ? [{ mass_kg: liquidMass_kg, at_m: body.centroid_m }] : []),
    ]),
    wetPorts: tank.ports.filter(({ point_m }) => dot(up, point_m) < offset_m).map(({ document: port }) => port.id),
    balance: detail === 'full' ? balance(mesh, holds_m3, up, metal, fluid.density_kgPerM3) : [],
    floodedVents: flooded,
    closedVents: closedVents(envelope, tank),
    ...(detail === 'full' && flooded.length > 0 ? { dryVent: driestVent(envelope, tank) } : {}),
    misplaced: tank.misplaced,
    ...(detail === 'full' ? { drawing: drawingOf(level) } : {}),
  };
}

/**
 * The walls and baffles of a tank and what is said to hang on it as masses; a wall that it shares is counted with the
 * other tank.
 */
export function metalOf({ document, body, ports }: TankModel, wall: SharedWall | undefined) {
  const { material, fitted_kg } = document;
  const density_kgPerM3 = material.density_kgPerM3?.value ?? ALLOYS[material.alloy].density_kgPerM3;
  const shared = wall?.metal;
  return [
    { mass_kg: body.metal_m3 * density_kgPerM3, at_m: shellCentre_m(body.shell) },
    ...(shared ? [{ mass_kg: -shared.volume_m3 * density_kgPerM3, at_m: shared.centre_m }] : []),
    ...body.plates.map(({ plate, area_m2, centre_m }) => ({
      mass_kg: area_m2 * plate.thickness_m * density_kgPerM3,
      at_m: centre_m,
    })),
    ...(fitted_kg ? [{ mass_kg: fitted_kg.value, at_m: middleOf(ports) ?? shellCentre_m(body.shell) }] : []),
  ];
}

/** What is fitted hangs about the ports. */
const middleOf = (ports: TankModel['ports']): Vec3 | undefined =>
  ports.length === 0
    ? undefined
    : scale(
        ports.reduce<Vec3>((sum, { point_m }) => add(sum, point_m), [0, 0, 0]),
        1 / ports.length,
      );

const planOf = memoized('pickup plan', pickupPlan, 48);
const balance = memoized('balance', balanceOf, 24);
const drawingOf = memoized('drawing', tankDrawing, 24);

type Mass = { readonly mass_kg: number; readonly at_m: Vec3 };

function balanceOf(
  mesh: ClosedMesh,
  holds_m3: number,
  up: Vec3,
  metal: readonly Mass[],
  density_kgPerM3: number,
): BalancePoint[] {
  return Array.from({ length: BALANCE_STEPS + 1 }, (_, i) => (holds_m3 * i) / BALANCE_STEPS).flatMap((volume_m3) => {
    const { offset_m } = unwrap(levelForVolume(mesh, up, volume_m3));
    const { centroid_m } = clipBelow(mesh, { normal: up, offset_m });
    const masses = [...metal, ...(centroid_m ? [{ mass_kg: volume_m3 * density_kgPerM3, at_m: centroid_m }] : [])];
    const centre_m = commonCentre_m(masses);
    return centre_m ? [{ volume_m3, mass_kg: masses.reduce((sum, mass) => sum + mass.mass_kg, 0), centre_m }] : [];
  });
}

function pickupResult(envelope: Envelope, level: TankLevel, pickup: PickupModel): PickupResult {
  const { tank, up } = level;
  const { mesh, division, mounting } = tank;
  const { inlet } = pickup;
  return {
    id: pickup.document.id,
    name: pickup.document.name,
    inlet_m: inlet.point_m,
    starvedNow: isStarved(level, pickup),
    unusableLevel_m3: leftBy(mesh, division, inlet, standingUp(tank, 0, 0)),
    unusableNow_m3: leftBy(mesh, division, inlet, up),
    worst: worstOver(mesh, division, inlet, mounting, envelope),
    leftNow_m3: isStarved(level, pickup)
      ? 0
      : Math.max(0, level.volume_m3 - leftBy(mesh, division, inlet, up, level.offset_m)),
  };
}

/** A vent that is reached at some slope asked for: what runs out of it there, filled to the limit. */
export type FloodedVent = {
  readonly id: string;
  readonly lost_m3: number;
  readonly pitch_rad: number;
  readonly roll_rad: number;
};
/** A vent that its own valve shuts at some slope asked for: no air comes in by it there. */
export type ClosedVent = {
  readonly id: string;
  readonly by: 'lean' | 'float';
  readonly pitch_rad: number;
  readonly roll_rad: number;
};
/** A place on the lid, in the tank's frame, and what a vent there would lose at worst; nothing where it stays dry. */
export type DryVent = { readonly x_m: number; readonly y_m: number; readonly lost_m3: number };

function clickOffOf(tank: TankModel): number | undefined {
  const filler = tank.ports.find(({ document }) => document.role === 'filler');
  if (!filler) return undefined;
  const up = standingUp(tank, 0, 0);
  const mouth: Vec3 = [filler.point_m[0], filler.point_m[1], filler.point_m[2] - (filler.document.drop_m?.value ?? 0)];
  return volumeBelow(tank.mesh, { normal: up, offset_m: dot(up, mouth) });
}

/** Of the tank: a vent that the surface only touches is not flooded. */
const FLOOD_REL = 1e-9;

/** What runs out at a point of the tank over all slopes asked for, filled to the limit. */
const lostAt = (envelope: Envelope, { mesh, mounting, gross_m3, document }: TankModel, point_m: Vec3): Lost =>
  lostBy(mesh, gross_m3 * document.fillLimit_ratio.value, mounting, envelope, point_m);

/** Common practice: a cap on a neck of less than this is as good as in the lid: what covers that covers it [m]. */
const SHORT_NECK_M = 0.06;
/** Whether fuel that comes to a filler's cap runs out through it. */
const isOpenCap = ({ role, cap, length_m }: PortDocument): boolean =>
  role === 'filler' && length_m.value < SHORT_NECK_M && capWays(cap).out?.opens_Pa === 0;

const envelopeUpTo = (envelope: Envelope, lean_deg: number | undefined): Envelope => {
  if (lean_deg === undefined) return envelope;
  const most = radians(lean_deg);
  const within = ([low, high]: readonly [number, number]): [number, number] => [
    Math.max(low, -most),
    Math.min(high, most),
  ];
  return { pitch_rad: within(envelope.pitch_rad), roll_rad: within(envelope.roll_rad) };
};

function floodedVents(envelope: Envelope, tank: TankModel): FloodedVent[] {
  return tank.ports
    .filter(({ document }) => (document.role === 'vent' && !isShutByFloat(document)) || isOpenCap(document))
    .flatMap(({ document, point_m }): FloodedVent[] => {
      // Beyond the lean at which its valve shuts nothing comes out.
      const { lost_m3, pitch_rad, roll_rad } = lostAt(
        envelopeUpTo(envelope, document.shutOff?.lean_deg?.value),
        tank,
        point_m,
      );
      return lost_m3 > FLOOD_REL * tank.gross_m3 ? [{ id: document.id, lost_m3, pitch_rad, roll_rad }] : [];
    })
    .sort((a, b) => b.lost_m3 - a.lost_m3);
}

function closedVents(envelope: Envelope, tank: TankModel): ClosedVent[] {
  const corners = envelope.pitch_rad.flatMap((pitch_rad) =>
    envelope.roll_rad.map((roll_rad) => ({
      pitch_rad,
      roll_rad,
      up: unwrap(effectiveGravity({ pitch_rad, roll_rad, acceleration_mPerS2: [0, 0, 0] })).up,
    })),
  );
  const furthest = corners.reduce((most, corner) => (leanOf_rad(corner.up) > leanOf_rad(most.up) ? corner : most));
  return tank.ports.flatMap(({ document, point_m }): ClosedVent[] => {
    if (document.role !== 'vent') return [];
    const { id } = document;
    if (isShutByLean(document, furthest.up))
      return [{ id, by: 'lean', pitch_rad: furthest.pitch_rad, roll_rad: furthest.roll_rad }];
    if (!isShutByFloat(document)) return [];
    const { lost_m3, pitch_rad, roll_rad } = lostAt(envelope, tank, point_m);
    return lost_m3 > FLOOD_REL * tank.gross_m3 ? [{ id, by: 'float', pitch_rad, roll_rad }] : [];
  });
}

/** Places along each way of the lid that a vent is tried at. */
const TRIED = 9;
/** Not at the very edge of the lid. */
const INSET = 0.06;

const driestVent = (envelope: Envelope, { body, mesh, gross_m3, mounting, document }: TankModel): DryVent | undefined =>
  driestPlace(body.shell, mesh, gross_m3, document.fillLimit_ratio.value, mounting, envelope);

/** Of places all over the lid, the one where a vent loses least over the slopes asked for. */
const driestPlace = memoized(
  'driest place for a vent',
  (
    shell: ClosedMesh,
    mesh: ClosedMesh,
    gross_m3: number,
    fillLimit_ratio: number,
    mounting: Mounting,
    envelope: Envelope,
  ): DryVent | undefined => {
    const { min, max } = meshBounds(shell);
    const along = (axis: 0 | 1): number[] =>
      Array.from(
        { length: TRIED },
        (_, i) => min[axis] + (max[axis] - min[axis]) * (INSET + ((1 - 2 * INSET) * i) / (TRIED - 1)),
      );
    const lost_m3 = (point_m: Vec3): number =>
      Math.max(0, mostLost(mesh, gross_m3 * fillLimit_ratio, mounting, envelope, point_m).lost_m3);
    const places = along(0).flatMap((x_m) =>
      along(1).flatMap((y_m): DryVent[] => {
        const point = portPoint(shell, { face: 'lid', x_m: { value: x_m }, y_m: { value: y_m } });
        return point ? [{ x_m, y_m, lost_m3: lost_m3(point) }] : [];
      }),
    );
    // Of those that lose as little, the one nearest the middle.
    const off = ({ x_m, y_m }: DryVent): number => Math.hypot(x_m - (min[0] + max[0]) / 2, y_m - (min[1] + max[1]) / 2);
    return places.reduce<DryVent | undefined>(
      (best, each) =>
        !best ||
        each.lost_m3 < best.lost_m3 - FLOOD_REL * gross_m3 ||
        (each.lost_m3 < best.lost_m3 + FLOOD_REL * gross_m3 && off(each) < off(best))
          ? each
          : best,
      undefined,
    );
  },
);
