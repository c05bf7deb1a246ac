import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';

const LOG_LEVELS = ['fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent'] as const;

/** What the process is told from outside. Empty counts as not said. */
const environment = z.object({
  HOST: z.string().default('127.0.0.1'),
  HOSTS: z.string().optional(),
  TLS: z.enum(['own', 'off'], { error: 'TLS must be own or off' }).optional(),
  TLS_CERT: z.string().optional(),
  TLS_KEY: z.string().optional(),
  BEHIND_PROXY: z.enum(['yes', 'no'], { error: 'BEHIND_PROXY must be yes or no' }).default('no'),
  PORT: z.coerce
    .number({ error: 'PORT must be a number from 0 to 65535' })
    .int('PORT must be a number from 0 to 65535, without a fraction')
    .min(0, 'PORT must be a number from 0 to 65535')
    .max(65_535, 'PORT must be a number from 0 to 65535')
    .default(4310),
  DATA_DIR: z.string().optional(),
  COPIES_DIR: z.string().optional(),
  MIGRATIONS_DIR: z.string().optional(),
  WEB_DIR: z.string().optional(),
  OPEN_DOCUMENT: z.string().optional(),
  DATABASE_URL: z
    .string()
    .regex(
      /^postgres(ql)?:\/\//,
      'DATABASE_URL must begin with postgresql://, or be left out to keep the data in a folder',
    )
    .optional(),
  LOG_LEVEL: z.enum(LOG_LEVELS, { error: `LOG_LEVEL must be one of ${LOG_LEVELS.join(', ')}` }).default('warn'),
});

export interface Config {
  readonly host: string;
  readonly port: number;
  readonly dataDir: string;
  /** Copies of the whole studio go here; it may lie on another disk. */
  readonly copiesDir: string;
  readonly migrationsDir: string;
  /** Where the built interface lies; without it only the API is served. */
  readonly webDir: string | undefined;
  /** A studio file for an empty studio to begin with. */
  readonly openDocument: string | undefined;
  /** A PostgreSQL server instead of the data folder. */
  readonly databaseUrl: string | undefined;
  readonly logLevel: (typeof LOG_LEVELS)[number];
  /** Only this computer is listened to. */
  readonly loopbackOnly: boolean;
  /** The names and addresses it answers to besides this computer’s own. */
  readonly answersTo: readonly string[];
  /** How it speaks HTTPS: by a certificate of its own, by one that is given, or not at all. */
  readonly tls: 'own' | { readonly certPath: string; readonly keyPath: string } | 'off';
  /** A proxy stands before it, speaks HTTPS and tells from whom a request comes. */
  readonly behindProxy: boolean;
}

/** A setting that can't be used. `message` says which, what it was, and what to write instead. */
export class ConfigError extends Error {}

/**
 * Reads the settings of the process, once, at its start.
 * @throws {ConfigError} where one can't be used
 */
export function readConfig(
  env: Readonly<Record<string, string | undefined>>,
  workingDir: string,
  machineNames: () => readonly string[] = namesOfMachine,
): Config {
  const given = Object.fromEntries(Object.entries(env).filter(([, value]) => value !== undefined && value !== ''));
  const read = environment.safeParse(given);
  if (!read.success)
    throw new ConfigError(
      read.error.issues.map((i) => `${i.message}, not “${String(given[String(i.path[0])])}”.`).join('\n'),
    );
  const { HOST, PORT, DATA_DIR, COPIES_DIR, MIGRATIONS_DIR, WEB_DIR, OPEN_DOCUMENT, DATABASE_URL, LOG_LEVEL } =
    read.data;
  const loopbackOnly = ['127.0.0.1', 'localhost', '::1'].includes(HOST);
  const dataDir = DATA_DIR ?? join(workingDir, 'data', 'studio');
  return {
    host: HOST,
    port: PORT,
    dataDir,
    copiesDir: COPIES_DIR ?? `${dataDir.replace(/[/\\]+$/, '')}-copies`,
    migrationsDir: MIGRATIONS_DIR ?? join(workingDir, 'server', 'db', 'migrations'),
    webDir: WEB_DIR,
    openDocument: OPEN_DOCUMENT,
    databaseUrl: DATABASE_URL,
    logLevel: LOG_LEVEL,
    loopbackOnly,
    ...readDoor(read.data, loopbackOnly, machineNames),
  };
}

function readDoor(
  { HOSTS, TLS, TLS_CERT, TLS_KEY, BEHIND_PROXY }: z.output<typeof environment>,
  loopbackOnly: boolean,
  machineNames: () => readonly string[],
): Pick<Config, 'answersTo' | 'tls' | 'behindProxy'> {
  const behindProxy = BEHIND_PROXY === 'yes';
  const given = (HOSTS ?? '')
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter((name) => name !== '');
  if (behindProxy && given.length === 0)
    throw new ConfigError('BEHIND_PROXY needs HOSTS: the name by which the studio is opened, like dyes.example.org.');
  if ((TLS_CERT === undefined) !== (TLS_KEY === undefined))
    throw new ConfigError(
      'TLS_CERT and TLS_KEY go together: the certificate and its key, each the path of a PEM file.',
    );
  const answersTo = given.length > 0 ? given : loopbackOnly ? [] : machineNames();
  if (TLS_CERT !== undefined && TLS_KEY !== undefined)
    return { answersTo, behindProxy, tls: { certPath: TLS_CERT, keyPath: TLS_KEY } };
  // Passphrases don’t go over a network in the clear, unless somebody says that they may.
  return { answersTo, behindProxy, tls: TLS ?? (loopbackOnly || behindProxy ? 'off' : 'own') };
}

/** What this machine is called on its network: its name, with the ending local names have, and its addresses. */
function namesOfMachine(): readonly string[] {
  const name = hostname().toLowerCase();
  const addresses = Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).filter((a) => !a.internal && !a.address.startsWith('fe80')).map((a) => a.address),
  );
  return [name, ...(name.includes('.') ? [] : [`${name}.local`]), ...addresses];
}
