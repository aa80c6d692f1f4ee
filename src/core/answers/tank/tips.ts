import { outerMesh } from '../../model/compileFit';
import { tankModel, type ModelCode } from '../../model';
import { sharedWall } from '../../model/sharedWall';
import type { TankModel } from '../../model/compileTank';
import { convexHull, dot, meshBounds, vertex, type Point2, type Vec3 } from '../../geometry';
import { failure, success, type Outcome } from '../../outcome';
import { shellsIn } from '../../plan/divider';
import { edgesOf, rigidTip_rad, tipAngle_rad, type Standing, type TipEdge } from '../../tank';
import { tankFluid } from '../flow/flowInputs';
import type { Stood } from './standing';
import { metalOf } from './tankResult';

/** Of what it holds to its limit. */
export const TIP_FILLS = ['empty', 'half', 'full'] as const;
export type TipFill = (typeof TIP_FILLS)[number];
export const SHARES: Readonly<Record<TipFill, number>> = { empty: 0, half: 0.5, full: 1 };

export const MAIN_WAYS = ['fore', 'aft', 'port', 'starboard'] as const;
export type TipWay = (typeof MAIN_WAYS)[number] | 'least';
const WAYS: Readonly<Record<(typeof MAIN_WAYS)[number], Vec3>> = {
  fore: [1, 0, 0],
  aft: [-1, 0, 0],
  port: [0, 1, 0],
  starboard: [0, -1, 0],
};

/** The lean at which a tank goes over one way, at each filling [rad]. */
export type TipRow = { readonly way: TipWay; readonly angles_rad: Readonly<Record<TipFill, number>> };

export type Tips = {
  /** What it stands on: nothing wider than this is no base [m]. */
  readonly base_m: readonly [number, number];
  /** Each way, and the way in which it goes over first where that is none of them. */
  readonly rows: readonly TipRow[];
};

/** Points of a floor that lie within this of the lowest carry it [m]. */
const ON_GROUND_M = 2e-5;
/** A base that is narrower lets it roll [m]. */
const LEAST_BASE_M = 5e-3;
/** So many edges are tried that look weakest with the liquid frozen. */
const WEAKEST = 3;
/** A way that is weaker than the four by less is none to be told [rad]. */
const TOLD_RAD = (0.5 * Math.PI) / 180;

export type TipsCode = ModelCode | 'temperature-range' | 'no-base' | 'not-found';

/**
 * How far a tank that is set down loose on level ground leans before it goes over, its liquid level all the while: on
 * its own floor, with nothing else to stand on; those of one shell together.
 */
export function tipsOf(system: Stood, t: number): Outcome<Tips, TipsCode> {
  const loose = looseOf(system, t);
  if (!loose.ok) return loose;
  const base = baseOf(loose.value.members.map(({ tank }) => tank));
  if (!base.ok) return base;
  const rows = rowsOver(base.value.edges, loose.value);
  return rows.ok ? success({ base_m: base.value.span_m, rows: rows.value }) : rows;
}

/** The tanks of one shell as something that stands or hangs by itself. */
export type Loose = {
  readonly name: string;
  readonly members: readonly { readonly tank: TankModel; readonly density_kgPerM3: number }[];
  /** Filled to a share of their limits. */ readonly standing: (share: number) => Standing;
};

/** The tanks of one shell, set down or hung up by themselves. */
export function looseOf(system: Stood, t: number): Outcome<Loose, TipsCode> {
  const shell = shellsIn(system.tanks).find((tanks) => tanks.includes(system.tanks[t]!)) ?? [];
  const members: { readonly tank: TankModel; readonly density_kgPerM3: number }[] = [];
  for (const [k, document] of system.tanks.entries()) {
    if (!shell.includes(document)) continue;
    const [tank, fluid] = [tankModel(system, k), tankFluid(system, k)];
    if (!tank.ok) return tank;
    if (!fluid.ok) return failure('temperature-range', document.name, fluid.error.detail);
    members.push({ tank: tank.value, density_kgPerM3: fluid.value.density_kgPerM3 });
  }
  if (members.length === 0) return failure('no-tank', 'tanks', 'There is no such tank.');
  const fixed = members.flatMap(({ tank }) => metalOf(tank, sharedWall(system.tanks, tank.document)));
  return success({
    name: shell[0]!.name,
    members,
    standing: (share) => ({
      fixed,
      liquids: members.map(({ tank, density_kgPerM3 }) => ({
        mesh: tank.mesh,
        volume_m3: share * tank.gross_m3 * tank.document.fillLimit_ratio.value,
        density_kgPerM3,
      })),
    }),
  });
}

/** The leans at which it goes over the edges of what it stands on, each way and the weakest. */
export function rowsOver(
  edges: readonly TipEdge[],
  { name, standing }: Pick<Loose, 'name' | 'standing'>,
): Outcome<TipRow[], 'not-found'> {
  const chosen = MAIN_WAYS.map((way) => ({ way, edge: facing(edges, way) }));
  const rows: TipRow[] = [];
  const least = {} as Record<TipFill, number>;
  const angles = new Map<TipEdge, Record<TipFill, number>>();
  for (const fill of TIP_FILLS) {
    const stands = standing(SHARES[fill]);
    const weakest = [...edges]
      .map((edge) => ({ edge, guess: rigidTip_rad(stands, edge) ?? 0 }))
      .sort((a, b) => a.guess - b.guess)
      .slice(0, WEAKEST)
      .map(({ edge }) => edge);
    least[fill] = Infinity;
    for (const edge of new Set([...chosen.map((each) => each.edge), ...weakest])) {
      const angle = tipAngle_rad(stands, edge);
      if (angle === undefined) return failure('not-found', name, 'How it leans could not be worked out.');
      angles.set(edge, { ...(angles.get(edge) ?? ({} as Record<TipFill, number>)), [fill]: angle });
      least[fill] = Math.min(least[fill], angle);
    }
  }
  for (const { way, edge } of chosen) rows.push({ way, angles_rad: angles.get(edge)! });
  const isWeaker = TIP_FILLS.some(
    (fill) => least[fill] < Math.min(...rows.map(({ angles_rad }) => angles_rad[fill])) - TOLD_RAD,
  );
  return success(isWeaker ? [...rows, { way: 'least', angles_rad: least }] : rows);
}

/** The edge that looks one way most. */
export const facing = (edges: readonly TipEdge[], way: (typeof MAIN_WAYS)[number]): TipEdge =>
  edges.reduce((best, edge) => (dot(edge.out, WAYS[way]) > dot(best.out, WAYS[way]) ? edge : best));

/** The level outline that a tank stands on, and how high that is. */
export type Base = {
  readonly outline: readonly Point2[];
  readonly low_m: number;
  readonly edges: readonly TipEdge[];
  readonly span_m: readonly [number, number];
};

/** What a tank stands on. */
export function baseOf(tanks: readonly TankModel[]): Outcome<Base, TipsCode> {
  const outers = [];
  for (const { document } of tanks) {
    const outer = outerMesh(document);
    if (!outer.ok) return failure('bad-shape', document.name, outer.error.detail);
    outers.push(outer.value);
  }
  const low = Math.min(...outers.map((mesh) => meshBounds(mesh).min[2]));
  const feet = outers.flatMap((mesh) =>
    Array.from({ length: mesh.positions.length / 3 }, (_, i) => vertex(mesh, i)).flatMap(([x, y, z]): Point2[] =>
      z < low + ON_GROUND_M ? [[x, y]] : [],
    ),
  );
  const outline = convexHull(feet);
  const span = ([0, 1] as const).map(
    (k) => Math.max(...feet.map((at) => at[k])) - Math.min(...feet.map((at) => at[k])),
  ) as [number, number];
  return outline.length < 3 || Math.min(...span) < LEAST_BASE_M
    ? failure(
        'no-base',
        tanks[0]!.document.name,
        'It stands on a line or a point: it rolls at once, unless something holds it.',
      )
    : success({ outline, low_m: low, edges: edgesOf(outline, low), span_m: span });
}
