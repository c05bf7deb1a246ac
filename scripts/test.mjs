// npm test: lint and import rules, types, units, server, build, browser. Ends with one line: N passed, N failed.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
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

/** Where a suite writes its counts. */
function countsOf(name) {
  const out = join(root, 'node_modules', '.cache', `vitest-${name}.json`);
  mkdirSync(join(root, 'node_modules', '.cache'), { recursive: true });
  rmSync(out, { force: true });
  return out;
}

/** Adds what a suite counted; one that could not even start counts as failed, and has said why above. */
function addCounts(name, out, status) {
  const results = existsSync(out) ? JSON.parse(readFileSync(out, 'utf8')) : { numPassedTests: 0, numFailedTests: 0 };
  passed += results.numPassedTests;
  failed += results.numFailedTests;
  if (status !== 0 && results.numFailedTests === 0)
    note(false, `${name} tests could not run; what stopped them stands above`);
  if (results.numTotalTests === 0) note(false, `${name} has no tests`);
}

/** Components in a simulated page, compiled by Angular. */
function componentSuite() {
  const out = countsOf('component');
  const { status } = spawnSync(
    process.execPath,
    [bin('@angular/cli/bin/ng.js'), 'test', '--reporters=dot', '--reporters=json', `--output-file=${out}`],
    { cwd: join(root, 'web'), stdio: 'inherit' },
  );
  addCounts('component', out, status);
}

/** Counts each test of a Vitest project. */
function suite(project) {
  const out = countsOf(project);
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
  addCounts(project, out, status);
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

/** npm test -- FILE …: only these spec files, of whichever kind; the browser's are built for first. */
const files = process.argv.slice(2);
if (files.length > 0) {
  if (files.some((file) => /(^|\/)e2e\//.test(file)) && !run('build', [join(root, 'scripts', 'build.mjs')]))
    process.exit(1);
  process.exit(
    spawnSync(process.execPath, [bin('vitest/vitest.mjs'), 'run', ...files], { cwd: root, stdio: 'inherit' }).status ??
      1,
  );
}

run('formatting (npm run format mends it)', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level=warn', '.']);
run('lint and import rules', [bin('eslint/bin/eslint.js'), '.']);
run('types', [bin('typescript/bin/tsc'), '-p', 'tsconfig.json', '--noEmit']);
suite('unit');
componentSuite();
suite('server');
if (run('build, with the interface’s types', [join(root, 'scripts', 'build.mjs')])) {
  if (findBrowser()) suite('e2e');
  else note(false, 'browser tests');
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
