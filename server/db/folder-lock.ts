import { closeSync, existsSync, ftruncateSync, mkdirSync, openSync, readFileSync, writeSync } from 'node:fs';
import { hostname } from 'node:os';
import { dirname, join } from 'node:path';
import { tryLock, unlock } from 'fs-native-extensions';

/** What is there in every data folder that holds a database. */
export const FIRST_FILE = join('db', 'PG_VERSION');

/** Who has the data folder open, as the lock file tells. */
export interface Holder {
  readonly pid: number;
  readonly host: string;
  readonly since: string;
}

/** Thrown when another process has the folder; the message says who. */
export class FolderHeldError extends Error {
  constructor(
    readonly folder: string,
    readonly holder: Holder | undefined,
  ) {
    const who = holder ? `process ${holder.pid} on ${holder.host}, since ${holder.since}` : 'another process';
    super(
      `The data folder ${folder} is open already, by ${who}. Stop that one first, or give this one another DATA_DIR.`,
    );
    this.name = 'FolderHeldError';
  }
}

/** A folder that this process alone has. */
export interface FolderLock {
  /** Holds one more of its files as well, once that is there. @throws {FolderHeldError} when another process has it */
  hold(file: string): void;
  release(): void;
}

/**
 * Takes the folder for this process alone. PGlite takes no lock itself, and two processes in one folder would ruin it.
 * It is a lock of the kernel's: it goes with the process, even one that is killed, so no stale lock ever blocks a
 * start. The database's own first file is held too, so that deleting the lock file lets nobody in.
 * @throws {FolderHeldError} when another process has it
 */
export function lockFolder(folder: string, lockFile: string, now: Date): FolderLock {
  mkdirSync(dirname(lockFile), { recursive: true });
  const held: number[] = [];
  const release = (): void => {
    for (const fd of held.splice(0)) {
      unlock(fd);
      closeSync(fd);
    }
  };
  const hold = (file: string, flags = 'r+'): number => {
    const fd = openSync(file, flags);
    if (!tryLock(fd)) {
      closeSync(fd);
      throw new FolderHeldError(folder, readHolder(lockFile));
    }
    held.push(fd);
    return fd;
  };
  const own = hold(lockFile, 'a+');
  try {
    const first = join(folder, FIRST_FILE);
    if (existsSync(first)) hold(first);
  } catch (error) {
    release();
    throw error;
  }
  const holder: Holder = { pid: process.pid, host: hostname(), since: now.toISOString() };
  ftruncateSync(own, 0);
  writeSync(own, `${JSON.stringify(holder)}\n`);
  return { hold: (file) => void hold(file), release };
}

function readHolder(lockFile: string): Holder | undefined {
  try {
    return JSON.parse(readFileSync(lockFile, 'utf8')) as Holder;
  } catch {
    return undefined;
  }
}
