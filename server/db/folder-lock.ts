import { closeSync, ftruncateSync, mkdirSync, openSync, readFileSync, writeSync } from 'node:fs';
import { hostname } from 'node:os';
import { dirname } from 'node:path';
import { tryLock, unlock } from 'fs-native-extensions';

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

/**
 * Takes the folder for this process alone. PGlite takes no lock itself, and two processes in one folder would ruin it.
 * It is a lock of the kernel's: it goes with the process, even one that is killed, so no stale lock ever blocks a
 * start.
 * @returns a function that lets go
 * @throws {FolderHeldError} when another process has it
 */
export function lockFolder(folder: string, lockFile: string, now: Date): () => void {
  mkdirSync(dirname(lockFile), { recursive: true });
  const fd = openSync(lockFile, 'a+');
  if (!tryLock(fd)) {
    closeSync(fd);
    throw new FolderHeldError(folder, readHolder(lockFile));
  }
  const holder: Holder = { pid: process.pid, host: hostname(), since: now.toISOString() };
  ftruncateSync(fd, 0);
  writeSync(fd, `${JSON.stringify(holder)}\n`);
  return () => {
    unlock(fd);
    closeSync(fd);
  };
}

function readHolder(lockFile: string): Holder | undefined {
  try {
    return JSON.parse(readFileSync(lockFile, 'utf8')) as Holder;
  } catch {
    return undefined;
  }
}
