import { accessSync, constants, existsSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Thrown where a data folder can’t be used as it is; nothing was written in it. The message names it and says what to do. */
export class FolderUnusableError extends Error {
  constructor(
    readonly folder: string,
    detail: string,
    options?: ErrorOptions,
  ) {
    super(detail, options);
    this.name = 'FolderUnusableError';
  }
}

const codeOf = (error: unknown): string => (error as NodeJS.ErrnoException).code ?? String(error);

/**
 * Looks at a data folder before anything is written in it.
 * @returns whether there is no studio in it yet
 * @throws {FolderUnusableError} where it can’t be written in, or holds something that isn’t understood
 */
export function lookAtFolder(dataDir: string): { readonly isFresh: boolean } {
  try {
    mkdirSync(dataDir, { recursive: true });
    accessSync(dataDir, constants.R_OK | constants.W_OK | constants.X_OK);
  } catch (error) {
    throw new FolderUnusableError(
      dataDir,
      `The data folder ${dataDir} can’t be written in (${codeOf(error)}). Give the program leave to, or name another as DATA_DIR.`,
    );
  }
  const folder = join(dataDir, 'db');
  if (!existsSync(folder)) return { isFresh: true };
  if (existsSync(join(folder, 'PG_VERSION'))) return { isFresh: false };
  if (readdirSync(folder).length === 0) return { isFresh: true };
  throw new FolderUnusableError(
    dataDir,
    `The database in ${folder} is damaged: its file PG_VERSION is missing, though the folder isn’t empty. Nothing was written in it.`,
  );
}

/** What can’t be opened, said with why. */
export const damagedDatabase = (dataDir: string, error: unknown): FolderUnusableError =>
  new FolderUnusableError(
    dataDir,
    `The database in ${join(dataDir, 'db')} can’t be opened: it is damaged, or of another version (${
      error instanceof Error ? error.message.split('\n')[0] : String(error)
    }).`,
    { cause: error },
  );
