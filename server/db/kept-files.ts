import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, existsSync } from 'node:fs';
import { mkdir, open, readFile, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { syncToDisk } from './disk-flush';

/** What a kept file is found by: its contents’ SHA-256, and how long it is. */
export interface KeptFile {
  readonly sha256: string;
  readonly bytes: number;
}

const SHA256 = /^[0-9a-f]{64}$/;

/** Thrown where a kept file is gone or isn’t what it was. */
export class FileDamagedError extends Error {
  constructor(
    readonly sha256: string,
    readonly path: string,
    what: 'missing' | 'changed',
  ) {
    super(
      what === 'missing'
        ? `A kept photograph or sheet is missing: ${path}. Bring it back from a backup.`
        : `A kept photograph or sheet was changed on the disk: ${path}. Bring it back from a backup.`,
    );
    this.name = 'FileDamagedError';
  }
}

/**
 * Photographs and sheets, each a file named by what is in it, so that the same one is kept once and none is ever written
 * over. What `keep` has answered is on the disk.
 */
export class KeptFiles {
  constructor(readonly folder: string) {}

  pathOf(sha256: string): string {
    if (!SHA256.test(sha256)) throw new RangeError('a kept file is named by its SHA-256');
    return join(this.folder, sha256.slice(0, 2), sha256);
  }

  async keep(content: Uint8Array): Promise<KeptFile> {
    const kept = { sha256: createHash('sha256').update(content).digest('hex'), bytes: content.length };
    const path = this.pathOf(kept.sha256);
    if ((await bytesOf(path)) === kept.bytes) return kept;
    await mkdir(dirname(path), { recursive: true });
    const written = join(this.folder, `${randomUUID()}.part`);
    try {
      const file = await open(written, 'wx');
      try {
        await file.writeFile(content);
        await file.sync();
      } finally {
        await file.close();
      }
      await rename(written, path);
    } catch (error) {
      await rm(written, { force: true });
      throw error;
    }
    for (const folder of [dirname(path), this.folder, dirname(this.folder)]) await syncToDisk(folder);
    return kept;
  }

  /** @throws {FileDamagedError} where it is gone or isn’t what it was */
  async read(sha256: string): Promise<Uint8Array> {
    const path = this.pathOf(sha256);
    if (!existsSync(path)) throw new FileDamagedError(sha256, path, 'missing');
    const content = await readFile(path);
    if (createHash('sha256').update(content).digest('hex') !== sha256)
      throw new FileDamagedError(sha256, path, 'changed');
    return content;
  }

  /** Piece by piece. @throws {FileDamagedError} where it is gone */
  stream(sha256: string): Readable {
    const path = this.pathOf(sha256);
    if (!existsSync(path)) throw new FileDamagedError(sha256, path, 'missing');
    return createReadStream(path);
  }
}

const bytesOf = async (path: string): Promise<number | undefined> => {
  try {
    return (await stat(path)).size;
  } catch {
    return undefined;
  }
};
