import { createHash } from 'node:crypto';
import { open, readFile } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { crc32 } from 'node:zlib';
import type { StudioDocument } from '@vestigia/contract';
import { studioDocument, upgradeStudioFile } from '@vestigia/contract';
import type { Entry, ZipFile } from 'yauzl';
import yauzl from 'yauzl';
import { parse } from '../http/routes';
import { Refusal } from '../shared/problem';
import { DOCUMENT_NAME, FILES_FOLDER } from './write-studio-file';

/** A studio file that lies on the disk, opened. */
export interface OpenedStudioFile {
  readonly document: StudioDocument;
  /** A photograph or sheet that lies beside the document. @throws {Refusal} where it doesn’t, or isn’t what its name says */
  contentOf(sha256: string): Promise<Uint8Array>;
  close(): void;
}

/** A document as large as this can’t be held as one text. */
const MOST_DOCUMENT_BYTES = 500_000_000;
/** No photograph or sheet that was taken in was larger. */
const MOST_FILE_BYTES = 64_000_000;

const damaged = (what: string): Refusal =>
  new Refusal(
    'unreadable',
    $localize`This studio file is damaged: ${what}. Nothing was opened; take another copy of it.`,
    {
      reason: 'damaged',
    },
  );

/**
 * Reads a studio file: a zip, or a document by itself as earlier versions wrote.
 * @throws {Refusal} with a plain sentence where it is none, is damaged, or is from a newer version
 */
export async function readStudioFile(path: string): Promise<OpenedStudioFile> {
  if (!(await isZip(path)))
    return {
      document: documentOf(await readFile(path)),
      contentOf: () => Promise.reject(damaged($localize`a photograph or sheet is missing`)),
      close: () => undefined,
    };
  const zip = await openZip(path);
  try {
    const entries = await entriesOf(zip);
    const own = entries.get(DOCUMENT_NAME);
    if (!own)
      throw new Refusal('unreadable', $localize`This is not a studio file made by Vestigia.`, { reason: 'notOurs' });
    const document = documentOf(await contentOf(zip, own, MOST_DOCUMENT_BYTES));
    return {
      document,
      contentOf: async (sha256) => {
        const entry = entries.get(`${FILES_FOLDER}${sha256}`);
        if (!entry) throw damaged($localize`a photograph or sheet is missing`);
        const content = await contentOf(zip, entry, MOST_FILE_BYTES);
        if (createHash('sha256').update(content).digest('hex') !== sha256)
          throw damaged($localize`a photograph or sheet is not what it was`);
        return content;
      },
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}

function documentOf(content: Uint8Array): StudioDocument {
  let json: unknown;
  try {
    json = JSON.parse(Buffer.from(content.buffer, content.byteOffset, content.length).toString('utf8'));
  } catch {
    throw new Refusal('unreadable', $localize`This is not a studio file made by Vestigia.`, { reason: 'notOurs' });
  }
  return parse(studioDocument, upgradeStudioFile(json));
}

async function isZip(path: string): Promise<boolean> {
  const file = await open(path, 'r');
  try {
    const { buffer } = await file.read(Buffer.alloc(4), 0, 4, 0);
    return buffer.toString('latin1') === 'PK\u0003\u0004';
  } finally {
    await file.close();
  }
}

async function openZip(path: string): Promise<ZipFile> {
  try {
    return await yauzl.openPromise(path, { lazyEntries: true, autoClose: false });
  } catch {
    throw damaged($localize`it ends too early, or was changed`);
  }
}

/** By name; what is named twice or lies outside is refused by the package itself. */
async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>();
  try {
    for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
  } catch {
    throw damaged($localize`its list of contents can’t be read`);
  }
  return entries;
}

async function contentOf(zip: ZipFile, entry: Entry, most: number): Promise<Uint8Array> {
  if (entry.uncompressedSize > most)
    throw new Refusal('tooLarge', $localize`Something in this studio file is larger than is taken.`);
  const pieces: Uint8Array[] = [];
  try {
    const stream: Readable = await zip.openReadStreamPromise(entry);
    for await (const piece of stream) pieces.push(piece as Uint8Array);
  } catch {
    throw damaged($localize`what is packed in it can’t be unpacked`);
  }
  const content = Buffer.concat(pieces);
  if (crc32(content) !== entry.crc32) throw damaged($localize`what is packed in it was changed`);
  return content;
}
