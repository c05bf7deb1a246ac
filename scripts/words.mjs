// Gathers every text of the program into locale/en.json, keeps in the other languages what is still said, and names
// what they lack.
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { bundleServer } from './build.mjs';
import { root, run } from './install.mjs';

const LOCALES = join(root, 'locale');
const read = (file) => JSON.parse(readFileSync(file, 'utf8'));

/** What the interface says: messages by their ids. */
function ofInterface(folder) {
  run(
    process.execPath,
    [
      join(root, 'node_modules/@angular/cli/bin/ng.js'),
      ...['extract-i18n', '--format', 'json', '--out-file', 'web.json', '--output-path', folder],
    ],
    {
      cwd: join(root, 'web'),
      env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
      stdio: ['ignore', 'ignore', 'inherit'],
    },
  );
  return read(join(folder, 'web.json')).translations;
}

/** What the server says besides. */
export async function ofServer(folder) {
  const { MessageExtractor } = await import('@angular/localize/tools');
  const file = join(folder, 'server.mjs');
  await bundleServer(file);
  const fs = {
    resolve,
    relative: (_from, to) => to,
    readFile: (path) => readFileSync(path, 'utf8'),
    exists: () => false,
    dirname: (path) => join(path, '..'),
    isRooted: () => true,
  };
  const logger = { level: 1, debug() {}, info() {}, warn: console.warn, error: console.error };
  const extractor = new MessageExtractor(fs, logger, { basePath: folder, useSourceMaps: false });
  return Object.fromEntries(extractor.extractMessages(file).map((m) => [m.id, m.text]));
}

async function gather() {
  const folder = mkdtempSync(join(tmpdir(), 'words-'));
  try {
    const before = read(join(LOCALES, 'en.json')).translations;
    const english = { ...ofInterface(folder), ...(await ofServer(folder)) };
    write('en', english);
    for (const name of readdirSync(LOCALES).filter((n) => n !== 'en.json')) {
      const said = read(join(LOCALES, name)).translations;
      // A line that only breaks elsewhere in its template has another id, and the same words.
      const bySound = Object.fromEntries(Object.entries(before).map(([id, text]) => [unspaced(text), said[id]]));
      for (const [id, text] of Object.entries(english)) said[id] ??= bySound[unspaced(text)];
      const kept = Object.keys(english).filter((id) => said[id] !== undefined);
      write(name.replace('.json', ''), Object.fromEntries(kept.map((id) => [id, said[id]])));
      const missing = Object.keys(english).filter((id) => said[id] === undefined);
      for (const id of missing) console.log(`${name} lacks ${id}: ${english[id]}`);
      if (missing.length > 0) process.exitCode = 1;
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const unspaced = (text) => text.replace(/\s/g, '');

const write = (locale, translations) =>
  writeFileSync(join(LOCALES, `${locale}.json`), `${JSON.stringify({ locale, translations }, null, 2)}\n`);

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await gather();
