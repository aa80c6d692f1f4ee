/** A flat rectangle of sheet, clamped all round, pressed evenly. */
export type Panel = {
  readonly wide_m: number;
  readonly long_m: number;
  readonly thickness_m: number;
  readonly modulus_Pa: number;
  readonly poisson: number;
};

/**
 * By how much longer than wide it is: bending moment at the middle of its long edges, of q b², and sag of its middle,
 * of q b⁴ / D.
 * @source Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells, table 35: clamped edges; from memory
 */
const CLAMPED = [
  { ratio: 1, moment: 0.0513, sag: 0.00126 },
  { ratio: 1.1, moment: 0.0581, sag: 0.0015 },
  { ratio: 1.2, moment: 0.0639, sag: 0.00172 },
  { ratio: 1.3, moment: 0.0687, sag: 0.00191 },
  { ratio: 1.4, moment: 0.0726, sag: 0.00207 },
  { ratio: 1.5, moment: 0.0757, sag: 0.0022 },
  { ratio: 1.6, moment: 0.078, sag: 0.0023 },
  { ratio: 1.7, moment: 0.0799, sag: 0.00238 },
  { ratio: 1.8, moment: 0.0812, sag: 0.00245 },
  { ratio: 1.9, moment: 0.0822, sag: 0.00249 },
  { ratio: 2, moment: 0.0829, sag: 0.00254 },
] as const;
/** A strip, however long. @source beam clamped at both ends: q b² / 12, q b⁴ / (384 D) */
const STRIP = { moment: 1 / 12, sag: 1 / 384 };
/** From so many times its width on it is a strip. */
const STRIP_RATIO = 3;

/** Between the rows of the table, and on to the strip. */
function clamped(ratio: number): { readonly moment: number; readonly sag: number } {
  const rows = [...CLAMPED, { ratio: STRIP_RATIO, ...STRIP }];
  const after = rows.findIndex((row) => row.ratio >= ratio);
  if (after < 0) return STRIP;
  if (after === 0) return rows[0]!;
  const [a, b] = [rows[after - 1]!, rows[after]!];
  const share = (ratio - a.ratio) / (b.ratio - a.ratio);
  return { moment: a.moment + (b.moment - a.moment) * share, sag: a.sag + (b.sag - a.sag) * share };
}

const sides = ({ wide_m, long_m }: Panel): readonly [short_m: number, ratio: number] => {
  const short_m = Math.min(wide_m, long_m);
  return [short_m, Math.max(wide_m, long_m) / short_m];
};

/**
 * Pressure at which a panel's edges first give [Pa]. Of plates that bend little: as it bulges it comes to hang like a
 * cloth and bears more, so this is on the safe side.
 */
export function panelYields_Pa(panel: Panel, yield_Pa: number): number {
  const [short_m, ratio] = sides(panel);
  return (yield_Pa * panel.thickness_m ** 2) / (6 * clamped(ratio).moment * short_m ** 2);
}

/** How far a panel's middle stands out under a pressure, while it bends little [m]; more than it truly would beyond. */
export function panelBulge_m(panel: Panel, pressure_Pa: number): number {
  const [short_m, ratio] = sides(panel);
  const stiffness_Nm = (panel.modulus_Pa * panel.thickness_m ** 3) / (12 * (1 - panel.poisson ** 2));
  return (clamped(ratio).sag * pressure_Pa * short_m ** 4) / stiffness_Nm;
}
