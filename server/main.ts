import '@angular/localize/init';
import { execFile } from 'node:child_process';
import { constants, setPriority } from 'node:os';
import { basename, join } from 'node:path';
import type { AddressInfo } from 'node:net';
import { isIP } from 'node:net';
import type { Logger } from 'pino';
import { pino } from 'pino';
import { createApp } from './app';
import type { Config } from './config';
import { ConfigError, readConfig } from './config';
import type { Context } from './shared/context';
import { contextOn } from './shared/context';
import { openLog } from './shared/log';
import type { CheckedCopy } from './copies/check-copy';
import { checkCopy } from './copies/check-copy';
import { restoreStudio } from './copies/restore';
import type { Checker } from './copies/studio-copies';
import { copiesIn } from './copies/studio-copies';
import type { Database } from './db/database';
import { FolderHeldError } from './db/folder-lock';
import { FolderUnusableError } from './db/folder-state';
import { NoRoomError, openFolder } from './db/open-database';
import { DatabaseHeldError, openServer } from './db/open-server';
import { importDocument } from './document/import-document';
import { readStudioFile } from './document/read-studio-file';
import { watchBlocked } from './db/watch-blocked';
import { hasStudio } from './auth/auth-store';
import type { Certificate } from './http/certificate';
import { ownCertificate, readCertificate } from './http/certificate';
import { listenWith } from './http/listen';
import { Writer } from './http/write';

const HELD_EXIT = 3;
const UNUSABLE_EXIT = 4;
const BROKEN_EXIT = 5;
/** What the process may be asked instead of serving: the first by `npm run restore`, the second by itself. */
const [RESTORE, CHECK_COPY] = ['--restore', '--check-copy'];
/** A browser's open event stream would keep the server from closing; it gets this long, then the line is cut. */
const CLOSE_PATIENCE_MS = 1000;

const config = configOrExit();
/** Opened where the folder is this process's own: until then only the console is told. */
let log: Logger = pino({ level: config.logLevel });

function configOrExit(): Config {
  try {
    return readConfig(process.env, process.cwd());
  } catch (error) {
    if (!(error instanceof ConfigError)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}

async function openDatabase(): Promise<Database> {
  const { databaseUrl, dataDir, migrationsDir } = config;
  return databaseUrl ? openServer(databaseUrl, dataDir, migrationsDir) : openFolder(dataDir, migrationsDir, new Date());
}

/** OPEN_DOCUMENT names a studio file for an empty studio to begin with; one that is open already is left alone. */
async function openGivenDocument(context: Context): Promise<void> {
  const path = config.openDocument;
  if (!path || (await hasStudio(context.database.db))) return;
  const writer = new Writer(context);
  await writer.start();
  const file = await readStudioFile(path);
  try {
    for (const { name, code } of await importDocument(context, writer, file, { openedFrom: basename(path) }))
      console.log(sayCode(name, code));
  } finally {
    file.close();
  }
}

/** Looks a copy over in a process of its own, behind whoever works. */
const checkApart: Checker = (path) =>
  new Promise((resolve, reject) => {
    const child = execFile(
      process.execPath,
      [process.argv[1] ?? '', CHECK_COPY, path],
      { maxBuffer: 1_000_000 },
      (error, out, said) => {
        if (error) reject(new Error(said.trim() || error.message));
        else resolve(JSON.parse(out) as CheckedCopy);
      },
    );
    if (child.pid !== undefined) setPriority(child.pid, constants.priority.PRIORITY_LOW);
  });

async function restore(path: string): Promise<void> {
  const { codes, replaced } = await restoreStudio(config, path, new Date());
  console.log(`The studio was brought back from ${path}.`);
  if (replaced) console.log(`What was there before lies in ${replaced}.`);
  for (const { name, code } of codes) console.log(sayCode(name, code));
}

const sayCode = (name: string, code: string): string =>
  `${name} comes in with the code ${code}, once, and then chooses a passphrase.`;

async function run(): Promise<void> {
  const [task, path = ''] = process.argv.slice(2);
  if (task === RESTORE) return restore(path);
  if (task === CHECK_COPY) {
    process.stdout.write(JSON.stringify(await checkCopy(path, config.migrationsDir)));
    return undefined;
  }
  return serve();
}

async function certificateFor({ tls, dataDir, answersTo }: Config): Promise<Certificate | undefined> {
  if (tls === 'off') return undefined;
  if (tls === 'own') return ownCertificate(join(dataDir, 'tls'), [...answersTo, 'localhost', '127.0.0.1'], new Date());
  return readCertificate(tls.certPath, tls.keyPath);
}

async function serve(): Promise<void> {
  const database = await openDatabase();
  void database.broken.then((error) => {
    console.error(error.message);
    process.exit(BROKEN_EXIT);
  });
  log = openLog(config.logLevel, config.dataDir);
  if (database.kind === 'folder') watchBlocked(config.dataDir);
  const context = contextOn(database, () => new Date(), log);
  await openGivenDocument(context);
  const { host, port, answersTo, behindProxy, webDir, copiesDir } = config;
  const certificate = await certificateFor(config);
  const listening = listenWith(
    await createApp(context, {
      answersTo,
      behindProxy,
      transport: behindProxy
        ? 'trusted'
        : certificate === undefined
          ? 'plain'
          : config.tls === 'own'
            ? 'own'
            : 'trusted',
      copies: { folder: copiesDir, check: checkApart },
      ...(webDir ? { webFolder: webDir } : {}),
    }),
    certificate,
  );
  const { server } = listening;

  let closing: Promise<void> | undefined;
  const stop = (): void => {
    closing ??= (async () => {
      const cut = setTimeout(() => listening.closeAllConnections(), CLOSE_PATIENCE_MS);
      await new Promise((resolve) => server.close(resolve));
      clearTimeout(cut);
      for (const close of context.atClose)
        await close().catch((error: unknown) => log.error({ err: error }, 'closing'));
      await database.close();
      process.exit(0);
    })();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  server.on('error', (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken by another program. Stop that one, or give this one another PORT.`
        : error.message,
    );
    void database.close().finally(() => process.exit(1));
  });
  server.listen(port, host, () => {
    const address = server.address() as AddressInfo;
    const scheme = certificate ? 'https' : 'http';
    const bound = host.includes(':') ? `[${host}]` : host;
    const shown = config.loopbackOnly ? bound : (answersTo.find((name) => !isIP(name)) ?? bound);
    console.log(`Vestigia is open at ${scheme}://${shown}:${address.port}`);
    if (config.tls === 'own' && certificate)
      console.log(
        `Its certificate is its own, so each browser asks once. It is the right one where it shows the SHA-256 fingerprint ${certificate.fingerprint}`,
      );
  });
}

/** What to do about a studio that can’t be opened: the newest good copy, and the command. */
async function wayBack(): Promise<string> {
  const [newest] = await copiesIn(config.copiesDir);
  return newest
    ? `The newest good copy is ${join(config.copiesDir, newest.name)}. To bring it back: npm run restore -- ${join(config.copiesDir, newest.name)}\nWhat is in the folder now is moved aside, not thrown away.`
    : `There is no copy in ${config.copiesDir}. If there is one elsewhere: npm run restore -- FILE`;
}

run().catch(async (error: unknown) => {
  const isHeld = error instanceof FolderHeldError || error instanceof DatabaseHeldError;
  const isUnusable = error instanceof FolderUnusableError;
  console.error(error instanceof Error ? error.message : error);
  if (isUnusable) console.error(await wayBack().catch(() => ''));
  const hasNoRoom = error instanceof NoRoomError;
  if (!isHeld && !isUnusable && !hasNoRoom) log.error({ err: error }, 'could not start');
  process.exit(isHeld ? HELD_EXIT : isUnusable || hasNoRoom ? UNUSABLE_EXIT : 1);
});
