import { expect } from 'vitest';

/** Asserts that a number lies within a stated tolerance, and why that one. */
export function expectClose(
  actual: number,
  wanted: number,
  tolerance: { rel?: number; abs?: number; why: string },
): void {
  const allowed = Math.max(tolerance.abs ?? 0, (tolerance.rel ?? 0) * Math.abs(wanted));
  const gap = Math.abs(actual - wanted);
  expect(gap <= allowed, `${actual} against ${wanted}: off by ${gap}, allowed ${allowed} (${tolerance.why})`).toBe(
    true,
  );
}
