import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Response } from 'supertest';
import { openEmptyStudio } from './empty-studio';
import { wholeDocument } from './test-studio';

type Whole = Awaited<ReturnType<typeof wholeDocument>>;

/** An empty studio in which studio files are opened, and what stands in it then. */
export async function elsewhere<T>(
  work: (there: { open: (document: object) => Promise<Response>; whole: () => Promise<Whole> }) => Promise<T>,
): Promise<T> {
  const copies = mkdtempSync(join(tmpdir(), 'vestigia-copies-'));
  const empty = await openEmptyStudio(copies);
  try {
    return await work({
      open: async (document) =>
        empty.agent.post('/api/auth/document').set('content-type', 'application/json').send(JSON.stringify(document)),
      whole: () => wholeDocument(empty.context.database.db),
    });
  } finally {
    await empty.close();
    rmSync(copies, { recursive: true, force: true });
  }
}
