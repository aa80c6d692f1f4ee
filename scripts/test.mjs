import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { ensureChromium } from './chromium.mjs';
import { ensureBuilt, ensureInstalled, run, runQuietly } from './setup.mjs';

/** `npm test`: everything, one runner after the other; the last line adds them all up. */
const installed = ensureInstalled();

const reports = mkdtempSync(path.join(tmpdir(), 'gasline-test-'));
const total = { passed: 0, failed: 0 };
/** What failed, each with why, and what passed only at the second try: told at the end, where it is looked for. */
const [faults, seconds] = [[], []];

function count(name, { passed, failed, why = [], second = [] }) {
  console.log(`-- ${name}: ${passed} passed, ${failed} failed\n`);
  total.passed += passed;
  total.failed += failed;
  faults.push(...why);
  seconds.push(...second);
}

const MOST_LINES = 25;
const fault = (name, message = '') =>
  [`-- ${name}`, ...stripVTControlCharacters(message).split('\n').slice(0, MOST_LINES)].join('\n   ');

/** Checks that have no cases of their own count as one each; side by side, each shown whole when it ends. */
const checks = (all) =>
  Promise.all(
    Object.entries(all).map(async ([name, command]) => {
      const { code, output } = await runQuietly('npx', command);
      console.log(`== ${name}\n${output}`);
      count(name, code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1, why: [fault(name, output)] });
    }),
  );

/** A runner whose report says how many; one that leaves no report has failed. */
function runner(name, command, args, file, read, env = {}) {
  console.log(`== ${name}`);
  const code = run(command, args, { env });
  const result = existsSync(file)
    ? read(JSON.parse(readFileSync(file, 'utf8')))
    : { passed: 0, failed: 1, why: [fault(name, 'It left no report.')] };
  count(
    name,
    code !== 0 && result.failed === 0 ? { ...result, failed: 1, why: [fault(name, `It ended with ${code}.`)] } : result,
  );
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
    why: report.testResults.flatMap(({ name, status, message, assertionResults }) =>
      status === 'failed' && assertionResults.length === 0
        ? [fault(name, message)]
        : assertionResults
            .filter((each) => each.status === 'failed')
            .map((each) => fault(each.fullName, each.failureMessages[0])),
    ),
  }),
);

/** Tests of a report by Playwright that ended so, each with why its first try did not pass. */
const ended = (how, { specs = [], suites = [] }) => [
  ...specs.flatMap(({ title, file, tests }) =>
    tests
      .filter(({ status }) => status === how)
      .map(({ results }) => fault(`${file}: ${title}`, results[0]?.error?.message)),
  ),
  ...suites.flatMap((suite) => ended(how, suite)),
];

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
    (report) => ({
      passed: report.stats.expected + report.stats.flaky,
      failed: report.stats.unexpected,
      why: ended('unexpected', report),
      second: ended('flaky', report),
    }),
    { PLAYWRIGHT_JSON_OUTPUT_FILE: browser, GASLINE_CHROMIUM: chromium },
  );
} else {
  count('browser', { passed: 0, failed: 1 });
}

if (seconds.length > 0) console.log(`== Passed only at the second try\n${seconds.join('\n\n')}\n`);
if (faults.length > 0) console.log(`== What failed\n${faults.join('\n\n')}\n`);
console.log(`${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);
