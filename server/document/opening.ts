import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { OpenedDocument, OpeningDocument } from '@vestigia/contract';
import { hasStudio } from '../auth/auth-store';
import type { Writer } from '../http/write';
import type { Context } from '../shared/context';
import { Refusal } from '../shared/problem';
import { importDocument } from './import-document';
import { readStudioFile } from './read-studio-file';

const NOTHING: OpeningDocument = { phase: 'none', done: 0, total: null };
/** No studio's file was ever so large; whoever isn't known yet can't fill the disk. */
const MOST_BYTES = 8_000_000_000;

/** A studio file on its way into an empty studio: one at a time, told how far, stopped while it isn't in. */
export class Opening {
  private state = NOTHING;
  private stopped: AbortController | undefined;

  constructor(
    private readonly context: Context,
    private readonly writer: Writer,
  ) {}

  get progress(): OpeningDocument {
    return this.state;
  }

  stop(): void {
    this.stopped?.abort(
      new Refusal('refused', $localize`Opening the studio file was stopped. Nothing was opened.`, {
        reason: 'stopped',
      }),
    );
  }

  /** One that lies on the disk already. */
  openAt(path: string): Promise<OpenedDocument> {
    return this.alone((signal) => this.open(path, basename(path), signal));
  }

  /** Nothing of it is read before it is known that the studio is empty. @param from whence it comes, for the record */
  begin(sent: Readable, bytes: number | null, from: string): Promise<OpenedDocument> {
    const folder = join(dirname(this.context.database.files.folder), 'incoming');
    const path = join(folder, `${randomUUID()}.part`);
    return this.alone(async (signal) => {
      if ((bytes ?? 0) > MOST_BYTES) throw new Refusal('tooLarge', $localize`That is larger than any studio file.`);
      try {
        await mkdir(folder, { recursive: true });
        await this.receive(sent, path, bytes, signal);
        return await this.open(path, from, signal);
      } finally {
        await rm(path, { force: true });
      }
    });
  }

  /** @throws {Refusal} where a studio is open here already */
  async assertEmpty(): Promise<void> {
    if (await hasStudio(this.context.database.db))
      throw new Refusal(
        'alreadyDone',
        $localize`This studio is open already, and a studio file opens only in an empty one. Start with another DATA_DIR.`,
      );
  }

  private async alone(work: (signal: AbortSignal) => Promise<OpenedDocument>): Promise<OpenedDocument> {
    await this.assertEmpty();
    if (this.stopped)
      throw new Refusal('alreadyDone', $localize`A studio file is being opened just now. Wait until it is in.`);
    const stopped = new AbortController();
    this.stopped = stopped;
    try {
      return await work(stopped.signal);
    } finally {
      this.stopped = undefined;
      this.state = NOTHING;
    }
  }

  private async receive(sent: Readable, path: string, total: number | null, signal: AbortSignal): Promise<void> {
    this.state = { phase: 'receiving', done: 0, total };
    let done = 0;
    const counted = async function* (this: Opening, pieces: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
      for await (const piece of pieces) {
        done += piece.length;
        if (done > MOST_BYTES) throw new Refusal('tooLarge', $localize`That is larger than any studio file.`);
        this.state = { phase: 'receiving', done, total };
        yield piece;
      }
    };
    try {
      await pipeline(sent, counted.bind(this), createWriteStream(path), { signal });
    } catch (error) {
      throw signal.aborted ? (signal.reason as Error) : error;
    }
    if (done === 0) throw new Refusal('unreadable', $localize`There is nothing in that file. Choose another.`);
  }

  private async open(path: string, openedFrom: string, signal: AbortSignal): Promise<OpenedDocument> {
    this.state = { phase: 'reading', done: 0, total: null };
    const file = await readStudioFile(path);
    try {
      const codes = await importDocument(this.context, this.writer, file, {
        openedFrom,
        heard: (done, total) => {
          signal.throwIfAborted();
          this.state = { phase: 'keeping', done, total };
        },
      });
      return { codes };
    } finally {
      file.close();
    }
  }
}
