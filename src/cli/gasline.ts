import { isMainThread, workerData } from 'node:worker_threads';
import { loadKernel } from '@/core/geometry';
import { answerBeside, clearancesBeside, type BesideData } from './clearancesBeside';
import { main } from './index';

await loadKernel();
if (!isMainThread) answerBeside(workerData as BesideData);
else
  process.exitCode = await main(
    process.argv.slice(2),
    (text) => console.log(text),
    (text) => console.error(text),
    clearancesBeside(new URL(import.meta.url)),
  );
