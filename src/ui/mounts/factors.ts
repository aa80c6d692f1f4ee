/** A factor as it is told: never more than is sure, and no finer than loads are known. */
export function factorText(factor: number): string {
  if (factor >= 10) return `over ${Math.floor(factor) >= 100 ? 100 : Math.floor(factor / 10) * 10}`;
  return (Math.floor(factor * 10 + 1e-9) / 10).toFixed(1);
}
