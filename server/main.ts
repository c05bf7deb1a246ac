import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { createApp } from './app';
import type { Config } from './config';
import { ConfigError, readConfig } from './config';
import type { Context } from './shared/context';
import { ChangeBus } from './shared/context';
import type { Database } from './db/database';
import { FolderHeldError } from './db/folder-lock';
import { DatabaseHeldError, openFolder, openServer } from './db/open-database';
import { importDocument } from './document/import-document';
import { readStudioFile } from './document/read-studio-file';
import { hasStudio } from './auth/auth-store';
import { Writer } from './http/write';

const HELD_EXIT = 3;
/** A browser's open event stream would keep the server from closing; it gets this long, then the line is cut. */
const CLOSE_PATIENCE_MS = 1000;

const config = configOrExit();
const log = pino({ level: config.logLevel });

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
    for (const { name, code } of await importDocument(context, writer, file))
      console.log(`${name} comes in with the code ${code}, once, and then chooses a passphrase.`);
  } finally {
    file.close();
  }
}

async function main(): Promise<void> {
  const database = await openDatabase();
  const context: Context = {
    database,
    clock: () => new Date(),
    log,
    changes: new ChangeBus(),
    watchers: [],
    atClose: [],
  };
  await openGivenDocument(context);
  const { host, port, loopbackOnly, webDir } = config;
  const server = createServer(await createApp(context, { loopbackOnly, ...(webDir ? { webFolder: webDir } : {}) }));

  let closing: Promise<void> | undefined;
  const stop = (): void => {
    closing ??= (async () => {
      const cut = setTimeout(() => server.closeAllConnections(), CLOSE_PATIENCE_MS);
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
    console.log(`Vestigia is open at http://${host.includes(':') ? `[${host}]` : host}:${address.port}`);
  });
}

main().catch((error: unknown) => {
  const expected = error instanceof FolderHeldError || error instanceof DatabaseHeldError;
  console.error(expected || error instanceof Error ? error.message : error);
  if (!expected) log.error({ err: error }, 'could not start');
  process.exit(expected ? HELD_EXIT : 1);
});
