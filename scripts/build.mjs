// Builds server and interface into dist/, unless the sources are as they were at the last build.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { install, root, run } from './install.mjs';

const SOURCES = ['core', 'locale', 'contract', 'server', 'web', 'package-lock.json', 'scripts/build.mjs'];

function digest(path, hash) {
  if (statSync(path).isDirectory()) {
    for (const name of readdirSync(path).sort())
      if (!['node_modules', '.angular', 'dist'].includes(name) && !/\.(spec|test)\.ts$/.test(name))
        digest(join(path, name), hash);
  } else hash.update(path.slice(root.length)).update(readFileSync(path));
  return hash;
}

export async function build() {
  install();
  const hash = createHash('sha256');
  for (const source of SOURCES) digest(join(root, source), hash);
  const wanted = hash.digest('hex');
  const stamp = join(root, 'dist', 'built-from');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Building …');
  mkdirSync(join(root, 'dist'), { recursive: true });
  await bundleServer(join(root, 'dist/server/main.mjs'));
  run(process.execPath, [join(root, 'node_modules/@angular/cli/bin/ng.js'), 'build'], {
    cwd: join(root, 'web'),
    // A place was some fifty small files, each fetched and evaluated by itself; put together where they go together, they
    // are half as many, and the page stands still half as long.
    env: { ...process.env, NG_CLI_ANALYTICS: 'false', NG_BUILD_OPTIMIZE_CHUNKS: '1' },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const { build: bundle } = await import('esbuild');
  await bundle({
    entryPoints: [join(root, 'web/service-worker/service-worker.ts')],
    outfile: join(root, 'dist/web/browser/sw.js'),
    bundle: true,
    minify: true,
    target: 'es2022',
    define: { BUILT_FILES: JSON.stringify(interfaceFiles()), 'process.env.NODE_ENV': '"production"' },
    logLevel: 'warning',
  });
  writeFileSync(stamp, wanted);
}

/** The server as one file. */
export async function bundleServer(outfile) {
  const { build: bundle } = await import('esbuild');
  await bundle({
    entryPoints: [join(root, 'server/main.ts')],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    alias: { '@vestigia/core': join(root, 'core/index.ts'), '@vestigia/contract': join(root, 'contract/index.ts') },
    logLevel: 'warning',
  });
}

/** What a tablet keeps of the interface: every file, with a revision where its name doesn't tell one build from another. */
function interfaceFiles() {
  const folder = join(root, 'dist/web/browser');
  return readdirSync(folder, { recursive: true })
    .filter((name) => statSync(join(folder, name)).isFile() && !['robots.txt', 'sw.js'].includes(name))
    .sort()
    .map((name) => ({
      url: `/${name.replaceAll('\\', '/')}`,
      revision: /-[A-Z0-9]{8}\.\w+$/.test(name)
        ? null
        : createHash('sha256')
            .update(readFileSync(join(folder, name)))
            .digest('hex'),
    }));
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await build();
