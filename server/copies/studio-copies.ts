import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { CopyOfStudio, StudioCopies } from '@vestigia/contract';
import { copiesToKeep, isCopyDue, isCopyOld } from '@vestigia/core';
import { syncToDisk } from '../db/disk-flush';
import { studio } from '../db/schema';
import { writeStudioFile } from '../document/write-studio-file';
import type { Writer } from '../http/write';
import type { Context } from '../shared/context';
import { Refusal } from '../shared/problem';
import type { CheckedCopy } from './check-copy';
import { digestBalances } from './check-copy';

/** Opens a copy and says what is in it; in a process of its own, so that nobody waits. */
export type Checker = (path: string) => Promise<CheckedCopy>;

const LOOK_EVERY_MS = 5 * 60_000;
/** Below this the disk of the copies is told as nearly full. */
const LITTLE_ROOM_BYTES = 1_000_000_000;
const NAME = /^studio-(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})Z\.zip$/;

const nameOf = (now: Date): string => `studio-${now.toISOString().slice(0, 19).replaceAll(':', '-')}Z.zip`;
const timeOf = (name: string): string | undefined => {
  const [, day, hour, minute, second] = NAME.exec(name) ?? [];
  return day && `${day}T${hour}:${minute}:${second}.000Z`;
};

/** Copies in a folder, newest first; whatever else lies there is left alone. */
export async function copiesIn(folder: string): Promise<CopyOfStudio[]> {
  if (!existsSync(folder)) return [];
  const copies: CopyOfStudio[] = [];
  for (const name of await readdir(folder)) {
    const at = timeOf(name);
    if (at) copies.push({ name, at, bytes: (await stat(join(folder, name))).size });
  }
  return copies.sort((x, y) => (x.at < y.at ? 1 : -1));
}

/**
 * Copies of the whole studio in a folder of their own: written, opened and looked over before they count, kept by a
 * rule. A copy that doesn’t hold exactly what was to be copied is thrown away and said.
 */
export class CopyKeeper {
  private making: Promise<CopyOfStudio> | undefined;
  private problem: string | null = null;
  private readonly timer: NodeJS.Timeout;

  constructor(
    private readonly context: Context,
    private readonly writer: Writer,
    readonly folder: string,
    private readonly check: Checker,
  ) {
    this.timer = setInterval(() => void this.makeIfDue(), LOOK_EVERY_MS);
    this.timer.unref();
    context.atClose.push(async () => {
      clearInterval(this.timer);
      await this.making?.catch(() => undefined);
    });
  }

  list(): Promise<CopyOfStudio[]> {
    return copiesIn(this.folder);
  }

  async tell(): Promise<StudioCopies> {
    const copies = await this.list();
    const lastMs = copies[0] ? Date.parse(copies[0].at) : null;
    const freeBytes = await this.freeBytes();
    return {
      folder: this.folder,
      copies,
      isMaking: this.making !== undefined,
      problem: this.problem,
      isOld: isCopyOld(this.context.clock().getTime(), lastMs, this.writer.newestRecordMs),
      freeBytes,
      isNearlyFull: freeBytes !== null && freeBytes < Math.max(LITTLE_ROOM_BYTES, 3 * (copies[0]?.bytes ?? 0)),
    };
  }

  /** After a working day with something recorded. Nobody asked, so what goes wrong is kept to be told. */
  async makeIfDue(): Promise<void> {
    const now = this.context.clock();
    const [settings] = await this.context.database.db.select({ zone: studio.zone }).from(studio);
    if (!settings || this.making) return;
    const [newest] = await this.list();
    if (!isCopyDue(now.getTime(), newest ? Date.parse(newest.at) : null, this.writer.newestRecordMs, settings.zone))
      return;
    await this.make().catch((error: unknown) => this.context.log.error({ err: error }, 'the copy of the studio'));
  }

  /** Writes a copy and looks it over. Whoever asks while one is made is told of that one. */
  make(): Promise<CopyOfStudio> {
    this.making ??= this.makeNow()
      .then((copy) => {
        this.problem = null;
        return copy;
      })
      .catch((error: unknown) => {
        this.problem = sayProblem(error, this.folder);
        throw new Refusal('refused', this.problem, { reason: 'copyFailed' });
      })
      .finally(() => (this.making = undefined));
    return this.making;
  }

  pathOf(name: string): string {
    if (!NAME.test(name) || !existsSync(join(this.folder, name)))
      throw new Refusal('notFound', $localize`There is no such copy in the folder any more. Look again.`);
    return join(this.folder, name);
  }

  private async makeNow(): Promise<CopyOfStudio> {
    const { database, clock } = this.context;
    const now = clock();
    await mkdir(this.folder, { recursive: true });
    const name = nameOf(now);
    const path = join(this.folder, name);
    const written = `${path}.part`;
    try {
      const balances = await digestBalances(database.db);
      const before = this.writer.newestRecordMs;
      const file = await writeStudioFile(this.context, now);
      await pipeline(file.content, createWriteStream(written, { flush: true }));
      const found = await this.check(written);
      if (found.document !== file.documentDigest() || found.files !== file.exported.files.length)
        throw new Error('opened again, it holds something else than the studio');
      // What was recorded between reading the shelf and beginning the copy is in one and not in the other.
      if (this.writer.newestRecordMs === before && found.balances !== balances)
        throw new Error('opened again, its jars hold something else than the studio’s');
      await rename(written, path);
      await syncToDisk(this.folder);
    } catch (error) {
      await rm(written, { force: true });
      throw error;
    }
    await this.letGo();
    return { name, at: timeOf(name) ?? now.toISOString(), bytes: (await stat(path)).size };
  }

  /** Older ones go by the rule, once a newer good one is there. */
  private async letGo(): Promise<void> {
    const [settings] = await this.context.database.db.select({ zone: studio.zone }).from(studio);
    const copies = await this.list();
    const kept = new Set(
      copiesToKeep(
        copies.map((c) => Date.parse(c.at)),
        settings?.zone ?? 'UTC',
      ),
    );
    for (const { name, at } of copies) if (!kept.has(Date.parse(at))) await rm(join(this.folder, name));
  }

  private async freeBytes(): Promise<number | null> {
    try {
      const { bavail, bsize } = await statfs(existsSync(this.folder) ? this.folder : join(this.folder, '..'));
      return bavail * bsize;
    } catch {
      return null;
    }
  }
}

function sayProblem(error: unknown, folder: string): string {
  const { code } = error as NodeJS.ErrnoException;
  if (code === 'ENOSPC')
    return $localize`There is no room for a copy in ${folder}. Make room there, then make a copy by hand.`;
  if (code === 'EACCES' || code === 'EROFS' || code === 'EPERM')
    return $localize`Nothing can be written in ${folder}. Give the program leave to, or name another folder as COPIES_DIR.`;
  const why = error instanceof Refusal ? error.detail : error instanceof Error ? error.message : String(error);
  return $localize`The copy was no good and was thrown away: ${why}`;
}
