import { CholeskyDecomposition, EigenvalueDecomposition, inverse, Matrix } from 'ml-matrix';
import type { Vec3 } from '../geometry';
import { wrenchOf, type Leg, type Shift } from './statics';

/** One spring: on the body at a point along a unit vector, or over several as one string. */
export type LineSpring = { readonly legs: readonly Leg[]; readonly rate_NPerM: number };

/** A rigid body about its own centre of gravity. */
export type RigidMass = {
  readonly mass_kg: number;
  /** Moments and products of inertia, row by row [kg·m²]. */ readonly inertia_kgm2: readonly [Vec3, Vec3, Vec3];
};

/** One way in which it swings by itself. */
export type Mode = {
  /** 0 where nothing holds it that way. */ readonly frequency_Hz: number;
  /** How its centre goes and how it turns, in any measure. */ readonly goes: Shift;
};

function rowOf({ legs }: LineSpring): number[] {
  const { force_N, moment_Nm } = wrenchOf(legs);
  return [...force_N, ...moment_Nm];
}

/** The stiffness of a body on springs, forces and moments about its centre [N/m, N, N·m]. */
export function stiffnessOf(springs: readonly LineSpring[]): Matrix {
  const all = Matrix.zeros(6, 6);
  for (const spring of springs) {
    const row = Matrix.columnVector(rowOf(spring));
    all.add(row.mmul(row.transpose()).mul(spring.rate_NPerM));
  }
  return all;
}

/**
 * The six ways in which a rigid body on springs swings by itself, slowest first.
 *
 * @param springs about the body's centre of gravity
 * @param body with mass and inertia over zero
 * @source mechanical vibration: K·x = ω²·M·x, with M = L·Lᵀ brought to a symmetric problem
 */
export function naturalModes(springs: readonly LineSpring[], { mass_kg, inertia_kgm2 }: RigidMass): Mode[] {
  const mass = Matrix.zeros(6, 6);
  for (let k = 0; k < 3; k++) {
    mass.set(k, k, mass_kg);
    for (let j = 0; j < 3; j++) mass.set(3 + k, 3 + j, (inertia_kgm2[k]![j]! + inertia_kgm2[j]![k]!) / 2);
  }
  const half = inverse(new CholeskyDecomposition(mass).lowerTriangularMatrix);
  const even = half.mmul(stiffnessOf(springs)).mmul(half.transpose());
  // To the last digit alike across, as the decomposition wants it.
  const symmetric = Matrix.add(even, even.transpose()).mul(0.5);
  const found = new EigenvalueDecomposition(symmetric, { assumeSymmetric: true });
  const most = Math.max(0, ...found.realEigenvalues);
  return found.realEigenvalues
    .map((value, i): Mode => {
      const way = half.transpose().mmul(found.eigenvectorMatrix.getColumnVector(i)).to1DArray();
      return {
        // Below what rounding leaves of the stiffest nothing holds it.
        frequency_Hz: value <= 1e-12 * most ? 0 : Math.sqrt(value) / (2 * Math.PI),
        goes: { shift_m: [way[0]!, way[1]!, way[2]!], turn_rad: [way[3]!, way[4]!, way[5]!] },
      };
    })
    .sort((a, b) => a.frequency_Hz - b.frequency_Hz);
}
