// npm test: lint and import rules, types, units, server, build, browser. Ends with one line: N passed, N failed.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { install, root } from './install.mjs';

install();
let passed = 0;
let failed = 0;
const note = (ok, name) => {
  if (ok) passed += 1;
  else failed += 1;
  console.log(`${ok ? 'ok' : 'FAILED'}: ${name}`);
};
const run = (name, args, options = {}) => {
  const { status } = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit', ...options });
  note(status === 0, name);
  return status === 0;
};
const bin = (name) => join(root, 'node_modules', name);

/** Counts each test of a Vitest project; one that could not even be read counts as failed. */
function suite(project) {
  const out = join(root, 'node_modules', '.cache', `vitest-${project}.json`);
  mkdirSync(join(root, 'node_modules', '.cache'), { recursive: true });
  const { status } = spawnSync(
    process.execPath,
    [
      bin('vitest/vitest.mjs'),
      'run',
      '--project',
      project,
      '--reporter=dot',
      '--reporter=json',
      `--outputFile.json=${out}`,
    ],
    { cwd: root, stdio: 'inherit' },
  );
  const results = existsSync(out) ? JSON.parse(readFileSync(out, 'utf8')) : { numPassedTests: 0, numFailedTests: 0 };
  passed += results.numPassedTests;
  failed += results.numFailedTests;
  if (status !== 0 && results.numFailedTests === 0) note(false, `${project} tests could not run`);
  if (results.numTotalTests === 0) note(false, `${project} has no tests`);
}

/** Debian's Chromium, installed where this process may install it. */
function findBrowser() {
  const there = () =>
    ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome', process.env.CHROMIUM ?? ''].some(
      (path) => path !== '' && existsSync(path),
    );
  if (there()) return true;
  if (process.getuid?.() === 0 && spawnSync('apt-get', ['--version'], { stdio: 'ignore' }).status === 0) {
    console.log('Installing Chromium …');
    spawnSync('apt-get', ['update', '-q'], { stdio: 'ignore' });
    spawnSync('apt-get', ['install', '-y', '-q', '--no-install-recommends', 'chromium'], { stdio: 'ignore' });
  }
  if (there()) return true;
  console.log(
    'The browser tests need Debian’s package “chromium”, which is not here and can’t be installed from here. Install it, or set CHROMIUM to where a Chromium is.',
  );
  return false;
}

run('lint and import rules', [bin('eslint/bin/eslint.js'), '.']);
run('types', [bin('typescript/bin/tsc'), '-p', 'tsconfig.json', '--noEmit']);
suite('unit');
suite('server');
if (run('build, with the interface’s types', [join(root, 'scripts', 'build.mjs')])) {
  if (findBrowser()) suite('e2e');
  else note(false, 'browser tests');
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
