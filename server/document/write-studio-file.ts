import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import type { Context } from '../shared/context';
import type { DocumentExport } from './export-document';
import { beginExport, documentText } from './export-document';

/** The document’s name in a studio file, and where photographs and sheets lie in it. */
export const DOCUMENT_NAME = 'studio.json';
export const FILES_FOLDER = 'files/';

/** A studio file (docs/studio-file.md) as it is written. */
export interface WrittenStudioFile {
  readonly exported: DocumentExport;
  readonly content: Readable;
  /** SHA-256 of the document, once all of it was written. */
  documentDigest(): string;
}

/** The whole studio as one zip, piece by piece: the document, and beside it each photograph and sheet by its SHA-256. */
export async function writeStudioFile(
  { database: { db, files }, answering }: Pick<Context, 'database' | 'answering'>,
  now: Date,
): Promise<WrittenStudioFile> {
  const exported = await beginExport(db, now);
  const hash = createHash('sha256');
  async function* text(): AsyncGenerator<string> {
    for await (const piece of documentText(exported)) {
      hash.update(piece);
      yield piece;
      await answering.first();
    }
  }
  const zip = new ZipFile();
  const content = Readable.from(zip.outputStream);
  zip.on('error', (error) => content.destroy(error));
  zip.addReadStreamLazy(DOCUMENT_NAME, { mtime: now }, (done) => done(null, Readable.from(text())));
  for (const { sha256, bytes } of exported.files)
    zip.addReadStreamLazy(`${FILES_FOLDER}${sha256}`, { mtime: now, compress: false, size: bytes }, (done) => {
      try {
        done(null, files.stream(sha256));
      } catch (error) {
        content.destroy(error as Error);
      }
    });
  zip.end();
  return { exported, content, documentDigest: () => hash.digest('hex') };
}
