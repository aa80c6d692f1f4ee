import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['src/**/*.test.ts', 'tests/**/*.test.ts'],
    setupFiles: ['tests/setup.ts'],
    environment: 'node',
    reporters: ['dot'],
    // One set of modules for all files of a worker: loading the kernel and the schema for each took longer than the
    // tests.
    isolate: false,
    // All of the machine: nothing else runs meanwhile.
    maxWorkers: availableParallelism(),
    testTimeout: 180_000,
  },
});
