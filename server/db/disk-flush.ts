import { open, readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';

/** Puts one file's or folder's contents on the disk. */
export type Sync = (path: string) => Promise<void>;

export const syncToDisk: Sync = async (path) => {
  const file = await open(path, 'r');
  try {
    await file.sync();
  } finally {
    await file.close();
  }
};

/**
 * PGlite asks for no fsync under Node, so a committed row may still be in the operating system's memory when the
 * power fails. This flushes what a commit wrote: the write-ahead log each time; after a checkpoint (the control file
 * changed) every data file written since, because the log before it is then no longer replayed.
 *
 * Calls that come while a flush is running share the next one.
 */
export class DiskFlush {
  private readonly walFolder: string;
  private readonly controlFile: string;
  /** Contents known to be on the disk: modification time by path. */
  private readonly synced = new Map<string, number>();
  private running: Promise<void> | undefined;
  private waiting: Promise<void> | undefined;

  constructor(
    private readonly folder: string,
    private readonly sync: Sync = syncToDisk,
  ) {
    this.walFolder = join(folder, 'pg_wal');
    this.controlFile = join(folder, 'global', 'pg_control');
  }

  /** Resolves once everything written before this call is on the disk. */
  flush(): Promise<void> {
    if (!this.running) {
      this.running = this.flushNow().finally(() => (this.running = undefined));
      return this.running;
    }
    // The running flush may have passed the new bytes already: wait for it, then flush once for all who came meanwhile.
    this.waiting ??= this.running
      .catch(() => undefined)
      .then(() => {
        this.waiting = undefined;
        return this.flush();
      });
    return this.waiting;
  }

  private async flushNow(): Promise<void> {
    if (await this.hasChanged(this.controlFile)) await this.syncTree(this.folder);
    else await this.syncFolder(this.walFolder);
  }

  private async syncTree(folder: string): Promise<void> {
    for (const entry of await readdir(folder, { withFileTypes: true }))
      if (entry.isDirectory()) await this.syncTree(join(folder, entry.name));
    await this.syncFolder(folder);
  }

  private async syncFolder(folder: string): Promise<void> {
    const entries = await readdir(folder, { withFileTypes: true });
    for (const entry of entries) if (entry.isFile()) await this.syncIfChanged(join(folder, entry.name));
    await this.syncIfChanged(folder);
  }

  private async syncIfChanged(path: string): Promise<void> {
    const changedMs = await modifiedMs(path);
    if (changedMs === undefined || this.synced.get(path) === changedMs) return;
    await this.sync(path);
    // A write within the clock's step of the last one leaves the same time behind, so a fresh time is not trusted yet.
    if (Date.now() - changedMs > 1000) this.synced.set(path, changedMs);
    else this.synced.delete(path);
  }

  private async hasChanged(path: string): Promise<boolean> {
    const changedMs = await modifiedMs(path);
    return changedMs !== undefined && this.synced.get(path) !== changedMs;
  }
}

async function modifiedMs(path: string): Promise<number | undefined> {
  try {
    return (await stat(path)).mtimeMs;
  } catch {
    return undefined; // recycled meanwhile
  }
}
