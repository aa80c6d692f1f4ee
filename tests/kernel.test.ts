import { expect, it } from 'vitest';
import { KERNEL } from '@/core/network/kernel/bytes';
import { compiledKernel } from '../scripts/kernel';

it('the kernel that the app runs is the one its source compiles to', async () => {
  expect(await compiledKernel()).toContain(`'${KERNEL}'`);
});
