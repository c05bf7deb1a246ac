// npm test: lint and import rules, types, units, server, build, browser. Ends with one line: N passed, N failed.
import { spawn, spawnSync } from 'node:child_process';
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
const bin = (name) => join(root, 'node_modules', name);

/** Runs a program beside another; what it says comes out in one piece when it has ended. */
function runProgram(args, cwd = root) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, { cwd, stdio: ['ignore', 'pipe', 'pipe'] });
    const said = [];
    child.stdout.on('data', (chunk) => said.push(chunk));
    child.stderr.on('data', (chunk) => said.push(chunk));
    child.on('error', (error) => said.push(Buffer.from(`${error}\n`)));
    child.on('close', (status) => {
      process.stdout.write(Buffer.concat(said));
      resolve(status === 0);
    });
  });
}

async function check(name, args) {
  const ok = await runProgram(args);
  note(ok, name);
  return ok;
}

/** Runs tests and adds what they counted; a suite that could not even start counts as failed, and has said why. */
async function suite(name, argsFor, cwd = root) {
  const out = join(root, 'node_modules', '.cache', `vitest-${name}.json`);
  mkdirSync(join(root, 'node_modules', '.cache'), { recursive: true });
  rmSync(out, { force: true });
  const ok = await runProgram(argsFor(out), cwd);
  const results = existsSync(out) ? JSON.parse(readFileSync(out, 'utf8')) : { numPassedTests: 0, numFailedTests: 0 };
  passed += results.numPassedTests;
  failed += results.numFailedTests;
  if (!ok && results.numFailedTests === 0) note(false, `${name} tests could not run; what stopped them stands above`);
  if (results.numTotalTests === 0) note(false, `${name} has no tests`);
}

/** Components in a simulated page, compiled by Angular. */
const componentSuite = () =>
  suite(
    'component',
    (out) => [bin('@angular/cli/bin/ng.js'), 'test', '--reporters=dot', '--reporters=json', `--output-file=${out}`],
    join(root, 'web'),
  );

/** Each test of a Vitest project. */
const projectSuite = (project) =>
  suite(project, (out) => [
    bin('vitest/vitest.mjs'),
    'run',
    '--project',
    project,
    '--reporter=dot',
    '--reporter=json',
    `--outputFile.json=${out}`,
  ]);

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
const build = [join(root, 'scripts', 'build.mjs')];
if (files.length > 0) {
  if (files.some((file) => /(^|\/)e2e\//.test(file)) && !(await check('build', build))) process.exit(1);
  process.exit(
    spawnSync(process.execPath, [bin('vitest/vitest.mjs'), 'run', ...files], { cwd: root, stdio: 'inherit' }).status ??
      1,
  );
}

async function checkText() {
  await check('formatting (npm run format mends it)', [
    bin('prettier/bin/prettier.cjs'),
    '--check',
    '--log-level=warn',
    '.',
  ]);
  await check('lint and import rules', [bin('eslint/bin/eslint.js'), '.']);
  await check('types', [bin('typescript/bin/tsc'), '-p', 'tsconfig.json', '--noEmit']);
  await check('types of the service worker', [bin('typescript/bin/tsc'), '-p', 'web/service-worker']);
}
async function checkInterface() {
  await componentSuite();
  return check('build, with the interface’s types', build);
}

// Two at a time: one by one, each leaves a processor with half its time to spare.
await Promise.all([checkText(), projectSuite('unit')]);
const [isBuilt] = await Promise.all([checkInterface(), projectSuite('server')]);
if (isBuilt) {
  if (findBrowser()) await projectSuite('e2e');
  else note(false, 'browser tests');
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
