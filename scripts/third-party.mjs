// npm run licences: writes docs/third-party.md, the licence of everything that ships, fonts included.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')).packages;

/** Where Node finds a package that is asked for from a folder of the lock file. */
function locate(name, from) {
  for (let at = from; ; at = at.includes('/node_modules/') ? at.slice(0, at.lastIndexOf('/node_modules/')) : '') {
    const path = `${at === '' ? '' : `${at}/`}node_modules/${name}`;
    if (lock[path]) return lock[path].link ? lock[path].resolved : path;
    if (at === '') return undefined;
  }
}

const seen = new Map();
const waiting = Object.keys(lock).filter((path) => ['', 'core', 'contract', 'server', 'web'].includes(path));
while (waiting.length > 0) {
  const path = waiting.pop();
  for (const name of Object.keys(lock[path]?.dependencies ?? {})) {
    const found = locate(name, path);
    if (found === undefined || seen.has(found)) continue;
    seen.set(found, name);
    waiting.push(found);
  }
}

const rows = [...seen]
  .filter(([path]) => path.includes('node_modules/') && existsSync(join(root, path, 'package.json')))
  .map(([path, name]) => {
    const about = JSON.parse(readFileSync(join(root, path, 'package.json'), 'utf8'));
    const licence = typeof about.license === 'string' ? about.license : (about.license?.type ?? 'see the package');
    return `| ${name} | ${about.version} | ${licence} |`;
  })
  .sort((a, b) => (a.toLowerCase() < b.toLowerCase() ? -1 : 1));
const text = `# Third-party software

Everything that ships with Vestigia and was not written here: packages of the server and the interface, fonts included. Their licence texts lie in \`node_modules/<name>/\`. Made by \`npm run licences\`; do not edit.

| package | version | licence |
| ------- | ------- | ------- |
${[...new Set(rows)].join('\n')}
`;
writeFileSync(join(root, 'docs', 'third-party.md'), text);
console.log(`${new Set(rows).size} packages`);
