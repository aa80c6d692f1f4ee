import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureChromium } from './chromium.mjs';
import { ensureBuilt, ensureInstalled, run, runQuietly } from './setup.mjs';

/** `npm test`: everything, one runner after the other; the last line adds them all up. */
const installed = ensureInstalled();

const reports = mkdtempSync(path.join(tmpdir(), 'gasline-test-'));
const total = { passed: 0, failed: 0 };

function count(name, { passed, failed }) {
  console.log(`-- ${name}: ${passed} passed, ${failed} failed\n`);
  total.passed += passed;
  total.failed += failed;
}

/** Checks that have no cases of their own count as one each; side by side, each shown whole when it ends. */
const checks = (all) =>
  Promise.all(
    Object.entries(all).map(async ([name, command]) => {
      const { code, output } = await runQuietly('npx', command);
      console.log(`== ${name}\n${output}`);
      count(name, code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });
    }),
  );

/** A runner whose report says how many; one that leaves no report has failed. */
function runner(name, command, args, file, read, env = {}) {
  console.log(`== ${name}`);
  const code = run(command, args, { env });
  const result = existsSync(file) ? read(JSON.parse(readFileSync(file, 'utf8'))) : { passed: 0, failed: 1 };
  count(name, code !== 0 && result.failed === 0 ? { ...result, failed: 1 } : result);
}

// None of these needs what is still being compiled.
await checks({
  format: ['prettier', '--check', '.', '--log-level', 'warn'],
  lint: ['eslint', '.', '--max-warnings', '0'],
  types: ['tsc', '--noEmit'],
  dependencies: ['depcruise', 'src', '--config', '.dependency-cruiser.cjs'],
});

await installed;
const unit = path.join(reports, 'unit.json');
runner(
  'unit',
  'npx',
  ['vitest', 'run', '--reporter=dot', '--reporter=json', `--outputFile.json=${unit}`],
  unit,
  (report) => ({
    passed: report.numPassedTests,
    failed:
      report.numFailedTests +
      report.testResults.filter((file) => file.status === 'failed' && file.assertionResults.length === 0).length,
  }),
);

console.log('== build');
const built = (await ensureBuilt()) === 0;
count('build', built ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });

const chromium = built ? ensureChromium() : undefined;
if (chromium) {
  const browser = path.join(reports, 'browser.json');
  runner(
    'browser',
    'npx',
    ['playwright', 'test', '--reporter=line,json'],
    browser,
    ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected }),
    { PLAYWRIGHT_JSON_OUTPUT_FILE: browser, GASLINE_CHROMIUM: chromium },
  );
} else {
  count('browser', { passed: 0, failed: 1 });
}

console.log(`${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);
