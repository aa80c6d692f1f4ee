import { loadKernel } from '@/core/geometry';

/** As every worker and command does before it asks for a tank's shape. */
await loadKernel();
