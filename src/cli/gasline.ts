import { loadKernel } from '@/core/geometry';
import { main } from './index';

await loadKernel();
process.exitCode = await main(
  process.argv.slice(2),
  (text) => console.log(text),
  (text) => console.error(text),
);
