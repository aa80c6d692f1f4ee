import { isRemembering } from '../memo';

/** Keys that say how a value is known or what a thing is called: no number follows from them. */
const TOLD: ReadonlySet<string> = new Set([
  'name',
  'origin',
  'spread',
  'file',
  'profileOrigin',
  'profileSpread_m',
  'spread_m',
]);

/**
 * A part of the plan without names, origins and spreads: what is left is all
 * that shapes can depend on, so that two of these being equal says
 * that nothing is to be worked out anew. Where nothing is compared, as it stands.
 */
export const sizesOf = <T>(plan: T): T => (isRemembering() ? bare(plan) : plan);

function bare<T>(plan: T): T {
  if (Array.isArray(plan)) return plan.map(bare) as T;
  if (typeof plan !== 'object' || plan === null) return plan;
  return Object.fromEntries(
    Object.entries(plan).flatMap(([key, value]) => (TOLD.has(key) ? [] : [[key, bare(value)]])),
  ) as T;
}
