import { execFileSync } from 'node:child_process';
import { expect, it } from 'vitest';

it('no file that the build or the tests read is left out of the repository by .gitignore', () => {
  const ignored = execFileSync(
    'git',
    [
      'ls-files',
      '--others',
      '--ignored',
      '--exclude-standard',
      '--',
      'src',
      'tests',
      'demo',
      'bench',
      'drill',
      'scripts',
      'docs',
    ],
    { encoding: 'utf8' },
  );
  expect(ignored).toBe('');
});
