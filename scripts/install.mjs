// Installs what is missing, once for each state of the lock file. Node's own modules only: it runs before anything is
// installed.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));
const OLDEST = [20, 19];

/** Runs a command in the project and stops with its own exit code if it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (error || status !== 0) {
    console.error(`${command} ${args.join(' ')} did not work${error ? `: ${error.message}` : ''}.`);
    process.exit(status || 1);
  }
}

export function install() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < OLDEST[0] || (major === OLDEST[0] && minor < OLDEST[1])) {
    console.error(`Vestigia needs Node ${OLDEST.join('.')} or newer; this is ${process.version}.`);
    process.exit(1);
  }
  const stamp = `${root}node_modules/.installed-for`;
  const wanted = createHash('sha256')
    .update(readFileSync(`${root}package-lock.json`))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing what is missing …');
  // Not «npm ci»: npm 11 leaves other platforms' optional packages out of the lock file and then refuses its own file.
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, wanted);
}
