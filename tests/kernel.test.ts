import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { solveNetwork } from '@/core/network';
import { KERNEL } from '@/core/network/kernel/bytes';
import { lawFor, runKernel, type Kernel } from '@/core/network/kernel';
import { compiledKernel } from '../scripts/kernel';
import { plainKernel } from '../scripts/plainKernel';
import { randomNetwork } from './independent/networkFuzz';

it('the kernel that the app runs is the one its source compiles to', async () => {
  expect(await compiledKernel()).toContain(`'${KERNEL}'`);
});

describe('the compiled kernel and its own source run as plain JavaScript', () => {
  let plain: Kernel;
  beforeAll(async () => {
    plain = await plainKernel(lawFor);
  });
  afterAll(() => runKernel(undefined));

  it('give the same flows and pressures of 300 drawn networks, and fail alike', () => {
    let solved = 0;
    for (let seed = 1; seed <= 300; seed++) {
      const network = randomNetwork(seed, seed % 3);
      runKernel(undefined);
      const compiled = solveNetwork(network);
      runKernel(plain);
      const reference = solveNetwork(network);
      expect(reference.ok, `seed ${seed}`).toBe(compiled.ok);
      if (!compiled.ok || !reference.ok) continue;
      solved++;
      // Logarithms differ in the last place between the two; steps end where that no longer tells.
      const largest = Math.max(1e-9, ...[...compiled.value.links.values()].map((link) => Math.abs(link.flow_m3PerS)));
      for (const [id, { flow_m3PerS }] of compiled.value.links)
        expect(Math.abs(reference.value.links.get(id)!.flow_m3PerS - flow_m3PerS), `seed ${seed}, ${id}`).toBeLessThan(
          1e-7 * largest,
        );
    }
    expect(solved).toBeGreaterThan(200);
  });
});
