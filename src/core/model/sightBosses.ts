import type { PortDocument, SightTubeDocument, TankDocument } from '../plan/schema';
import { ACROSS_FACE } from '../plan/references';
import { chosen } from '../schema/known';
import { portPart } from '../reference/portParts';

/** Which of a sight tube's two bosses, by the field of its height. */
export const BOSS_ENDS = ['lower_m', 'upper_m'] as const;
export type BossEnd = (typeof BOSS_ENDS)[number];

/** A boss of a sight tube as a port of its wall, where the part that it is made of is chosen. */
export function bossPort(sight: SightTubeDocument, end: BossEnd): PortDocument | undefined {
  if (!sight.boss) return undefined;
  return {
    id: `${sight.id} ${end}`,
    name: `${sight.name}, ${end === 'lower_m' ? 'lower' : 'upper'} boss`,
    role: 'sender',
    face: sight.face,
    [ACROSS_FACE[sight.face] === 'x_m' ? 'y_m' : 'x_m']: sight.along_m,
    z_m: sight[end],
    bore_m: chosen(portPart(sight.boss).bore),
    length_m: chosen(0),
    part: sight.boss,
  };
}

/** All bosses of a tank's sight tubes whose part is chosen, with the tube that each belongs to. */
export const bossPorts = ({
  sightTubes,
}: Pick<TankDocument, 'sightTubes'>): {
  readonly port: PortDocument;
  readonly index: number;
  readonly boss: BossEnd;
}[] =>
  sightTubes.flatMap((sight, index) =>
    BOSS_ENDS.flatMap((boss) => {
      const port = bossPort(sight, boss);
      return port ? [{ port, index, boss }] : [];
    }),
  );
