import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import ts from 'typescript';
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

it('every function that a file of the core lends to others says what it is, in a comment', () => {
  const files = readdirSync('src/core', { recursive: true, encoding: 'utf8' }).filter(
    (file) => file.endsWith('.ts') && !file.endsWith('.test.ts'),
  );
  expect(files.length).toBeGreaterThan(100);
  const silent = files.flatMap((file) => {
    const source = ts.createSourceFile(file, readFileSync(`src/core/${file}`, 'utf8'), ts.ScriptTarget.Latest, true);
    return source.statements.flatMap((statement) => {
      const isLent = ts.canHaveModifiers(statement)
        ? ts.getModifiers(statement)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword)
        : false;
      const isFunction =
        ts.isFunctionDeclaration(statement) ||
        (ts.isVariableStatement(statement) &&
          statement.declarationList.declarations.some(
            ({ initializer }) => initializer !== undefined && ts.isArrowFunction(initializer),
          ));
      return isLent && isFunction && ts.getJSDocCommentsAndTags(statement).length === 0
        ? [`${file}: ${statement.getText().slice(0, 60)}`]
        : [];
    });
  });
  expect(silent).toEqual([]);
});
